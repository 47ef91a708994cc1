"""Build sheets: the document, its drawing, and whether it is sound."""

"""Build sheets as rows."""

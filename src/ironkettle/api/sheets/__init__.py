"""Build sheets."""

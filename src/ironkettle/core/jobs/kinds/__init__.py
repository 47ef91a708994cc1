"""Kinds of entry, one module each: all that is known of it."""

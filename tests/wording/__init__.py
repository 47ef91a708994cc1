"""The word list, and the texts it is held against."""

"""One module a kind of entry: what it holds, whether it may be added, what it changes, and the moves that ask for it."""

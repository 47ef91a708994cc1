"""The shop as rows: people, sessions, settings, tools, stock, units, the trail of changes."""

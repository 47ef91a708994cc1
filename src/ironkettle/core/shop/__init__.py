"""The shop: its people and their rights, its settings, and the service of its units."""

"""What seals: rings, grooves, seals and their facing, compounds, the catalogue of elements, and why they fail."""

"""What seals: rings and their chart, grooves, seals, facing, compounds, causes of failure."""

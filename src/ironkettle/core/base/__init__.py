"""What every room of the core uses: quantities, errors, findings, text, housing materials."""

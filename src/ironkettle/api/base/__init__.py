"""What every route uses: sessions and clock, errors, shared shapes, bounds on what comes in."""

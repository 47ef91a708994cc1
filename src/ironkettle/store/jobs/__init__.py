"""Jobs as rows: their entries, snapshots, samples, recordings and photos; and whether all of it agrees."""

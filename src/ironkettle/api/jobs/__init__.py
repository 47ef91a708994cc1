"""Jobs: their tasks, log, runs, recordings, photos and hand-over."""

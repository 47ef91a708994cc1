"""Speed, as ratios against a floor taken in the same run: ``./kettle bench``."""

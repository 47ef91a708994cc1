"""Iron Kettle: the bench companion of a fluid power repair technician."""

__version__ = "0.1.0"

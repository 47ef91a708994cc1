"""Parts: what is read off them, and the limits it is held against."""

from ironkettle.core.parts.limit import Limit, read_limit

__all__ = ["Limit", "read_limit"]

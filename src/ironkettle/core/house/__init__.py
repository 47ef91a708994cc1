"""House rules: what the shop has chosen where good people differ, and the shipped value beside it."""

from ironkettle.core.house.rules import HOUSE_RULES, House, HouseRule

__all__ = ["HOUSE_RULES", "House", "HouseRule"]

"""House rules: what the shop has chosen where good people differ, and the shipped value beside it."""

from ironkettle.core.shop.settings.limits import PartLimit, part_limit
from ironkettle.core.shop.settings.rules import HOUSE_RULES, House, HouseRule
from ironkettle.core.shop.settings.schools import SCHOOLS, Held, School, Way

__all__ = ["HOUSE_RULES", "SCHOOLS", "Held", "House", "HouseRule", "PartLimit", "School", "Way", "part_limit"]

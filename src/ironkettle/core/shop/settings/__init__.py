"""Shop settings: what the shop has chosen where good people differ, and the shipped value beside it."""

from ironkettle.core.shop.settings.limits import PartLimit, part_limit
from ironkettle.core.shop.settings.practice import PRACTICE_OPTIONS, Held, PracticeOption, Way, under_their_names
from ironkettle.core.shop.settings.rules import SHOP_SETTINGS, ShopSetting, ShopSettings

__all__ = [
    "PRACTICE_OPTIONS",
    "SHOP_SETTINGS",
    "Held",
    "PartLimit",
    "PracticeOption",
    "ShopSetting",
    "ShopSettings",
    "Way",
    "part_limit",
    "under_their_names",
]

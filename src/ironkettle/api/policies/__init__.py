"""Who may do what: a small class a noun, asked with one word."""

from ironkettle.api.policies.base import Caller, Right, authorize
from ironkettle.api.policies.jobs import JobPolicy
from ironkettle.api.policies.people import PersonPolicy
from ironkettle.api.policies.practice import PracticePolicy
from ironkettle.api.policies.settings import SettingsPolicy
from ironkettle.api.policies.sheets import SheetPolicy
from ironkettle.api.policies.stand import StandPolicy
from ironkettle.api.policies.stock import StockPolicy
from ironkettle.api.policies.tokens import TokenPolicy
from ironkettle.api.policies.tools import ToolPolicy
from ironkettle.api.policies.trail import TrailPolicy
from ironkettle.api.policies.units import UnitPolicy

# What a screen may ask about: whether to offer it. The server asks again when it is done.
OFFERED: dict[str, Right] = {
    "change_stand": StandPolicy.change,
    "open_jobs": JobPolicy.open,
    "change_shop_settings": SettingsPolicy.change,
    "manage_people": PersonPolicy.manage,
    "manage_tokens": TokenPolicy.manage,
    "change_tools": ToolPolicy.change,
    "change_stock": StockPolicy.change,
    "import_sheets": SheetPolicy.bring_in,
    "approve_sheets": SheetPolicy.approve,
    "withdraw_sheets": SheetPolicy.withdraw,
    "move_stand": StandPolicy.move,
    "read_trail": TrailPolicy.read,
    "read_counters": UnitPolicy.count,
    "start_quick_service": UnitPolicy.start_service,
}

__all__ = [
    "OFFERED",
    "Caller",
    "JobPolicy",
    "PersonPolicy",
    "PracticePolicy",
    "Right",
    "SettingsPolicy",
    "SheetPolicy",
    "StandPolicy",
    "StockPolicy",
    "TokenPolicy",
    "ToolPolicy",
    "TrailPolicy",
    "UnitPolicy",
    "authorize",
]

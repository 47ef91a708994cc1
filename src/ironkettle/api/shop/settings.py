"""Shop settings: what is in force, the shipped value beside it, change and reset."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import Caller, SettingsPolicy
from ironkettle.core.base.text import Figure
from ironkettle.core.shop.settings import SHOP_SETTINGS
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.settings import reset_rule, set_rule, setting_rows, settings_in_force
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/shop-settings", tags=["shop settings"], responses=ERROR_RESPONSES)

Decider = Annotated[Caller, allow(SettingsPolicy.change)]


class ShopSettingOut(BaseModel):
    """``value`` is in force, ``shipped`` what came with the application; ``who`` changed it, if anybody."""

    key: str
    group: str
    name: str
    unit: str
    value: float
    shipped: float
    low: float
    high: float
    help: str
    choices: list[str]
    who: str | None
    changed_at: datetime | None


class RuleBody(Body):
    value: Figure = Field(examples=[12])


@router.get("", summary="All shop settings")
def rules(session: DbSession) -> list[ShopSettingOut]:
    own = setting_rows(session)
    names = names_of(session)
    return [
        ShopSettingOut(
            key=rule.key,
            group=rule.group,
            name=rule.name,
            unit=rule.unit,
            value=own[rule.key].value if rule.key in own else rule.shipped,
            shipped=rule.shipped,
            low=rule.low,
            high=rule.high,
            help=rule.help,
            choices=list(rule.choices),
            who=names.get(own[rule.key].who) if rule.key in own else None,
            changed_at=own[rule.key].changed_at if rule.key in own else None,
        )
        for rule in SHOP_SETTINGS
    ]


@router.put("/{key}", summary="Change a shop setting", responses=GUARDED)
def change(key: NameText, body: RuleBody, session: DbSession, caller: Decider) -> list[ShopSettingOut]:
    settings = settings_in_force(session)
    settings.changed(key, body.value)
    set_rule(session, key, body.value, caller.key, now())
    changes = {"value": settings.value(key)}, {"value": body.value}
    leave_trail(session, caller.key, now(), "shop setting", key, "changed", *changes)
    return rules(session)


@router.delete("/{key}", summary="Back to the shipped value", responses=GUARDED)
def reset(key: NameText, session: DbSession, caller: Decider) -> list[ShopSettingOut]:
    settings = settings_in_force(session)
    shipped = settings.reset(key).value(key)
    reset_rule(session, key)
    changes = {"value": settings.value(key)}, {"value": shipped}
    leave_trail(session, caller.key, now(), "shop setting", key, "back to the shipped value", *changes)
    return rules(session)

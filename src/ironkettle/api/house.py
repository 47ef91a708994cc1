"""House rules: what is in force, the shipped value beside it, change and reset."""

from __future__ import annotations

from datetime import datetime

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from ironkettle.api.deps import DbSession, author_of, now
from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, Finite, NameText
from ironkettle.core.house import HOUSE_RULES
from ironkettle.store.house import house_of, house_rows, reset_rule, set_rule
from ironkettle.store.people import all_people

router = APIRouter(prefix="/api/house-rules", tags=["house rules"], responses=ERROR_RESPONSES)


class HouseRuleOut(BaseModel):
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
    who: str | None
    changed_at: datetime | None


class RuleBody(Body):
    value: Finite
    who: NameText = Field(examples=["tamsin"])


@router.get("", summary="All house rules")
def rules(session: DbSession) -> list[HouseRuleOut]:
    own = house_rows(session)
    names = {person.key: person.name for person in all_people(session)}
    return [
        HouseRuleOut(
            key=rule.key,
            group=rule.group,
            name=rule.name,
            unit=rule.unit,
            value=own[rule.key].value if rule.key in own else rule.shipped,
            shipped=rule.shipped,
            low=rule.low,
            high=rule.high,
            help=rule.help,
            who=names.get(own[rule.key].who) if rule.key in own else None,
            changed_at=own[rule.key].changed_at if rule.key in own else None,
        )
        for rule in HOUSE_RULES
    ]


@router.put("/{key}", summary="Set one house rule")
def change(key: NameText, body: RuleBody, session: DbSession) -> list[HouseRuleOut]:
    author = author_of(session, body.who)
    house_of(session).changed(key, body.value)
    set_rule(session, key, body.value, author.key, now())
    return rules(session)


@router.delete("/{key}", summary="Back to the shipped value")
def reset(key: NameText, session: DbSession, who: NameText = Query(examples=["tamsin"])) -> list[HouseRuleOut]:
    author_of(session, who)
    house_of(session).reset(key)
    reset_rule(session, key)
    return rules(session)

"""The shop's own names of lubricants: what stands on the tins of its shelf, each with the one of the list that it is."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED, NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import Caller, SettingsPolicy
from ironkettle.core.sealing.compounds import Lubricant, check_own_name, plain_word
from ironkettle.store.shop.lubricants import all_lubricant_names, forget_lubricant, name_lubricant, own_lubricants
from ironkettle.store.shop.people import names_of
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/lubricant-names", tags=["shop settings"], responses=ERROR_RESPONSES)

Decider = Annotated[Caller, allow(SettingsPolicy.change)]


class LubricantNameOut(BaseModel):
    """``name``: as it stands on the tin; ``lubricant``: the one of the list that it is."""

    name: str
    lubricant: Lubricant
    who: str | None
    changed_at: datetime


class LubricantNameBody(Body):
    lubricant: Lubricant = Field(examples=["lithium_grease"])


@router.get("", summary="The shop's own names of lubricants")
def listed(session: DbSession) -> list[LubricantNameOut]:
    people = names_of(session)
    return [
        LubricantNameOut(
            name=row.name, lubricant=Lubricant(row.lubricant), who=people.get(row.who), changed_at=row.changed_at
        )
        for row in all_lubricant_names(session)
    ]


@router.put("/{name:path}", summary="Name a lubricant", responses=GUARDED)
def put(name: NameText, body: LubricantNameBody, session: DbSession, caller: Decider) -> list[LubricantNameOut]:
    check_own_name(name, body.lubricant)
    was = own_lubricants(session).get(plain_word(name))
    name_lubricant(session, name, body.lubricant, caller.key, now())
    change = {"lubricant": was and was.value}, {"lubricant": body.lubricant.value}
    leave_trail(session, caller.key, now(), "lubricant name", name, "named", *change)
    return listed(session)


@router.delete("/{name:path}", summary="Drop a name", responses=GUARDED)
def drop(name: NameText, session: DbSession, caller: Decider) -> list[LubricantNameOut]:
    was = forget_lubricant(session, name)
    if was is None:
        raise NotThereError("name of a lubricant", name)
    leave_trail(session, caller.key, now(), "lubricant name", name, "dropped", {"lubricant": was.value}, None)
    return listed(session)

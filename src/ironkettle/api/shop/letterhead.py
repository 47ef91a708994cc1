"""The head of the shop's papers: who it is, where it is reached, in which zone its times are told."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED
from ironkettle.api.base.schemas import Body
from ironkettle.api.policies import Caller, SettingsPolicy
from ironkettle.core.shop.letterhead import Letterhead, check_letterhead
from ironkettle.store.shop.letterhead import keep_letterhead, letterhead_of
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/letterhead", tags=["shop settings"], responses=ERROR_RESPONSES)

Decider = Annotated[Caller, allow(SettingsPolicy.change)]


class LetterheadOut(BaseModel):
    """``missing``: what of it is empty still, in words."""

    name: str
    address: list[str]
    contact: str
    site: str
    zone: str
    missing: list[str]


class LetterheadBody(Letterhead, Body):
    """The whole head: what is left out is empty."""


def _out(letterhead: Letterhead) -> LetterheadOut:
    return LetterheadOut(**letterhead.model_dump(), missing=list(letterhead.missing))


@router.get("", summary="The head of the shop's papers")
def letterhead(session: DbSession) -> LetterheadOut:
    return _out(letterhead_of(session))


@router.put("", summary="Change the head of the shop's papers", responses=GUARDED)
def change(body: LetterheadBody, session: DbSession, caller: Decider) -> LetterheadOut:
    before, letterhead = letterhead_of(session), Letterhead.model_validate(body.model_dump())
    check_letterhead(letterhead)
    keep_letterhead(session, letterhead, caller.key, now())
    changes = before.model_dump(mode="json"), letterhead.model_dump(mode="json")
    leave_trail(session, caller.key, now(), "shop setting", "letterhead", "changed", *changes)
    return _out(letterhead)

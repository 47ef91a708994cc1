"""Tokens for scripts: made, shown once, revoked."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import Caller, TokenPolicy
from ironkettle.core.base.errors import fault
from ironkettle.store.shop.people import find_person, names_of
from ironkettle.store.shop.sessions import TokenRow, all_tokens, find_token, make_token
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/tokens", tags=["tokens"], responses=ERROR_RESPONSES | GUARDED)

Manager = Annotated[Caller, allow(TokenPolicy.manage)]


class TokenBody(Body):
    """Purpose, and as whom it acts."""

    name: NameText
    person: NameText


class TokenOut(BaseModel):
    id: UUID
    name: str
    person: str
    person_name: str
    use: str
    made_at: datetime
    revoked_at: datetime | None
    ends_at: datetime | None


class NewTokenOut(TokenOut):
    """``token`` is shown here and never again."""

    token: str


@router.get("", summary="All tokens, without their text")
def tokens(session: DbSession, caller: Manager) -> list[TokenOut]:
    return [_shown(session, row) for row in all_tokens(session)]


@router.post("", summary="Make a token; its text is shown once")
def make(body: TokenBody, session: DbSession, caller: Manager) -> NewTokenOut:
    person = find_person(session, body.person)
    if person is None or not person.active:
        raise fault("person", f"“{body.person}” is not a person of this workshop")
    row, text = make_token(session, body.name, person.key, now())
    after = {"name": body.name, "person": person.key}
    leave_trail(session, caller.key, now(), "token", str(row.id), "made", after=after)
    return NewTokenOut(**_shown(session, row).model_dump(), token=text)


@router.delete("/{token}", summary="Revoke a token", responses=NOT_THERE)
def revoke(token: UUID, session: DbSession, caller: Manager) -> TokenOut:
    row = find_token(session, token)
    if row is None:
        raise NotThereError("token", token)
    if row.revoked_at is None:
        row.revoked_at = now()
        leave_trail(session, caller.key, now(), "token", str(row.id), "revoked", before={"name": row.name})
    return _shown(session, row)


def _shown(session: Session, row: TokenRow) -> TokenOut:
    return TokenOut(
        id=row.id,
        name=row.name,
        person=row.person,
        person_name=names_of(session).get(row.person, row.person),
        use=row.use,
        made_at=row.made_at,
        revoked_at=row.revoked_at,
        ends_at=row.ends_at,
    )

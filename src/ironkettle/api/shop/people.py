"""People of the workshop: the open list of names, and what the lead manages."""

from __future__ import annotations

import re
import unicodedata
from datetime import date
from typing import Annotated, Any, Self

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field, StringConstraints
from sqlalchemy.orm import Session

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import SignedIn, allow, prove_signature
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import Caller, PersonPolicy, authorize
from ironkettle.core.base.errors import fault
from ironkettle.core.base.text import Plain
from ironkettle.core.shop.people import (
    AUTHORITY_WORD,
    ROLE_WORD,
    Authority,
    Role,
    check_badge,
    check_secret,
)
from ironkettle.store.shop.people import (
    AuthorisationRow,
    Person,
    add_person,
    all_people,
    find_person,
    keep_a_lead,
    set_badge,
    set_secret,
)
from ironkettle.store.shop.sessions import end_sessions_of
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/people", tags=["people"], responses=ERROR_RESPONSES)

Secret = Annotated[str, StringConstraints(min_length=1, max_length=200), Plain, Field(examples=["417902"])]
Manager = Annotated[Caller, allow(PersonPolicy.manage)]
Reader = Annotated[Caller, allow(PersonPolicy.read)]


class NameOut(BaseModel):
    """What everybody sees who reaches the server: names to choose from."""

    key: str
    name: str


class AuthorisationOut(BaseModel):
    authority: Authority
    word: str
    until: date
    holds: bool

    @classmethod
    def of(cls, row: AuthorisationRow, today: date) -> Self:
        return cls(
            authority=row.authority, word=AUTHORITY_WORD[row.authority], until=row.until, holds=today <= row.until
        )


class PersonOut(NameOut):
    role: Role
    role_word: str
    active: bool
    has_pin: bool
    has_badge: bool
    authorisations: list[AuthorisationOut]

    @classmethod
    def of(cls, person: Person) -> Self:
        return cls(
            key=person.key,
            name=person.name,
            role=person.role,
            role_word=ROLE_WORD[person.role],
            active=person.active,
            has_pin=person.secret is not None,
            has_badge=person.badge is not None,
            authorisations=[AuthorisationOut.of(row, now().date()) for row in person.authorisations],
        )


class WordOut(BaseModel):
    key: str
    word: str


class PeopleOut(BaseModel):
    """Everybody with their rights, and the words to choose from."""

    people: list[PersonOut]
    roles: list[WordOut]
    authorities: list[WordOut]


class NewPersonBody(Body):
    name: NameText
    role: Role
    pin: Secret


class PersonBody(Body):
    """What of a person is to change."""

    name: NameText | None = None
    role: Role | None = None
    active: bool | None = None


class PinBody(Body):
    """A new PIN or password. For one's own the present one stands beside it."""

    pin: Secret
    present_pin: Secret | None = None


class BadgeBody(Body):
    """What the reader typed; none takes the badge away. For one's own the PIN stands beside it."""

    badge: Secret | None
    present_pin: Secret | None = None


class AuthorisationBody(Body):
    until: date = Field(examples=["2027-06-30"])


@router.get("", summary="Names to sign in from")
def names(session: DbSession) -> list[NameOut]:
    return [NameOut(key=person.key, name=person.name) for person in all_people(session) if person.active]


@router.get("/register", summary="Everybody with their rights", responses=GUARDED)
def register(session: DbSession, caller: Reader) -> PeopleOut:
    return PeopleOut(
        people=[PersonOut.of(person) for person in all_people(session)],
        roles=[WordOut(key=role, word=word) for role, word in ROLE_WORD.items()],
        authorities=[WordOut(key=a, word=word) for a, word in AUTHORITY_WORD.items() if a is not Authority.NONE],
    )


@router.post("", summary="Add a person", responses=GUARDED | CONFLICT)
def add(body: NewPersonBody, session: DbSession, caller: Manager) -> PersonOut:
    person = Person(key=free_key(session, body.name), name=free_name(session, body.name), role=body.role)
    set_secret(person, check_secret(body.pin))
    add_person(session, person)
    _trail(session, caller, person, "added", after={"name": person.name, "role": person.role})
    return PersonOut.of(person)


@router.patch(
    "/{key}", summary="Change a name or role, or deactivate a person", responses=GUARDED | NOT_THERE | CONFLICT
)
def change(key: NameText, body: PersonBody, session: DbSession, caller: Manager) -> PersonOut:
    person = _person(session, key)
    before = {"name": person.name, "role": person.role, "active": person.active}
    after = {**before, **body.model_dump(exclude_none=True)}
    if after["name"] != before["name"]:
        free_name(session, str(after["name"]))
    keep_a_lead(session, person, Role(after["role"]), bool(after["active"]))
    person.name, person.role, person.active = str(after["name"]), Role(after["role"]), bool(after["active"])
    session.flush()
    if not person.active:
        end_sessions_of(session, key)
    changed = [name for name in after if after[name] != before[name]]
    if changed:
        changes = {name: before[name] for name in changed}, {name: after[name] for name in changed}
        _trail(session, caller, person, "changed", *changes)
    return PersonOut.of(person)


@router.put("/{key}/pin", summary="Set a PIN or password", responses=GUARDED | NOT_THERE)
def set_pin(key: NameText, body: PinBody, request: Request, session: DbSession, caller: SignedIn) -> PersonOut:
    authorize(caller, PersonPolicy.set_secret(key))
    person = _person(session, key)
    secret = check_secret(body.pin)
    _prove_own(request, caller, key, body.present_pin)
    set_secret(person, secret)
    session.flush()
    # Whoever knew the old one is out; the device in hand stays.
    end_sessions_of(session, key, but=caller.cookie if caller.key == key else None)
    _trail(session, caller, person, "PIN set")
    return PersonOut.of(person)


@router.put("/{key}/badge", summary="Give or take away a badge", responses=GUARDED | NOT_THERE)
def give_badge(key: NameText, body: BadgeBody, request: Request, session: DbSession, caller: SignedIn) -> PersonOut:
    authorize(caller, PersonPolicy.set_secret(key))
    person = _person(session, key)
    badge = None if body.badge is None else check_badge(body.badge)
    _prove_own(request, caller, key, body.present_pin)
    set_badge(person, badge)
    session.flush()
    _trail(session, caller, person, "badge taken away" if badge is None else "badge given")
    return PersonOut.of(person)


@router.put("/{key}/authorisations/{authority}", summary="Grant an authority", responses=GUARDED | NOT_THERE)
def grant(
    key: NameText, authority: Authority, body: AuthorisationBody, session: DbSession, caller: Manager
) -> PersonOut:
    person = _person(session, key)
    today = now().date()
    if authority is Authority.NONE:
        raise fault("authority", "is no authority to grant", *(a for a in Authority if a is not Authority.NONE))
    if not today <= body.until <= today.replace(year=today.year + 10, day=min(today.day, 28)):
        raise fault("until", f"{body.until} is not a day from now to ten years on", "a date in the future")
    before = {row.authority: row for row in person.authorisations}.get(authority)
    was = {"until": before.until.isoformat()} if before else {}
    if before is None:
        before = AuthorisationRow(person=key, authority=authority)
        person.authorisations.append(before)
    before.until, before.granted_by, before.granted_at = body.until, caller.key, now()
    session.flush()
    _trail(session, caller, person, f"authority granted: {AUTHORITY_WORD[authority]}", was, {"until": str(body.until)})
    return PersonOut.of(person)


@router.delete("/{key}/authorisations/{authority}", summary="Take an authority away", responses=GUARDED | NOT_THERE)
def withdraw(key: NameText, authority: Authority, session: DbSession, caller: Manager) -> PersonOut:
    person = _person(session, key)
    held = next((row for row in person.authorisations if row.authority is authority), None)
    if held is not None:
        person.authorisations.remove(held)
        session.flush()
        was = {"until": held.until.isoformat()}
        _trail(session, caller, person, f"authority taken away: {AUTHORITY_WORD[authority]}", was)
    return PersonOut.of(person)


def free_name(session: Session, name: str) -> str:
    """The name, when nobody has it: names stand on certificates. Raises RuleError."""
    if any(person.name.casefold() == name.casefold() for person in all_people(session)):
        raise fault("name", f"there is a {name} already; add a second name to distinguish them")
    return name


def free_key(session: Session, name: str) -> str:
    """A key made of a name that nobody has yet. Raises RuleError when the name holds no letter or digit."""
    letters = (c for c in unicodedata.normalize("NFKD", name.lower()) if not unicodedata.combining(c))
    stem = re.sub(r"[^a-z0-9]+", "-", "".join(letters)).strip("-")[:50]
    if not stem:
        raise fault("name", "contains no letter a to z and no digit for a short name", "letters")
    taken = {person.key for person in all_people(session)}
    return next(key for key in (stem, *(f"{stem}-{n}" for n in range(2, 10_000))) if key not in taken)


def _person(session: Session, key: str) -> Person:
    person = find_person(session, key)
    if person is None:
        raise NotThereError("person", key)
    return person


def _prove_own(request: Request, caller: Caller, key: str, present: str | None) -> None:
    """For one's own secret the present one is asked for: the device may lie open on the bench."""
    if caller.key == key:
        if present is None:
            raise fault("present_pin", "enter your present PIN as well")
        prove_signature(request, caller, present)


def _trail(
    session: Session,
    caller: Caller,
    person: Person,
    change: str,
    before: dict[str, Any] | None = None,
    after: dict[str, Any] | None = None,
) -> None:
    leave_trail(session, caller.key, now(), "person", person.key, change, before, after)

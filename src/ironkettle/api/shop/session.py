"""Signing in and out, and the first start, when there is nobody yet."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Self

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, Field, model_validator
from sqlalchemy import text

from ironkettle.api.base.deps import DbSession, SettingsInForce, now
from ironkettle.api.base.identity import (
    MaybeCaller,
    NotSignedInError,
    cookie_name,
    prove,
    prove_badge,
    set_cookie,
)
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, NOT_SIGNED_IN
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import OFFERED, Caller
from ironkettle.api.shop.people import AuthorisationOut, Secret, free_key
from ironkettle.core.base.errors import NotAllowedError, RefusedError, fault
from ironkettle.core.shop.people import ROLE_WORD, Role, check_badge, check_secret
from ironkettle.demo.load import shipped_pins
from ironkettle.store.shop.people import Person, add_person, all_people, find_person, has_lead, set_secret
from ironkettle.store.shop.sessions import begin_session, end_session, session_of_cookie
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api", tags=["identity"], responses=ERROR_RESPONSES)

_ONLY_FIRST = 417_000_001
_LOOPBACK = frozenset({"127.0.0.1", "::1"})


class SignInBody(Body):
    """Person and PIN (or password), or a badge alone."""

    person: NameText | None = Field(default=None, examples=["bede"])
    pin: Secret | None = None
    badge: Secret | None = None

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if (self.badge is None) == (self.person is None or self.pin is None):
            raise ValueError("give person and pin, or badge alone")
        return self


class FirstLeadBody(Body):
    """The first lead of a workshop that has none: somebody new, or somebody of the list."""

    name: NameText = Field(examples=["Tamsin Orrell"])
    pin: Secret


class SessionOut(BaseModel):
    """Who is signed in on this device, what they may do, until when, and what the server's clock says."""

    person: str
    name: str
    role: Role
    role_word: str
    authorisations: list[AuthorisationOut]
    may: list[str]
    ends_at: datetime
    server_time: datetime


class ShippedPinOut(BaseModel):
    person: str
    name: str
    pin: str


class WelcomeOut(BaseModel):
    """What the sign-in page needs before anybody is signed in. ``shipped_pins``: the demo's, as far as unchanged."""

    first_start: bool
    shipped_pins: list[ShippedPinOut]
    server_time: datetime


@router.get("/welcome", summary="What the sign-in page needs")
def welcome(request: Request, session: DbSession) -> WelcomeOut:
    """The demo's PINs are shown on the machine the server runs on, and nowhere else."""
    here = request.client is not None and request.client.host in _LOOPBACK
    shipped = (
        {}
        if not here
        else {person.key: person.name for person in all_people(session) if person.shipped_secret and person.active}
    )
    pins = [ShippedPinOut(person=k, name=shipped[k], pin=pin) for k, pin in shipped_pins().items() if k in shipped]
    return WelcomeOut(first_start=not has_lead(session), shipped_pins=pins, server_time=now())


@router.post("/session", summary="Sign in on this device", responses=NOT_SIGNED_IN)
def sign_in(
    body: SignInBody, request: Request, response: Response, session: DbSession, settings: SettingsInForce
) -> SessionOut:
    if body.badge is not None:
        person = prove_badge(request, check_badge(body.badge))
    else:
        named = find_person(session, body.person or "")
        if named is None or not named.active:
            raise fault("person", f"“{body.person}” is not a person of this workshop")
        if named.secret is None:
            raise RefusedError("no-pin", f"{named.name} has no PIN yet; the lead can set one under Workshop")
        prove(request, named.key, body.pin or "")
        person = named
    return _begin(request, response, session, person, settings.shift_hours)


@router.get("/session", summary="Who is signed in on this device", responses=NOT_SIGNED_IN)
def who(request: Request, session: DbSession, caller: MaybeCaller) -> SessionOut:
    if caller is None:
        raise NotSignedInError("nobody is signed in on this device")
    found = session_of_cookie(session, caller.cookie, now())
    person = find_person(session, caller.key)
    assert person is not None
    return _shown(person, found[0].ends_at if found else now() + timedelta(days=1))


@router.delete("/session", status_code=204, summary="Sign out on this device")
def sign_out(request: Request, response: Response, session: DbSession) -> None:
    cookie = request.cookies.get(cookie_name(request))
    if cookie:
        end_session(session, cookie)
    set_cookie(request, response, "", 0)


@router.post("/session/first", summary="The first lead of a workshop that has none", responses=CONFLICT)
def first_lead(
    body: FirstLeadBody, request: Request, response: Response, session: DbSession, settings: SettingsInForce
) -> SessionOut:
    if request.client is None or request.client.host not in _LOOPBACK:
        raise NotAllowedError("not-here", "the first lead is set up on the machine that runs the server")
    # One at a time: two devices must not both become the first.
    session.execute(text("SELECT pg_advisory_xact_lock(:key)"), {"key": _ONLY_FIRST})
    if has_lead(session):
        raise RefusedError("lead-exists", "this workshop already has a lead; sign in, or ask the lead for a PIN")
    secret, name = check_secret(body.pin), body.name
    person = next((somebody for somebody in all_people(session) if somebody.name == name), None)
    if person is None:
        person = add_person(session, Person(key=free_key(session, name), name=name, role=Role.LEAD))
    person.role, person.active = Role.LEAD, True
    set_secret(person, secret)
    session.flush()
    leave_trail(session, person.key, now(), "person", person.key, "first lead", after={"name": name, "role": "lead"})
    return _begin(request, response, session, person, settings.shift_hours)


def _begin(request: Request, response: Response, session: DbSession, person: Person, shift_hours: float) -> SessionOut:
    """Sign a person in on this device; whoever was signed in on it before is signed out."""
    before = request.cookies.get(cookie_name(request))
    if before:
        end_session(session, before)
    lasts, moment = timedelta(hours=shift_hours), now()
    set_cookie(request, response, begin_session(session, person, moment, lasts), int(lasts.total_seconds()))
    return _shown(person, moment + lasts)


def _shown(person: Person, ends_at: datetime) -> SessionOut:
    return SessionOut(
        person=person.key,
        name=person.name,
        role=person.role,
        role_word=ROLE_WORD[person.role],
        authorisations=[AuthorisationOut.of(row, now().date()) for row in person.authorisations],
        may=[name for name, right in OFFERED.items() if right.holds_for(Caller(person.author(), "session"))],
        ends_at=ends_at,
        server_time=now(),
    )

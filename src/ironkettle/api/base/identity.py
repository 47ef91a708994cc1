"""Who asks: from the cookie of a signed-in device, or the token of a script."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from threading import BoundedSemaphore
from typing import Annotated, Any

from fastapi import Depends, FastAPI, Request, Response
from fastapi.responses import JSONResponse
from sqlalchemy import Engine

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.problems import problem
from ironkettle.api.policies import Caller, Right, authorize
from ironkettle.config import Settings
from ironkettle.core.jobs import TokenUsed
from ironkettle.core.shop.people import (
    ADDRESS_TRIES,
    ALL_BADGE_TRIES,
    BADGE_TRIES,
    PERSON_TRIES,
    SIGNATURE_TRIES,
    SIGNATURES_A_SESSION,
    Tries,
)
from ironkettle.store.base import session_of
from ironkettle.store.shop.people import Person, find_person, person_of_badge, secret_fits
from ironkettle.store.shop.sessions import (
    count_try,
    digest_of,
    end_session,
    hold_tries,
    left_of,
    person_of_token,
    session_of_cookie,
    take_back_tries,
    tries_of,
    wait_of,
)

# Hashing is slow on purpose; two at a time leave the machine to the others.
_HASHING = BoundedSemaphore(2)


class NotSignedInError(Exception):
    """Somebody has to sign in first."""


class WrongSecretError(Exception):
    """The PIN, password or badge does not fit. ``signing``: asked for a signature, not for signing in."""

    def __init__(self, *, signing: bool) -> None:
        self.signing = signing
        super().__init__("that is not this person's PIN")


class WaitError(Exception):
    """Too many wrong tries; wait some seconds."""

    def __init__(self, seconds: float) -> None:
        self.seconds = max(1, round(seconds))
        minutes = self.seconds / 60
        wait = f"{self.seconds} s" if self.seconds < 120 else f"{minutes:.0f} min"
        super().__init__(f"too many wrong attempts; try again in {wait}")


def install(app: FastAPI) -> None:
    """Register what these errors answer."""

    @app.exception_handler(NotSignedInError)
    def not_signed_in(request: Request, error: NotSignedInError) -> JSONResponse:
        return problem(401, "not-signed-in", "Not signed in", str(error))

    @app.exception_handler(WrongSecretError)
    def wrong_secret(request: Request, error: WrongSecretError) -> JSONResponse:
        # While signing the session goes on: 401 would say that it ended.
        return problem(403 if error.signing else 401, "wrong-pin", "Wrong PIN", str(error))

    @app.exception_handler(WaitError)
    def wait(request: Request, error: WaitError) -> JSONResponse:
        answer = problem(429, "wait", "Wait", str(error))
        answer.headers["Retry-After"] = str(error.seconds)
        return answer


def cookie_name(request: Request) -> str:
    """Browsers keep cookies by host and not by port, and two workshops may be tried on one machine."""
    settings: Settings = request.app.state.settings
    return f"kettle_{settings.port}"


def set_cookie(request: Request, response: Response, value: str, max_age: int) -> None:
    response.set_cookie(
        cookie_name(request),
        value,
        max_age=max_age,
        path="/",
        httponly=True,
        samesite="strict",
        secure=request.url.scheme == "https",
    )


def find_caller(request: Request, session: DbSession) -> Caller | None:
    """Who asks, as far as they say so; None when nobody is signed in. A token that does not hold is refused."""
    scheme, _, token = request.headers.get("authorization", "").partition(" ")
    if scheme:
        known = person_of_token(session, token.strip(), now()) if scheme.lower() == "bearer" else None
        if known is None:
            raise NotSignedInError("this token is unknown or was revoked")
        row, person = known
        return Caller(person.author(), "token", token=TokenUsed(name=row.name, whose=person.name))
    cookie = request.cookies.get(cookie_name(request))
    found = session_of_cookie(session, cookie, now()) if cookie else None
    return Caller(found[1].author(), "session", cookie or "") if found else None


MaybeCaller = Annotated[Caller | None, Depends(find_caller, scope="function")]


def signed_in(caller: MaybeCaller) -> Caller:
    if caller is None:
        raise NotSignedInError("sign in first: choose your name and enter your PIN")
    return caller


SignedIn = Annotated[Caller, Depends(signed_in, scope="function")]


def allow(right: Right) -> Any:
    """A dependency: the caller, when the right holds; stands in a handler's signature, so that no route forgets."""

    def allowed(caller: SignedIn) -> Caller:
        authorize(caller, right)
        return caller

    return Depends(allowed, scope="function")


def prove(request: Request, person: str, secret: str) -> None:
    """Returns when it is this person's secret, for signing in. Raises WrongSecretError, or WaitError after too many wrong.

    Wrong tries pause the address they come from and the person they aim at; a right one takes back its own count alone.
    """
    engine: Engine = request.app.state.proving
    with session_of(engine) as session:
        known = find_person(session, person) is not None
    _prove(engine, _subjects(request, person if known else None), person, secret, signing=False)


def prove_signature(request: Request, caller: Caller, secret: str) -> None:
    """Returns when it is the caller's own secret, for a signature. Raises WrongSecretError or WaitError.

    Counted by the session (or token) that is signed in, so that nobody elsewhere can stop a signature. Too many wrong ones
    end the session, and each counts against signing in as that person, so that a new session gives no new tries.
    """
    engine: Engine = request.app.state.proving
    own = f"session {digest_of(caller.cookie)}" if caller.cookie else f"token of {caller.key}"
    try:
        _prove(engine, {own: SIGNATURE_TRIES}, caller.key, secret, signing=True)
    except WrongSecretError:
        with session_of(engine) as session:
            count_try(hold_tries(session, f"person {caller.key}", now()), PERSON_TRIES, now())
            if caller.cookie and tries_of(session, own) >= SIGNATURES_A_SESSION:
                end_session(session, caller.cookie)
        raise


def prove_badge(request: Request, badge: str) -> Person:
    """The person whose badge it is. Raises WrongSecretError or WaitError.

    A wrong badge aims at nobody: it pauses badges from its address, and beyond many more all badges.
    """
    engine: Engine = request.app.state.proving
    counted = _count(engine, {f"badges at {_address(request)}": BADGE_TRIES, "badges": ALL_BADGE_TRIES})
    with session_of(engine) as session, _HASHING:
        person = person_of_badge(session, badge)
    if person is None:
        raise WrongSecretError(signing=False)
    with session_of(engine) as session:
        take_back_tries(session, counted, now())
        # Who holds another's badge and guesses the PIN for a signature gets no new tries by it.
        waits = wait_of(session, f"person {person.key}", PERSON_TRIES, now())
    if waits > 0:
        raise WaitError(waits)
    return person


def _prove(engine: Engine, subjects: Mapping[str, Tries], person: str, secret: str, *, signing: bool) -> None:
    """The try is counted before it is looked at, in a transaction of its own."""
    counted = _count(engine, subjects)
    with session_of(engine) as session, _HASHING:
        fits = secret_fits(find_person(session, person), secret)
    if not fits:
        raise WrongSecretError(signing=signing)
    with session_of(engine) as session:
        take_back_tries(session, counted, now())


def _address(request: Request) -> str:
    return request.client.host if request.client else "unknown"


def _subjects(request: Request, person: str | None) -> dict[str, Tries]:
    subjects = {f"address {_address(request)}": ADDRESS_TRIES}
    return subjects if person is None else {**subjects, f"person {person}": PERSON_TRIES}


def _count(engine: Engine, subjects: Mapping[str, Tries]) -> dict[str, datetime]:
    """Count a try of each subject as wrong; when the pause ends that it began. Raises WaitError while one still waits."""
    with session_of(engine) as session:
        held = [(hold_tries(session, subject, now()), tries) for subject, tries in sorted(subjects.items())]
        # Read after the rows are held: the one before may have begun a pause while this one waited for them.
        moment = now()
        if (wait := max(left_of(row, tries, moment) for row, tries in held)) > 0:
            raise WaitError(wait)
        for row, tries in held:
            count_try(row, tries, moment)
        return {row.subject: row.wait_until for row, _ in held}

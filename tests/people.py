"""The demo's people for the tests: who they are to the rules, and clients signed in as them."""

from __future__ import annotations

from datetime import date
from typing import ClassVar

from anyio.from_thread import BlockingPortal
from fastapi import FastAPI
from fastapi.testclient import TestClient

from ironkettle.core.shop.people import Author, Authorisation, Authority, Role
from ironkettle.demo.load import shipped_pins

BEDE = Author("bede", "Bede Harrowgate", Role.TECHNICIAN)
TAMSIN = Author("tamsin", "Tamsin Orrell", Role.LEAD, (Authorisation(Authority.LIFTING, date(2099, 12, 31)),))
PINS = shipped_pins()


class BenchClient(TestClient):
    """A device at the bench: on loopback, and signed in once it was asked to.

    ``loop``: one event loop for all clients of a run; each would start its own for every request.
    """

    loop: ClassVar[BlockingPortal | None] = None

    def __init__(self, app: FastAPI, host: str = "127.0.0.1") -> None:
        super().__init__(app, base_url="http://127.0.0.1:8440", client=(host, 50_000))
        self.portal = self.loop
        self._others: dict[str, BenchClient] = {}

    def sign_in(self, person: str) -> BenchClient:
        answer = self.post("/api/session", json={"person": person, "pin": PINS[person]})
        assert answer.status_code == 200, answer.text
        return self

    def as_person(self, person: str) -> BenchClient:
        """Another device, signed in as somebody else; the same one each time."""
        if person not in self._others:
            app = self.app
            assert isinstance(app, FastAPI)
            self._others[person] = BenchClient(app).sign_in(person)
        return self._others[person]

"""A job on a ram over the API."""

from __future__ import annotations

from typing import Any

from tests import walk
from tests.people import BenchClient


def ram(client: BenchClient) -> str:
    """The demo's ram that was just taken in."""
    return walk.numbered(client, "FN-0417")


def view_of(client: BenchClient, job: str) -> dict[str, Any]:
    view: dict[str, Any] = client.get(f"/api/jobs/{job}").json()
    return view

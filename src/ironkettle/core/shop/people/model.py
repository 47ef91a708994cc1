"""Who people are to the shop: a role, and authorities to release with the day they end."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from enum import StrEnum
from typing import Literal

from pydantic import BaseModel, ConfigDict


class Role(StrEnum):
    """What a person does in the shop, from looking to deciding."""

    READER = "reader"
    STORES = "stores"
    TECHNICIAN = "technician"
    LEAD = "lead"


class Authority(StrEnum):
    """What kind of work a person may release. ``none``: a unit that anyone who works on it may release."""

    NONE = "none"
    WORKSHOP = "workshop"
    LIFTING = "lifting"
    PRESSURE_VESSEL = "pressure_vessel"
    LIFE_SUPPORT = "life_support"
    BREATHING_AIR = "breathing_air"


ROLE_WORD = {
    Role.READER: "reader",
    Role.STORES: "stores",
    Role.TECHNICIAN: "technician",
    Role.LEAD: "workshop lead",
}
AUTHORITY_WORD = {
    Authority.NONE: "no special authority",
    Authority.WORKSHOP: "workshop release",
    Authority.LIFTING: "lifting gear",
    Authority.PRESSURE_VESSEL: "pressure vessels",
    Authority.LIFE_SUPPORT: "life support",
    Authority.BREATHING_AIR: "breathing air",
}


# How strict an authority is; two of one rank are different competences, and neither stands in for the other.
_RANK = {
    Authority.NONE: 0,
    Authority.WORKSHOP: 1,
    Authority.LIFTING: 2,
    Authority.PRESSURE_VESSEL: 2,
    Authority.BREATHING_AIR: 3,
    Authority.LIFE_SUPPORT: 3,
}


def rank_of(authority: Authority) -> int:
    """How strict an authority is, from 0 for none. [-]

    Source: no published source; this project's own order: work that lifts or holds pressure above a workshop release, work
    that somebody breathes from above both.
    """
    return _RANK[authority]


def strictest(authorities: Iterable[Authority]) -> tuple[Authority, ...]:
    """The strictest of some authorities; several where different ones are as strict; empty for none at all."""
    wanted = {authority for authority in authorities if authority is not Authority.NONE}
    most = max((rank_of(role) for role in wanted), default=0)
    return tuple(sorted(role for role in wanted if rank_of(role) == most))


@dataclass(frozen=True, slots=True)
class Authorisation:
    """One authority a person holds, to the end of the day ``until``."""

    authority: Authority
    until: date

    def holds_on(self, day: date) -> bool:
        return day <= self.until


@dataclass(frozen=True, slots=True)
class Author:
    """Who writes an entry: role and authorities as they stand when it is written."""

    key: str
    name: str
    role: Role
    authorisations: tuple[Authorisation, ...] = ()

    def authorisation(self, authority: Authority, day: date) -> Authorisation | None:
        """The authorisation for that authority in force on a day; None when there is none."""
        held = [
            authorisation
            for authorisation in self.authorisations
            if authorisation.authority is authority and authorisation.holds_on(day)
        ]
        return max(held, key=lambda authorisation: authorisation.until, default=None)


class Signature(BaseModel):
    """What a signing entry stood on: how the person proved themselves, and by which authority."""

    model_config = ConfigDict(frozen=True)

    how: Literal["pin"] = "pin"
    role: Role
    authority: Authority
    until: date | None = None

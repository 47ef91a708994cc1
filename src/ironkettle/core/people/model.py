"""Who people are to the shop: a role, and authorities to release with the day they end."""

from __future__ import annotations

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
        held = [one for one in self.authorisations if one.authority is authority and one.holds_on(day)]
        return max(held, key=lambda one: one.until, default=None)


class Signature(BaseModel):
    """What a signing entry stood on: how the person proved themselves, and by which authority."""

    model_config = ConfigDict(frozen=True)

    how: Literal["pin"] = "pin"
    role: Role
    authority: Authority
    until: date | None = None

"""What stands at the head of the shop's papers, and the time zone their times are told in."""

from __future__ import annotations

from typing import Annotated
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError, available_timezones

from pydantic import BaseModel, ConfigDict, Field, HttpUrl, StringConstraints, TypeAdapter, ValidationError

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.text import Plain

MOST_LINES = 12
_Line = Annotated[str, StringConstraints(max_length=80, strip_whitespace=True), Plain]
_UTC = "UTC"
_URL = TypeAdapter(HttpUrl)


class Letterhead(BaseModel):
    """``address``: its lines; ``contact``: telephone and e-mail; ``site``: where others reach this server, for codes that are
    scanned; ``zone``: a name of the IANA time zones."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: _Line = ""
    address: Annotated[tuple[_Line, ...], Field(max_length=MOST_LINES)] = ()
    contact: Annotated[str, StringConstraints(max_length=160, strip_whitespace=True), Plain] = ""
    site: Annotated[str, StringConstraints(max_length=200, strip_whitespace=True), Plain] = ""
    zone: Annotated[str, StringConstraints(min_length=1, max_length=60, strip_whitespace=True), Plain] = _UTC

    @property
    def missing(self) -> tuple[str, ...]:
        """What of the head is still empty, in words."""
        there = {"name": self.name, "address": self.address, "contact": self.contact}
        return tuple(word for word, value in there.items() if not value)

    @property
    def clock(self) -> ZoneInfo:
        """Its time zone; UTC where this machine knows it no more, which the offset beside each time tells."""
        try:
            return ZoneInfo(self.zone)
        except ZoneInfoNotFoundError:
            return ZoneInfo(_UTC)


def _is_site(text: str) -> bool:
    """Whether a browser finds a server by it: a scheme, a name, perhaps a port and a path, and nothing behind."""
    if not text.lower().startswith(("http://", "https://")) or any(letter.isspace() for letter in text):
        return False
    try:
        url = _URL.validate_python(text)
    except ValidationError:
        return False
    return not (url.query or url.fragment or url.username) and not text.endswith(("?", "#"))


def check_letterhead(letterhead: Letterhead) -> None:
    """Raises RuleError for a time zone nobody knows and for a site that is no address of a server.

    Source: no published source; the zones are those of the IANA time zone database that is installed.
    """
    faults = []
    if letterhead.zone not in available_timezones() or not ("/" in letterhead.zone or letterhead.zone == _UTC):
        text = f"“{letterhead.zone}” is not a time zone"
        faults.append(FieldFault("zone", text, ("Europe/London", "America/New_York", _UTC)))
    if letterhead.site and not _is_site(letterhead.site):
        faults.append(
            FieldFault("site", f"“{letterhead.site}” is not the address of a server", ("https://kettle.example",))
        )
    if faults:
        raise RuleError(faults)

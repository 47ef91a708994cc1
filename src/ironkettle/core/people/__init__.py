"""People: roles, authorities to release, what a PIN must be, how long wrong tries wait."""

from ironkettle.core.people.lockout import ADDRESS_TRIES, PERSON_TRIES, Tries, pause_after
from ironkettle.core.people.model import (
    AUTHORITY_WORD,
    ROLE_WORD,
    Author,
    Authorisation,
    Authority,
    Role,
    Signature,
)
from ironkettle.core.people.secret import check_badge, check_secret

__all__ = [
    "ADDRESS_TRIES",
    "AUTHORITY_WORD",
    "PERSON_TRIES",
    "ROLE_WORD",
    "Author",
    "Authorisation",
    "Authority",
    "Role",
    "Signature",
    "Tries",
    "check_badge",
    "check_secret",
    "pause_after",
]

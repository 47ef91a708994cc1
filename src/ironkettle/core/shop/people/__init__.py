"""People: roles, authorities to release, what a PIN must be, how long wrong tries wait."""

from ironkettle.core.shop.people.lockout import (
    ADDRESS_TRIES,
    ALL_BADGE_TRIES,
    BADGE_TRIES,
    PERSON_TRIES,
    SIGNATURE_TRIES,
    SIGNATURES_A_SESSION,
    Tries,
    pause_after,
)
from ironkettle.core.shop.people.model import (
    AUTHORITY_WORD,
    ROLE_WORD,
    Author,
    Authorisation,
    Authority,
    Role,
    Signature,
    rank_of,
    strictest,
)
from ironkettle.core.shop.people.secret import check_badge, check_secret

__all__ = [
    "ADDRESS_TRIES",
    "ALL_BADGE_TRIES",
    "AUTHORITY_WORD",
    "BADGE_TRIES",
    "PERSON_TRIES",
    "ROLE_WORD",
    "SIGNATURES_A_SESSION",
    "SIGNATURE_TRIES",
    "Author",
    "Authorisation",
    "Authority",
    "Role",
    "Signature",
    "Tries",
    "check_badge",
    "check_secret",
    "pause_after",
    "rank_of",
    "strictest",
]

"""A caller, a right, and the one question asked of them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ironkettle.core.base.errors import NotAllowedError
from ironkettle.core.jobs import TokenUsed
from ironkettle.core.shop.people import ROLE_WORD, Author, Role

EVERYBODY = frozenset(Role)
WORKERS = frozenset({Role.TECHNICIAN, Role.LEAD})
STOREKEEPERS = frozenset({Role.STORES, Role.TECHNICIAN, Role.LEAD})
LEAD = frozenset({Role.LEAD})


@dataclass(frozen=True, slots=True)
class Caller:
    """Who asks: the person signed in, and whether on a device or with a script's token."""

    author: Author
    by: Literal["session", "token"]
    cookie: str = ""
    token: TokenUsed | None = None

    @property
    def key(self) -> str:
        return self.author.key


@dataclass(frozen=True, slots=True)
class Right:
    """What may be done, in words, and by which roles.

    ``signatories``: also anybody who holds an authority to release. ``in_person``: not with a token.
    ``own``: also the person it concerns, whatever the role.
    """

    words: str
    roles: frozenset[Role]
    signatories: bool = False
    in_person: bool = False
    own: str | None = None

    def holds_for(self, caller: Caller) -> bool:
        if self.in_person and caller.by != "session":
            return False
        signs = self.signatories and bool(caller.author.authorisations)
        return caller.author.role in self.roles or signs or caller.key == self.own


def authorize(caller: Caller, right: Right) -> None:
    """Raises NotAllowedError naming who may."""
    if right.holds_for(caller):
        return
    if right.in_person and caller.by == "token":
        raise NotAllowedError("not-allowed", f"a token may not {right.words}; sign in for that")
    who = " or ".join(ROLE_WORD[role] for role in Role if role in right.roles)
    author = caller.author
    raise NotAllowedError("not-allowed", f"{author.name} ({ROLE_WORD[author.role]}) may not {right.words}; {who} may")

"""How long wrong tries wait: longer each time, never for ever."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Tries:
    """How many wrong tries are free, and the pauses after that. [s]

    ``first_pause`` doubles with each further try up to ``longest_pause``; after ``forgotten_after`` of
    quiet the count begins anew.
    """

    free: int
    first_pause: float
    longest_pause: float
    forgotten_after: float


# A person: three slips of an oily finger cost nothing. 15 minutes at most leave a guesser about
# 100 tries a day at a million PINs.
PERSON_TRIES = Tries(free=3, first_pause=5.0, longest_pause=900.0, forgotten_after=12 * 3600.0)
# Signatures of one session: nobody else counts here, so that nobody else can stop a signature.
SIGNATURE_TRIES = PERSON_TRIES
# So many wrong ones end the session.
SIGNATURES_A_SESSION = 10
# Badges read at one address, and all badges: a wrong one aims at no person.
BADGE_TRIES = Tries(free=5, first_pause=5.0, longest_pause=900.0, forgotten_after=3600.0)
ALL_BADGE_TRIES = Tries(free=60, first_pause=5.0, longest_pause=900.0, forgotten_after=3600.0)
# An address: a bench tablet is used by many, so it takes more slips before it waits.
ADDRESS_TRIES = Tries(free=20, first_pause=5.0, longest_pause=900.0, forgotten_after=3600.0)


def pause_after(wrong: int, tries: Tries) -> float:
    """How long to wait after that many wrong tries in a row, >= 0. [s]

    Source: this project's own choice: doubled with each, up to the longest.
    """
    over = wrong - tries.free
    if over <= 0:
        return 0.0
    # Past 2**40 the longest pause is long reached; a count that runs on must not overflow.
    return min(tries.first_pause * 2.0 ** min(over - 1, 40), tries.longest_pause)

"""Settings made by a routine and not by a figure: counted from the bottom, from the edge of a sign, to a touch.

Turns are clockwise positive, positions of the adjuster from any beginning.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, caution, info, reject
from ironkettle.core.machine.adjusters.advise import Advice

BASIS = "counted turns; the maker's routine wins"
Direction = Literal["clockwise", "counter_clockwise"]
# What a first turn towards a sign is, and as near as an edge or a touch is looked for. [turns]
_LOOK, _NEAR = 1 / 8, 1 / 36
_DEG = 360.0


def sign_of(direction: Direction) -> int:
    """+1 for clockwise, −1 for counter-clockwise. [-]"""
    return 1 if direction == "clockwise" else -1


@dataclass(frozen=True, slots=True)
class Seen:
    """Where the adjuster stood [turns], and whether the sign was there: it hissed, it touched, it stood at the bottom."""

    turns: float
    sign: bool


def advise_preset(bottom: Direction, turns: float, tolerance: float, seen: Sequence[Seen]) -> Advice:
    """From the bottom so many turns back. ``sign``: it stands at the bottom.

    Parameters
    ----------
    turns, tolerance : from the bottom back, and how far that may be off, both above 0 [turns].
    seen : at least one position, in the order they came.

    Raises RuleError without a position. Source: counting turns from a stop; the maker's routine wins.
    """
    _check(seen)
    here, down = seen[-1], sign_of(bottom)
    bottoms = [read.turns for read in seen if read.sign]
    if not bottoms:
        text = f"turn it {_words(bottom)} to the bottom first; count from there"
        return Advice(False, down * _LOOK, None, None, (info("to-bottom", text, BASIS),))
    wanted = bottoms[-1] - down * turns
    rest = wanted - here.turns
    findings: list[Finding] = []
    if down * (here.turns - bottoms[-1]) > tolerance:
        findings.append(
            caution("past-bottom", "it is past the bottom it was counted from: turn it to the bottom again", BASIS)
        )
    if abs(rest) <= tolerance + 1e-9:
        return Advice(True, 0.0, None, None, (*findings, info("done", "as counted: lock it", BASIS)))
    return Advice(False, rest, None, None, tuple(findings))


def advise_edge(opening: Direction, close_plus_deg: float, tolerance_deg: float, seen: Sequence[Seen]) -> Advice:
    """Open until the sign shows, close until it is just gone, then so much further. ``sign``: it is there.

    The edge lies between the last position with the sign and the first without it after that; it is looked for until it
    is known within the tolerance.

    Parameters
    ----------
    close_plus_deg : from 0 to 720 [deg]; tolerance_deg : above 0 [deg].
    seen : at least one position, in the order they came.

    Raises RuleError without a position. Source: shop practice of setting an orifice from its edge; the maker's routine wins.
    """
    _check(seen)
    here, way = seen[-1], sign_of(opening)
    with_sign = [read.turns for read in seen if read.sign]
    if not with_sign:
        return Advice(False, way * _LOOK, None, None, (info("open", "open it a little until the sign shows", BASIS),))
    # Of all that showed it the most closed, of all that showed it no more the most open.
    edge_open = min(with_sign, key=lambda turns: way * turns)
    without = [read.turns for read in seen if not read.sign and way * read.turns < way * edge_open]
    if any(not read.sign and way * read.turns > way * edge_open for read in _after_first_sign(seen)):
        text = "the sign came and went at the same place: wait until it is steady, and look again"
        return Advice(False, 0.0, None, None, (reject("unsteady", text, BASIS),))
    if not without:
        return Advice(
            False, -way * _NEAR, None, None, (info("close", "close it a little until the sign is gone", BASIS),)
        )
    edge_shut = max(without, key=lambda turns: way * turns)
    gap_deg = abs(edge_open - edge_shut) * _DEG
    if gap_deg > max(tolerance_deg, _NEAR * _DEG) + 1e-9:
        text = f"the edge is known to {gap_deg:.0f}° only: look half-way"
        return Advice(False, (edge_open + edge_shut) / 2 - here.turns, None, None, (info("narrow", text, BASIS),))
    wanted = (edge_open + edge_shut) / 2 - way * close_plus_deg / _DEG
    # Closed so little past its edge, it may stand where the sign is still: it is gone at the shut side of the edge.
    wanted = edge_shut if way * wanted > way * edge_shut else wanted
    rest = wanted - here.turns
    if abs(rest) * _DEG <= tolerance_deg + 1e-9:
        return Advice(
            True, 0.0, None, None, (info("done", "closed from its edge as far as it must be: lock it", BASIS),)
        )
    return Advice(
        False, rest, None, None, (info("close-plus", f"from the edge {close_plus_deg:g}° further shut", BASIS),)
    )


def _after_first_sign(seen: Sequence[Seen]) -> Sequence[Seen]:
    first = next((place for place, read in enumerate(seen) if read.sign), len(seen))
    return seen[first:]


def advise_contact(towards: Direction, seen: Sequence[Seen]) -> Advice:
    """Turned until it just touches: from free to touching within a thirty-sixth of a turn. ``sign``: it touches.

    Parameters: seen : at least one position, in the order they came, any [turns].
    Raises RuleError without a position. Source: shop practice; the maker's routine wins.
    """
    _check(seen)
    here, way = seen[-1], sign_of(towards)
    touching = [read.turns for read in seen if read.sign]
    free = [read.turns for read in seen if not read.sign]
    if not touching:
        return Advice(False, way * _LOOK, None, None, (info("towards", "turn it in a little until it touches", BASIS),))
    first = min(touching, key=lambda turns: way * turns)
    before = [turns for turns in free if way * turns < way * first]
    if not before:
        return Advice(
            False, -way * _LOOK, None, None, (info("free", "it touches: back it off until it is free", BASIS),)
        )
    last = max(before, key=lambda turns: way * turns)
    if abs(first - last) > _NEAR + 1e-9:
        return Advice(False, (first + last) / 2 - here.turns, None, None, (info("narrow", "look half-way", BASIS),))
    if abs(here.turns - first) <= 1e-9:
        return Advice(True, 0.0, None, None, (info("done", "it just touches: lock it, and feel again", BASIS),))
    return Advice(False, first - here.turns, None, None, (info("to-touch", "to where it just touched", BASIS),))


def _check(seen: Sequence[Seen]) -> None:
    if not seen:
        raise fault("readings", "say where the adjuster stands first, and whether the sign is there")


def turn_words(turns: float) -> str:
    """A turn as the hand makes it: its angle, its share of a turn, and which way; any [turns].

    >>> turn_words(-0.25)
    '90° counter-clockwise (0.25 turn)'
    """
    if abs(turns) * _DEG < 0.5:
        return "leave it where it is"
    way = "clockwise" if turns > 0 else "counter-clockwise"
    return f"{abs(turns) * _DEG:.0f}° {way} ({abs(turns):.3g} turn{'s' if abs(turns) > 1 else ''})"


def _words(direction: Direction) -> str:
    return direction.replace("_", "-")

"""Whether a seal of a written size belongs in a seat: its figures held against what the seat measures."""

from __future__ import annotations

import re
from dataclasses import dataclass

from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Group

# A size is written in whole and half millimetres, a seat in hundredths: so far apart they still are the same.
_SAME_MM = 0.6
_SAME_SHARE = 0.02
# A seal is shorter than its groove by its clearance, never longer.
_LEAST_LENGTH_SHARE = 0.6
# An O-ring is stretched over a seat, or pressed into it, by so much at most.
_MOST_STRETCH = 0.1
_SIZE = re.compile(
    r"^\s*(\d+(?:[.,]\d+)?)\s*[×x*]\s*(\d+(?:[.,]\d+)?)(?:\s*[×x*]\s*(\d+(?:[.,]\d+)?))?\s*(?:mm\b)?(?!\s*[×x*\d.,])"
)


@dataclass(frozen=True, slots=True)
class Space:
    """What a seat leaves: its inner and outer diameter, and how long it is along the axis [mm]; ``shared``: with others beside it there."""

    inner: float
    outer: float
    length: float
    shared: bool = False


def told_size(kind: ElementKind, size: str) -> tuple[float, float, float | None] | None:
    """Inner diameter, outer diameter and length of a written size [mm], whichever diameter comes first; None for other words.

    Two figures are inner and outer for a packing set alone: elsewhere they are a diameter and a section or thickness.
    """
    found = _SIZE.match(size)
    if found is None:
        return None
    figures = [None if text is None else float(text.replace(",", ".")) for text in found.groups()]
    first, second, third = figures
    if first is None or second is None or (third is None and KINDS[kind].group is not Group.PACKING):
        return None
    return min(first, second), max(first, second), third


def misfit(kind: ElementKind, size: str, space: Space) -> str | None:
    """Why a seal of that size does not belong in a seat; None where it does, or where its words tell no size.

    Parameters: size : as written, *shaft × bore × width* or bore first [mm]. Source: no published source; the figures must
    be the seat's own diameters within 0.6 mm or 2 %, and no longer than the seat, nor shorter than 0.6 of it where nothing else lies there.
    """
    parsed = told_size(kind, size)
    if parsed is None:
        return None
    inner, outer, length = parsed
    wanted = f"the seat is {space.inner:g} × {space.outer:g} × {space.length:g} mm"
    for name, is_, should in (("inside", inner, space.inner), ("outside", outer, space.outer)):
        if abs(is_ - should) > max(_SAME_MM, _SAME_SHARE * should):
            return f"{is_:g} mm {name} does not fit: {wanted}"
    if length is not None and KINDS[kind].group is not Group.PACKING:
        if length > space.length + _SAME_MM:
            return f"{length:g} mm long does not fit: {wanted}"
        if length < _LEAST_LENGTH_SHARE * space.length and not space.shared:
            return f"{length:g} mm long is too short: {wanted}"
    return None


def ring_misfit(inside_diameter: float, section: float, space: Space) -> str | None:
    """Why an O-ring does not belong round or into a seat that is no groove; None where it does.

    Parameters: inside_diameter, section above 0 [mm]. Source: no published source; it is stretched or pressed together by a tenth at most,
    and lies neither loose in the seat nor thicker than twice its depth.
    """
    depth = (space.outer - space.inner) / 2
    stretch = space.inner / inside_diameter - 1
    if not -_MOST_STRETCH <= stretch <= _MOST_STRETCH:
        return f"{inside_diameter:g} mm inside does not fit round {space.inner:g} mm"
    if not 0.5 * depth <= section <= 2 * depth:
        return f"a section of {section:g} mm does not fit a depth of {depth:g} mm"
    return None

"""Threads by what is written on the drawing: metric, unified and pipe."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

from ironkettle.core.base.errors import fault

_INCH = 25.4
_LARGEST_MM = 1000.0
_LONGEST = 40
_ACCEPTS = ("M10", "M42x2", "3/8-16 UNC", "1-1/16-12 UN", "G1/4", "Rc 1/2")
_METRIC = re.compile(r"m(?P<major>\d+(?:\.\d+)?)x(?P<pitch>\d+(?:\.\d+)?)")
_SIZE = r"(?P<number>#\d{1,2})|(?:(?P<whole>\d{1,2}) )?(?P<over>\d{1,2})/(?P<under>\d{1,3})|(?P<plain>\d{1,2})"
_UNIFIED = re.compile(rf"(?P<size>{_SIZE})-(?P<turns>\d{{1,2}})(?P<series>un|unc|unf|unef|uns|unj|unjf)?")
_DROPPED = str.maketrans("", "", '"”″')


@dataclass(frozen=True, slots=True)
class Thread:
    """A thread: designation, nominal diameter and pitch in mm, and whether it is a unified (inch) one."""

    designation: str
    major_diameter: float
    pitch: float
    unified: bool = False


def find_thread(text: str, threads: Iterable[Thread], field: str) -> Thread:
    """A thread as written: from the table, else a metric or unified one by its own figures. [mm]

    ``M10``, ``M42x2``, ``3/8-16 UNC``, ``1-1/16-12 UN``, ``#10-32``, ``G1/4``, ``Rc 1/2``.

    Raises RuleError when it is none, or its pitch does not go with its diameter.
    Source: ISO 261, ASME B1.1, ISO 228-1 and ISO 7-1 for the table; else the designation itself.
    """
    rows = tuple(threads)
    plain = _plain(text[:_LONGEST])
    found = _by_own_figures(plain)
    for thread in rows:
        if _plain(thread.designation) == plain or (found is not None and _same(thread, found)):
            return thread
    if found is None:
        raise fault(field, f"“{text.strip()[:_LONGEST]}” is not a recognised thread", *_ACCEPTS)
    if not 0 < found.major_diameter <= _LARGEST_MM or not 0 < found.pitch <= found.major_diameter / 2:
        raise fault(field, f"“{text.strip()[:_LONGEST]}” has a pitch that does not go with its diameter", *_ACCEPTS)
    return found


def _same(one: Thread, other: Thread) -> bool:
    near = abs(one.major_diameter - other.major_diameter) < 5e-3 and abs(one.pitch - other.pitch) < 5e-4
    return near and one.unified == other.unified


def _by_own_figures(plain: str) -> Thread | None:
    metric = _METRIC.fullmatch(plain)
    if metric:
        return Thread(f"M{metric['major']}x{metric['pitch']}", float(metric["major"]), float(metric["pitch"]))
    unified = _UNIFIED.fullmatch(plain)
    diameter = _inches(unified) if unified else None
    if unified is None or diameter is None or int(unified["turns"]) == 0:
        return None
    name = f"{unified['size']}-{unified['turns']} {(unified['series'] or 'un').upper()}"
    return Thread(name, diameter * _INCH, _INCH / int(unified["turns"]), unified=True)


def _inches(size: re.Match[str]) -> float | None:
    """The nominal diameter. [in] Number sizes are 0.060 + 0.013·n (ASME B1.1)."""
    if size["number"]:
        return 0.060 + 0.013 * int(size["number"][1:])
    if size["plain"]:
        return float(size["plain"])
    if int(size["under"]) == 0 or int(size["over"]) >= int(size["under"]):
        return None
    return float(Fraction(int(size["over"]), int(size["under"])) + int(size["whole"] or 0))


def _plain(text: str) -> str:
    """Small letters, a blank only between whole inches and the fraction: ``M 42 × 2`` is ``m42x2``."""
    spelled = " ".join(text.split()).casefold().replace("×", "x").replace(",", ".").translate(_DROPPED)
    spelled = re.sub(r"(?<=\d)[ \-]+(?=\d+/)", " ", spelled)
    return re.sub(r"\s*-\s*", "-", re.sub(r"(?<=[a-z]) (?=[\d#x])|(?<=\d) (?=[a-z])", "", spelled))

"""The drawing: to scale, lips where the rules point them, area of a squeezed ring kept."""

from __future__ import annotations

import math
from pathlib import Path

import pytest

import ironkettle.demo
from ironkettle.core.buildsheets import read_sheet
from ironkettle.core.drawings import draw
from ironkettle.core.drawings.profiles import Polygon, profile
from ironkettle.core.stacks import ElementKind
from ironkettle.reference import ring_table

SHEET = read_sheet((Path(ironkettle.demo.__file__).parent / "sheets/swing_bridge_ram.yaml").read_text(encoding="utf-8"))
SCENE = draw(SHEET, ring_table())
ELEMENTS = {element.key: element for station in SCENE.stations for element in station.elements}


def area(points: Polygon) -> float:
    return 0.5 * abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, (*points[1:], points[0]), strict=True)))


def test_lips_are_drawn_open_towards_the_zone_they_face() -> None:
    lip = ELEMENTS["rod-lip"]
    assert set(lip.outlines) == {"rod_side", "outside"}
    assert lip.faces == "rod_side"
    left, right = lip.outlines["rod_side"], lip.outlines["outside"]
    assert sorted((round(lip.box[0] + lip.box[2] - z, 6), round(r, 6)) for z, r in left) == sorted(
        (round(z, 6), round(r, 6)) for z, r in right
    )
    throat = min(left, key=lambda p: abs(p[1] - (lip.box[1] + lip.box[3]) / 2))
    assert throat[0] > (lip.box[0] + lip.box[2]) / 2  # the bottom of the hollow lies away from the opening


def test_everything_lies_in_its_own_box() -> None:
    for element in ELEMENTS.values():
        z0, r0, z1, r1 = element.box
        for outline in element.outlines.values():
            assert all(z0 - 1e-6 <= z <= z1 + 1e-6 and r0 - 1e-6 <= r <= r1 + 1e-6 for z, r in outline)


def test_the_scale_is_that_of_the_sheet() -> None:
    station = next(s for s in SCENE.stations if s.key == "rod-seal")
    # Rod 28 mm and groove 38 mm of the sheet: radii 14 and 19.
    assert (station.box[1], station.box[3]) == (14.0, 19.0)


def test_a_squeezed_ring_keeps_its_area() -> None:
    outline = profile(ElementKind.O_RING, (0, 0, 5.4, 2.8), opens_right=None, free_section=3.53)
    # A polygon of 28 points is 0.8 % smaller than the ellipse.
    assert area(outline) == pytest.approx(math.pi / 4 * 3.53**2, rel=0.01)


@pytest.mark.parametrize("kind", list(ElementKind))
def test_every_kind_has_a_profile_for_both_ways(kind: ElementKind) -> None:
    right = profile(kind, (0, 0, 10, 5), opens_right=True)
    left = profile(kind, (0, 0, 10, 5), opens_right=False)
    assert area(right) > 0
    assert area(right) == pytest.approx(area(left))

"""A metal-clad ring enters from outside: not behind the eye of a rod that its gland is on already."""

from __future__ import annotations

from ironkettle.core.sheets.soundness.check import check_text
from tests.tiny import TABLES, UNITS

TEXT = (UNITS / "loader-lift-ram.yaml").read_text(encoding="utf-8")


def swapped(text: str) -> str:
    """The wiper pressed in after the gland is on the rod, as the steps once stood."""
    lines = text.splitlines()
    at = next(n for n, line in enumerate(lines) if "{key: wiper-in," in line)
    lines[at], lines[at + 1] = lines[at + 1], lines[at]
    return "\n".join(lines)


def test_a_wiper_that_waits_until_the_gland_is_on_cannot_get_past_the_eye() -> None:
    assert check_text(TEXT, TABLES).faults == []
    (found,) = check_text(swapped(TEXT), TABLES).faults
    assert found.field.startswith("stations.")
    assert "Rod is thicker on the way in" in found.message
    assert "close it before “Seals in the gland, gland over the rod”" in found.message


def test_past_a_rod_without_an_eye_it_does() -> None:
    plain = (
        swapped(TEXT)
        .replace("outer: 34}", "outer: 22.5}")
        .replace("cut: [{pin: {at: [426, 0], radius: 16}}]", "cut: []")
    )
    assert not any("thicker" in fault.message for fault in check_text(plain, TABLES).faults)


def test_without_a_part_inside_nothing_stands_before_it() -> None:
    was = "    counterface: rod\n    entered_from: outside\n    fitted: in_place\n"
    assert was in TEXT
    alone = swapped(TEXT.replace(was, was.replace("    counterface: rod\n", "")))
    assert not any("thicker" in fault.message for fault in check_text(alone, TABLES).faults)


def test_a_stiff_ring_in_a_box_waits_no_more_than_one_pressed_in() -> None:
    was = "kind: press_in"
    assert TEXT.count(was) == 1
    boxed = swapped(TEXT).replace(was, "kind: box")
    assert any("thicker on the way in" in fault.message for fault in check_text(boxed, TABLES).faults)
    # A packing ring is laid round the shaft.
    soft = boxed.replace("kind: metal_clad_wiper", "kind: v_packing")
    assert not any("thicker" in fault.message for fault in check_text(soft, TABLES).faults)

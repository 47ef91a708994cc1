"""Grooves over the API: units, shop settings, housing, search and design."""

from __future__ import annotations

from typing import Any

import pytest

from tests.api.test_contract import GROOVE
from tests.people import BenchClient

RING = {"series": "AS568", "designation": "214"}


def check(client: BenchClient, **changes: Any) -> Any:
    answer = client.post("/api/glands/check", json={"ring": RING, **GROOVE, **changes})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_inch_in_is_millimetre_in(app_client: BenchClient) -> None:
    lengths = ("bore", "groove_diameter", "groove_width", "diametral_clearance")
    inch = {name: f"{float(GROOVE[name].split()[0]) / 25.4!r} in" for name in lengths}
    metric, imperial = check(app_client), check(app_client, **inch, pressure="2320.603 psi", temperature="68 °F")
    for figure in ("squeeze_pct", "stretch_pct", "fill_pct", "installed_section_mm"):
        assert imperial[figure] == pytest.approx(metric[figure])
    assert imperial["radial_gap_mm"] == pytest.approx(metric["radial_gap_mm"])
    assert imperial["verdict"] == metric["verdict"]


def test_the_answer_carries_what_the_sum_needs(app_client: BenchClient) -> None:
    body = check(app_client)
    section, depth = body["installed_section_mm"]["nominal"], body["depth_mm"]
    assert body["squeeze_pct"]["nominal"] == pytest.approx(100 * (section - depth) / section)
    inside, seat = body["free_inside_diameter_mm"], body["seat_diameter_mm"]
    assert body["stretch_pct"]["nominal"] == pytest.approx(100 * (seat - inside) / inside)
    free = body["free_section_mm"]
    assert section**2 * (seat + section) == pytest.approx(free**2 * (inside + free))
    assert body["fill_pct"]["nominal"] == pytest.approx(
        100 * 0.785398 * section**2 / (depth * body["width_mm"]), rel=1e-5
    )


def test_a_housing_that_gives_widens_the_gap(app_client: BenchClient) -> None:
    stiff, soft = check(app_client), check(app_client, wall="3 mm", housing="aluminium")
    assert soft["radial_gap_mm"]["worst"] > stiff["radial_gap_mm"]["worst"]
    assert soft["radial_gap_mm"]["growth"] > 0
    assert soft["radial_gap_mm"]["safe_without_backup_mpa"] <= stiff["radial_gap_mm"]["safe_without_backup_mpa"]
    assert "bore-growth" in {f["code"] for f in soft["findings"]}


def test_every_finding_names_its_basis_and_its_limit(app_client: BenchClient) -> None:
    for changes in (
        {"bore": "30.5 mm"},
        {"groove_width": "3.5 mm"},
        {"groove_diameter": "27 mm"},
        {"temperature": "150 °C"},
    ):
        for finding in check(app_client, **changes)["findings"]:
            assert finding["basis"]
            assert any(mark.isdigit() for mark in finding["message"]), finding


@pytest.mark.parametrize("seat", ["piston", "rod", "face"])
@pytest.mark.parametrize("medium", ["liquid", "gas"])
def test_a_designed_groove_finds_its_own_ring_again(app_client: BenchClient, seat: str, medium: str) -> None:
    wish = {"seat": seat, "across": "63 mm", "medium": medium, "pressure": "6 bar"}
    for one in app_client.post("/api/glands/design", json=wish).json()["proposals"]:
        groove = one["groove_diameter_mm"]["nominal"]
        third = {"piston": {"bore": "63 mm"}, "rod": {"rod": "63 mm"}, "face": {}}[seat]
        if seat == "face":
            third = {"groove_depth": f"{one['groove_depth_mm']['nominal']} mm"}
        body = {
            "seat": seat,
            "medium": medium,
            "groove_diameter": f"{groove} mm",
            "groove_width": f"{one['groove_width_mm']['nominal']} mm",
            **third,
        }
        found = app_client.post("/api/glands/rings", json={**body, "limit": 50}).json()["rings"]
        names = {(n["series"], n["designation"]) for ring in found for n in (ring, *ring["also"])}
        assert (one["ring"]["series"], one["ring"]["designation"]) in names


def test_a_tighter_search_is_a_part_of_a_wider_one(app_client: BenchClient) -> None:
    few = app_client.post("/api/glands/rings", json={**GROOVE, "limit": 3}).json()["rings"]
    many = app_client.post("/api/glands/rings", json={**GROOVE, "limit": 20}).json()["rings"]
    assert few == many[:3]

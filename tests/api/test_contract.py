"""Every field of the public calculation API, with the bodies of its documentation."""

from __future__ import annotations

from typing import Any
from unittest.mock import ANY

import pytest

from tests.people import BenchClient

GROOVE = {
    "seat": "piston", "motion": "static", "medium": "liquid", "bore": "31.75 mm", "groove_diameter": "25.90 mm",
    "rod": None, "groove_depth": None, "groove_width": "4.80 mm", "diametral_clearance": "0.10 mm",
    "pressure": "16 MPa", "pressure_direction": "one_side", "hardness_shore_a": 70, "material": "NBR",
    "temperature": "20 °C", "swell_pct": 0, "backup_rings_fitted": 0,
}  # fmt: skip
HOLD = {
    "kind": "pressure_hold", "medium": "mineral oil ISO VG 46", "bulk_modulus_gpa": 1.4, "volume": "850 ml",
    "limit": {"leak_rate": "0.5 ml/min"}, "gauge": {"range": "250 bar", "resolution": "0.1 bar", "accuracy_pct": 0.5},
    "pressure_unit": "bar", "reference": "gauge", "atmosphere": "1013 hPa",
}  # fmt: skip
BODIES: dict[str, dict[str, Any]] = {
    "/api/rings/match": {
        "inside_diameter": "24.9 mm", "section": "3.5 mm", "section_crossed": None, "condition": "new",
        "uncertainty": "0.05 mm", "groove": GROOVE, "series": ["AS568", "ISO 3601", "JIS B 2401", "metric"], "limit": 10,
    },
    "/api/glands/check": {"ring": {"series": "AS568", "designation": "214"}, **GROOVE},
    "/api/glands/rings": GROOVE,
    "/api/glands/design": {
        "seat": "piston", "across": "50 mm", "motion": "static", "medium": "liquid", "pressure": "16 MPa",
        "pressure_direction": "one_side", "hardness_shore_a": 70, "material": "NBR", "temperature": "20 °C",
        "diametral_clearance": None, "limit": 4,
    },
    "/api/rings/compare": {
        "first": {"series": "AS568", "designation": "214"}, "second": {"series": "metric", "designation": "25x3.5"},
    },
    "/api/seals/match": {"kind": "lip_seal", "side": "rod", "surface": "28 mm", "groove": "38 mm", "length": "6.3 mm"},
    "/api/seals/packing": {"bore": "45 mm", "rod": "30 mm", "depth": "42 mm", "ring_height": "5.1 mm", "lead": "1.5 mm"},
    "/api/seals/press-fit": {"bore": "42 mm +0.039/-0", "outside_diameter": "42.13 mm", "width": "7 mm", "depth": "7 mm"},
    "/api/compounds/advise": {
        "fluids": ["mineral oil ISO VG 46"], "temperature_max": "70 °C", "lubricant": "mineral_grease",
        "worst_gap": "0.08 mm", "pressure": "7 MPa", "section": "3.53 mm",
    },
    "/api/compounds/lubricant": {"lubricant": "mineral_grease", "compound": "EPDM"},
    "/api/stacks/orient": {
        "zones": [
            {"key": "rod_side", "kind": "pressure", "pressure": "210 bar"},
            {"key": "outside", "kind": "atmosphere"},
        ],
        "stations": [
            {
                "key": "rod-gland", "between": ["outside", "rod_side"], "motion": "reciprocating",
                "elements": [{"key": "w1", "kind": "wiper"}, {"key": "u1", "kind": "lip_seal"}],
                "entered_from": "rod_side",
            }
        ],
        "as_found": {"u1": "outside"},
    },
    "/api/torque/plan": {
        "spec": {"min": "34 Nm", "max": "40 Nm"}, "wrench": {"min": "10 Nm", "max": "60 Nm", "accuracy_pct": 4},
        "adapter": {"wrench_length": "300 mm", "extension": "40 mm", "angle_deg": 0},
        "pattern": {"layout": "circle", "count": 6}, "passes_pct": [30, 70, 100], "soft_thread": False,
        "fastener": {"thread": "M10", "grade": "8.8", "condition": "light oil"},
    },
    "/api/cylinders/size": {"bore": "63 mm", "rod": "36 mm", "stroke": "400 mm", "pressure": "180 bar", "flow": "30 l/min"},
    "/api/tests/plan": {**HOLD, "pressure": "200 bar"},
    "/api/tests/analyse": {
        **HOLD, "samples": [{"t_s": 10 * i, "pressure": 210.0 - 0.02 * i, "temperature_c": 24.1} for i in range(30)],
    },
    "/api/quantities/read": {"text": "1-5/16 in", "dimension": "length"},
}  # fmt: skip
FIELDS = {
    "/api/rings/match": {"candidates", "decided", "next_measurement"},
    "/api/glands/check": {
        "squeeze_pct", "stretch_pct", "fill_pct", "installed_section_mm", "radial_gap_mm", "backup", "verdict", "findings",
    },
    "/api/glands/rings": {"rings", "near"},
    "/api/glands/design": {"proposals"},
    "/api/rings/compare": {"first", "second", "differences"},
    "/api/seals/match": {"fits", "smaller", "larger"},
    "/api/seals/packing": {"section_mm", "rings", "stack_mm", "compression_mm", "turns", "findings"},
    "/api/seals/press-fit": {"interference_mm", "wanted_low_mm", "wanted_high_mm", "verdict", "findings"},
    "/api/compounds/advise": {"media", "compounds", "hardness"},
    "/api/compounds/lubricant": {"lubricant", "verdict", "findings"},
    "/api/stacks/orient": {"stations", "findings"},
    "/api/torque/plan": {
        "setting_nm", "wrench_setting_nm", "setting_text", "passes", "wrench", "preload_kn", "proof_pct", "travel_mm",
        "back_off_deg_max", "findings",
    },
    "/api/cylinders/size": {
        "cap_area_mm2", "rod_area_mm2", "push_kn", "pull_kn", "ratio", "cap_volume_ml", "rod_volume_ml",
        "blocked_rod_pressure_mpa", "extend_s", "retract_s", "findings",
    },
    "/api/tests/plan": {"hold_needed_s", "detectable_leak_ml_min", "stored_energy_j", "steps", "findings"},
    "/api/tests/analyse": {
        "leak_rate_ml_min", "ci95_ml_min", "temperature_corrected", "settled_from_s", "hold_s", "verdict",
        "hold_needed_s", "stored_energy_j", "findings",
    },
    "/api/quantities/read": {"value", "base_unit", "unit", "shown"},
}  # fmt: skip


def ask(client: BenchClient, path: str, **changes: Any) -> Any:
    return client.post(path, json={**BODIES[path], **changes})


@pytest.mark.parametrize("path", list(BODIES))
def test_every_field_is_answered(app_client: BenchClient, path: str) -> None:
    answer = ask(app_client, path)
    assert answer.status_code == 200, answer.text
    assert set(answer.json()) >= FIELDS[path]


def test_ring_match(app_client: BenchClient) -> None:
    body = ask(app_client, "/api/rings/match").json()
    first = body["candidates"][0]
    # 24.9 × 3.5 is nearest to AS568-214, 0.984 × 0.139 in.
    assert (first["series"], first["designation"]) == ("AS568", "214")
    assert first["fits_groove"] is True
    assert set(first) >= {"inside_diameter_mm", "section_mm", "probability", "fits_groove", "reasons"}
    assert first["inside_diameter_mm"] == pytest.approx(24.99, abs=0.01)
    only = ask(app_client, "/api/rings/match", series=["metric"], groove=None).json()["candidates"]
    assert {c["series"] for c in only} == {"metric"}
    assert only[0]["fits_groove"] is None


def test_gland_check(app_client: BenchClient) -> None:
    body = ask(app_client, "/api/glands/check").json()
    assert set(body["squeeze_pct"]) == {"min", "nominal", "max"}
    # 16 MPa is off the table for 70 Shore A, and no backup is fitted.
    assert body["verdict"] == "reject"
    assert body["backup"] == {
        "needed": True, "count": 1, "sides": ["side away from pressure"], "designation": "backup ring for AS568-214",
        "groove_width_needed_mm": pytest.approx(5.28, abs=0.01), "kind": "solid", "why_kind": ANY,
    }  # fmt: skip
    # Gap 0.10 mm on one side: 70 Shore stands 3.5 MPa there, 90 Shore 10.5 MPa, a backup three times that.
    assert body["radial_gap_mm"] == {
        "concentric": 0.05, "worst": 0.1, "allowed": None, "growth": 0.0, "safe_without_backup_mpa": 3.5,
        "safe_with_backup_mpa": 31.5,
    }  # fmt: skip
    assert {"code", "severity", "message", "basis"} == set(body["findings"][0])
    inch = ask(
        app_client,
        "/api/glands/check",
        bore="1.25 in",
        groove_diameter='1.0197"',
        groove_width="0.189 in",
        pressure="2320.6 psi",
    ).json()
    assert inch["squeeze_pct"]["nominal"] == pytest.approx(body["squeeze_pct"]["nominal"], abs=0.05)
    measured = ask(app_client, "/api/glands/check", ring={"inside_diameter": "24.99 mm", "section": "3.53 mm ±0.1"})
    assert measured.json()["squeeze_pct"]["nominal"] == pytest.approx(body["squeeze_pct"]["nominal"], abs=0.05)


def test_sizes_for_a_groove(app_client: BenchClient) -> None:
    body = ask(app_client, "/api/glands/rings").json()
    names = [(ring["series"], ring["designation"]) for ring in body["rings"]]
    assert ("AS568", "214") in names
    for ring in body["rings"]:
        same = ask(
            app_client,
            "/api/glands/check",
            ring={"series": ring["series"], "designation": ring["designation"]},
        )
        assert same.json() == ring["check"]
    assert body["near"]
    assert all(miss["reasons"] for miss in body["near"])


def test_other_readings_across_the_ring(app_client: BenchClient) -> None:
    # AS568-214 is 24.99 × 3.53 mm: outside 32.05; a cut ring's middle line is π·28.52 = 89.6 mm.
    for way in ({"outside_diameter": "32.05 mm"}, {"cut_length": "89.6 mm"}, {"cone_diameter": "0.984 in"}):
        answer = ask(app_client, "/api/rings/match", inside_diameter=None, section="3.53 mm", groove=None, **way)
        assert answer.json()["candidates"][0]["designation"] == "214", way
    both = ask(app_client, "/api/rings/match", cut_length="89.6 mm")
    assert [error["field"] for error in both.json()["errors"]] == ["cut_length"]


def test_further_readings_settle_a_look_alike(app_client: BenchClient) -> None:
    # A ruler reads 37.2 × 5.2; AS568-325 is 1.475 × 0.210 in = 37.47 × 5.33 mm.
    body = {"inside_diameter": "37.2 mm", "section": "5.2 mm", "condition": "new", "uncertainty": "0.8 mm"}
    first = app_client.post("/api/rings/match", json=body).json()
    assert first["decided"] is False
    assert first["next_measurement"]["expected"] > first["candidates"][0]["probability"]
    further = [{"what": "section", "value": "5.33 mm"}, {"what": "inside_diameter", "value": "37.46 mm"}]
    then = app_client.post("/api/rings/match", json={**body, "further": further}).json()
    assert then["decided"] is True
    assert then["candidates"][0]["designation"] == "325"


def test_design_gives_dimensions_with_tolerances(app_client: BenchClient) -> None:
    for seat in ("piston", "rod", "face"):
        proposals = ask(app_client, "/api/glands/design", seat=seat).json()["proposals"]
        assert proposals
        for proposal in proposals:
            assert proposal["groove_width_mm"]["nominal"] > 0
            assert (proposal["groove_depth_mm"] is not None) == (seat == "face")
            assert proposal["check"]["verdict"] in {"good", "caution"}


def test_orientation(app_client: BenchClient) -> None:
    body = ask(app_client, "/api/stacks/orient").json()
    station = body["stations"][0]
    assert [e["faces"] for e in station["elements"]] == ["outside", "rod_side"]
    assert station["fitting_order"] == ["w1", "u1"]
    assert station["removal_order"] == ["u1", "w1"]
    assert [f["code"] for f in body["findings"]] == ["reversed"]


def test_torque(app_client: BenchClient) -> None:
    body = ask(app_client, "/api/torque/plan").json()
    assert body["setting_nm"] == pytest.approx(37)
    assert body["wrench_setting_nm"] == pytest.approx(32.647, abs=1e-3)
    # 11.1 · 300/340 = 9.79 on the scale, below the 12 from which a 60 N·m wrench is trusted.
    assert body["passes"][0] == {
        "pct": 30, "name": "30 %", "setting_nm": pytest.approx(11.1), "sequence": [1, 4, 2, 5, 3, 6],
        "wrench_setting_nm": pytest.approx(9.794, abs=1e-3), "wrench_text": "9.8 N·m", "reached": False,
    }  # fmt: skip
    assert body["passes"][3]["sequence"] == [1, 2, 3, 4, 5, 6]
    assert ask(app_client, "/api/torque/plan", spec={"turns": 0.25, "thread": "M42x2"}).json()["travel_mm"] == 0.5
    slots = ask(app_client, "/api/torque/plan", spec={"slots": 6, "from_bottom": True, "thread": "M60x2"}).json()
    assert slots["back_off_deg_max"] == 60
    target = ask(app_client, "/api/torque/plan", spec={"target": "22 Nm", "tolerance_pct": 5}).json()
    assert target["setting_nm"] == pytest.approx(22)
    assert ask(app_client, "/api/torque/plan", spec={"to_stop": True}).json()["setting_nm"] is None


def test_hold(app_client: BenchClient) -> None:
    body = ask(app_client, "/api/tests/analyse", pressure="210 bar").json()
    # 0.002 bar/s on 850 ml at 1.4 GPa: 850/1400·0.0002·60 = 0.007286 ml/min.
    assert body["leak_rate_ml_min"] == pytest.approx(0.007286, rel=1e-3)
    assert body["verdict"] == "pass"
    # Nobody said what was to be held: nothing to be passed.
    assert ask(app_client, "/api/tests/analyse").json()["verdict"] == "undecided"
    psi = ask(
        app_client,
        "/api/tests/analyse",
        pressure_unit="psi",
        samples=[{"t_s": 10 * i, "pressure": 3000 - 0.29 * i, "temperature_c": 24.1} for i in range(30)],
    ).json()
    assert psi["leak_rate_ml_min"] == pytest.approx(0.007286, rel=0.01)
    absolute = ask(app_client, "/api/tests/analyse", reference="absolute").json()
    assert absolute["leak_rate_ml_min"] == pytest.approx(body["leak_rate_ml_min"])


@pytest.mark.parametrize(
    ("path", "changes", "field"),
    [
        ("/api/rings/match", {"section": "3.5"}, "section"),
        ("/api/rings/match", {"inside_diameter": "24.9 bar"}, "inside_diameter"),
        ("/api/rings/match", {"inside_diameter": "-3 mm"}, "inside_diameter"),
        ("/api/rings/match", {"inside_diameter": "900 m"}, "inside_diameter"),
        ("/api/rings/match", {"groove": {**GROOVE, "bore": None}}, "bore"),
        ("/api/rings/match", {"groove": {**GROOVE, "bore": "soft"}}, "groove.bore"),
        ("/api/rings/match", {"series": ["DIN"]}, "series.0"),
        ("/api/rings/match", {"limit": 0}, "limit"),
        ("/api/rings/match", {"section": "3\x00 mm"}, "section"),
        ("/api/rings/match", {"colour": "red"}, "colour"),
        ("/api/glands/check", {"ring": {"series": "AS568", "designation": "999"}}, "ring.designation"),
        ("/api/glands/check", {"pressure": "16 bar(a)"}, "pressure"),
        ("/api/rings/match", {"inside_diameter": None}, "inside_diameter"),
        ("/api/rings/match", {"further": [{"what": "section", "value": "3.5"}]}, "further.0.value"),
        ("/api/rings/match", {"inside_diameter": None, "outside_diameter": "6 mm"}, "outside_diameter"),
        ("/api/glands/check", {"wall": "8"}, "wall"),
        ("/api/glands/check", {"housing": "wood"}, "housing"),
        ("/api/glands/design", {"across": "50"}, "across"),
        ("/api/rings/compare", {"first": {"series": "DIN", "designation": "1"}}, "first.series"),
        ("/api/rings/compare", {"second": {"series": "AS568", "designation": "999"}}, "second.designation"),
        ("/api/seals/match", {"groove": "20 mm"}, "groove"),
        ("/api/seals/match", {"kind": "cork"}, "kind"),
        ("/api/seals/packing", {"rod": "50 mm"}, "rod"),
        ("/api/seals/press-fit", {"bore": "900 mm"}, "bore"),
        ("/api/compounds/advise", {"fluids": ["treacle"]}, "fluids.0"),
        ("/api/compounds/advise", {"temperature_min": "90 °C"}, "temperature_min"),
        ("/api/compounds/advise", {"section": None}, "section"),
        ("/api/compounds/lubricant", {"compound": "cork"}, "compound"),
        ("/api/compounds/lubricant", {"lubricant": "candle wax"}, "lubricant"),
        ("/api/stacks/orient", {"as_found": {"u1": "mars"}}, "as_found.u1"),
        ("/api/stacks/orient", {"zones": [{"key": "rod_side", "kind": "pressure"}]}, "zones.0.pressure"),
        ("/api/torque/plan", {"spec": {"min": "40 Nm", "max": "34 Nm"}}, "spec.min"),
        ("/api/torque/plan", {"spec": {"target": "22 Nm", "turns": 1}}, "spec"),
        ("/api/torque/plan", {"spec": {}}, "spec"),
        ("/api/torque/plan", {"spec": {"turns": 0.25}}, "spec.thread"),
        ("/api/torque/plan", {"passes_pct": [70, 30, 100]}, "passes_pct"),
        ("/api/torque/plan", {"fastener": {"thread": "M10", "grade": "tin"}}, "fastener.grade"),
        ("/api/torque/plan", {"wrench": {"min": "60 Nm", "max": "10 Nm", "accuracy_pct": 4}}, "wrench.min"),
        ("/api/cylinders/size", {"rod": "70 mm"}, "rod"),
        ("/api/tests/analyse", {"samples": []}, "samples"),
        ("/api/tests/analyse", {"medium": "treacle"}, "medium"),
        ("/api/tests/analyse", {"pressure_unit": "mm"}, "pressure_unit"),
        ("/api/tests/analyse", {"atmosphere": "5 bar"}, "atmosphere"),
        ("/api/quantities/read", {"text": "12"}, "text"),
    ],
)
def test_bad_input_names_the_field(app_client: BenchClient, path: str, changes: dict[str, Any], field: str) -> None:
    answer = ask(app_client, path, **changes)
    assert answer.status_code == 422, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    body = answer.json()
    assert set(body) == {"type", "title", "status", "detail", "errors"}
    assert field in [error["field"] for error in body["errors"]], body["errors"]
    assert all(error["message"] for error in body["errors"])


def test_a_tolerance_is_echoed_where_it_may_stand(app_client: BenchClient) -> None:
    body = {"text": "50 mm +0.039/-0", "dimension": "length", "toleranced": True}
    assert app_client.post("/api/quantities/read", json=body).json()["shown"] == "50.00 mm (1.969 in), +0.039/0"
    assert app_client.post("/api/quantities/read", json={**body, "toleranced": False}).status_code == 422


def test_several_faults_come_together(app_client: BenchClient) -> None:
    errors = ask(app_client, "/api/cylinders/size", bore="63", rod="36 bar", stroke="x").json()["errors"]
    assert [error["field"] for error in errors] == ["bore", "rod", "stroke"]
    assert errors[0]["accepts"][:2] == ["mm", "in"]

"""The match over the API: names, series, groove and the answers to every way of asking."""

from __future__ import annotations

from typing import Any

import pytest

from tests.people import BenchClient

RING = {"inside_diameter": "44.1 mm", "section": "3.5 mm", "condition": "used"}
GROOVE = {"seat": "piston", "bore": "50 mm", "groove_diameter": "44.4 mm", "groove_width": "5.4 mm"}


def match(client: BenchClient, **changes: Any) -> Any:
    answer = client.post("/api/rings/match", json={**RING, **changes})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_only_two_fields_are_needed(app_client: BenchClient) -> None:
    body = app_client.post("/api/rings/match", json={"inside_diameter": "24.9 mm", "section": "3.5 mm"}).json()
    assert body["candidates"][0]["designation"] == "214"
    assert len(body["candidates"]) == 10
    assert body["sizes_considered"] > 3000
    assert body["measured_section_mm"] == 3.5


def test_probabilities_of_all_lines_add_up_to_one(app_client: BenchClient) -> None:
    body = match(app_client, series=["AS568"], limit=50)
    assert body["sizes_considered"] == 369
    assert sum(c["probability"] for c in body["candidates"]) == pytest.approx(1.0, abs=1e-6)


def test_inch_in_is_millimetre_in(app_client: BenchClient) -> None:
    metric = match(app_client, uncertainty="0.05 mm")
    inch = match(
        app_client,
        inside_diameter=f"{44.1 / 25.4!r} in",
        section=f"{3.5 / 25.4!r} in",
        uncertainty=f"{0.05 / 25.4!r} in",
    )
    assert [c["probability"] for c in inch["candidates"]] == pytest.approx(
        [c["probability"] for c in metric["candidates"]]
    )
    assert [c["designation"] for c in inch["candidates"]] == [c["designation"] for c in metric["candidates"]]


def test_the_groove_is_answered_for_every_candidate(app_client: BenchClient) -> None:
    without, with_groove = match(app_client), match(app_client, groove=GROOVE)
    assert all(c["fits_groove"] is None and c["groove"] is None for c in without["candidates"])
    for candidate in with_groove["candidates"]:
        assert candidate["fits_groove"] in {True, False}
        assert candidate["groove"]["squeeze_pct"]["min"] <= candidate["groove"]["squeeze_pct"]["max"]
        if candidate["fits_groove"] is False:
            assert any("%" in reason for reason in candidate["reasons"])
    assert with_groove["next_measurement"]["read"] not in {"groove_diameter", "groove_width"}


def test_a_groove_decides_between_look_alikes(app_client: BenchClient) -> None:
    """44.4 × 3.5 read roughly is 44 or 45 mm stock; on 43.5 mm the larger hangs loose by more than the limit of 1 %."""
    rough = {
        "inside_diameter": "44.5 mm",
        "section": "3.5 mm",
        "condition": "new",
        "uncertainty": "0.8 mm",
        "limit": 50,
        "series": ["metric"],
    }
    body = app_client.post(
        "/api/rings/match",
        json={**rough, "groove": {**GROOVE, "groove_diameter": "43.5 mm", "bore": "49.1 mm"}},
    ).json()
    free = app_client.post("/api/rings/match", json=rough).json()
    shares = [{c["designation"]: c["probability"] for c in answer["candidates"]} for answer in (free, body)]
    # (43.5 − 45)/45 = −3.3 % outside, (43.5 − 43.5)/43.5 = 0 inside.
    assert shares[1]["45x3.5"] < 0.3 * shares[0]["45x3.5"]
    assert shares[1]["43.5x3.5"] > shares[0]["43.5x3.5"]


@pytest.mark.parametrize("condition", ["new", "used", "flattened", "swollen", "stretched"])
def test_every_condition_is_answered_and_an_open_question_names_its_reading(
    app_client: BenchClient, condition: str
) -> None:
    body = match(app_client, condition=condition)
    advice = body["next_measurement"]
    assert body["decided"] == (body["candidates"][0]["probability"] >= 0.90)
    assert (advice is None) == body["decided"]
    if advice:
        assert advice["expected"] >= body["candidates"][0]["probability"] - 0.02
        assert advice["resolution_mm"] > 0
        assert advice["what"]
        assert advice["why"]


def test_estimated_tolerances_are_told(app_client: BenchClient) -> None:
    found = match(app_client, limit=20)["candidates"]
    for one in found:
        assert one["tolerance_estimated"] == (one["series"] == "JIS B 2401")


def test_a_wider_uncertainty_makes_nobody_surer(app_client: BenchClient) -> None:
    fine = match(app_client, condition="new", uncertainty="0.02 mm")["candidates"][0]["probability"]
    rough = match(app_client, condition="new", uncertainty="0.6 mm")["candidates"][0]["probability"]
    assert rough < fine

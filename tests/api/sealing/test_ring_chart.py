"""The pocket chart: filters, CSV, two sizes side by side."""

from __future__ import annotations

import csv
import io

from tests.people import BenchClient


def test_the_whole_table_and_its_parts(app_client: BenchClient) -> None:
    whole = app_client.get("/api/rings/sizes", params={"limit": 5000}).json()
    assert whole["total"] == len(whole["rows"]) > 3000
    names = [(row["series"], row["designation"]) for row in whole["rows"]]
    assert ("AS568", "214") in names
    assert ("ISO 3601", "25x3.55") not in names, "one ring under two names is one line"
    inch = app_client.get("/api/rings/sizes", params={"series": "AS568", "limit": 5}).json()
    assert (inch["total"], len(inch["rows"])) == (369, 5)
    dash = app_client.get("/api/rings/sizes", params={"series": "AS568", "name": "21"}).json()
    assert {"214", "021", "121"} <= {row["designation"] for row in dash["rows"]}
    near = app_client.get("/api/rings/sizes", params={"around": "0.984 in", "section": "3.53 mm"}).json()["rows"]
    assert near[0]["designation"] == "214"
    assert near[0]["also"] == [{"series": "ISO 3601", "designation": "25x3.55"}]
    jis = app_client.get("/api/rings/sizes", params={"series": "JIS B 2401", "limit": 1}).json()["rows"][0]
    assert jis["tolerance_estimated"] is True


def test_bad_filters_name_the_field(app_client: BenchClient) -> None:
    for params, field in (
        ({"around": "25"}, "around"),
        ({"section": "3 bar"}, "section"),
        ({"series": "DIN"}, "series"),
    ):
        answer = app_client.get("/api/rings/sizes", params=params)
        assert answer.status_code == 422
        assert [error["field"] for error in answer.json()["errors"]] == [field]


def test_csv_holds_what_the_filter_passes(app_client: BenchClient) -> None:
    answer = app_client.get("/api/rings/sizes.csv", params={"series": "AS568"})
    assert answer.headers["content-type"].startswith("text/csv")
    rows = list(csv.DictReader(io.StringIO(answer.text)))
    assert len(rows) == 369
    # SAE AS568: dash 214 is 0.984 × 0.139 in.
    row = next(row for row in rows if row["designation"] == "214")
    assert (row["inside_diameter_in"], row["section_in"]) == ("0.9840", "0.1390")
    # Checked twice against the standard: nothing to add.
    assert row["how_sure"] == ""


def test_two_sizes_side_by_side(app_client: BenchClient) -> None:
    body = {
        "first": {"series": "AS568", "designation": "214"},
        "second": {"series": "metric", "designation": "25x3"},
    }
    found = app_client.post("/api/rings/compare", json=body).json()
    by_name = {d["what"]: d for d in found["differences"]}
    assert by_name["section"]["distinguishes"] is True
    assert by_name["inside diameter"]["distinguishes"] is False

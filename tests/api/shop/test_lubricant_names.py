"""A shop's own names of lubricants: given by the lead, taken at fits and by the calculator, recorded as what they are."""

from __future__ import annotations

import pytest

from tests import walk
from tests.people import BenchClient


def named(client: BenchClient, name: str, lubricant: str) -> int:
    return client.as_person("tamsin").put(f"/api/lubricant-names/{name}", json={"lubricant": lubricant}).status_code


def test_a_name_is_taken_where_a_lubricant_is_asked_for(client: BenchClient) -> None:
    body = {"lubricant": "the Red  Drum", "compound": "EPDM"}
    assert client.post("/api/compounds/lubricant", json=body).status_code == 422
    assert named(client, "The red drum", "lithium_grease") == 200
    found = client.post("/api/compounds/lubricant", json=body).json()
    assert (found["lubricant"], found["verdict"]) == ("lithium_grease", "reject")
    job = walk.open_new(client, "swing-bridge-ram")
    view = walk.walk(client, job, until="fit:rod-lip")
    task = walk.task_of(view, "fit:rod-lip")
    ask = next(one for one in task["asks"] if one["field"] == "lubricant")
    assert "Lithium grease (the red drum)" in [choice["says"] for choice in ask["choices"]]
    assert walk.send(client, job, walk.payload_of(task, lubricant="the red drum")).status_code == 200
    log = client.get(f"/api/jobs/{job}/log").json()
    assert "lithium grease" in str(log[-1])
    assert "red drum" not in str(log[-1])
    client.as_person("tamsin").delete("/api/lubricant-names/the%20red%20drum")
    assert client.get("/api/lubricant-names").json() == []


@pytest.mark.parametrize(
    ("name", "lubricant", "status"),
    [
        ("lithium grease", "silicone_grease", 422),  # a word of the list keeps its meaning
        ("Motor Oil", "engine_oil", 422),
        ("Our grease", "bacon_fat", 422),
        ("Our grease", "silicone_grease", 200),
    ],
)
def test_a_word_of_the_list_is_not_given_away(client: BenchClient, name: str, lubricant: str, status: int) -> None:
    assert named(client, name, lubricant) == status


def test_a_name_with_a_stroke_in_it_is_a_name_too(client: BenchClient) -> None:
    assert named(client, "Hydraulic 10W/40", "hydraulic_oil") == 200
    (one,) = client.get("/api/lubricant-names").json()
    assert one["name"] == "Hydraulic 10W/40"
    assert client.as_person("tamsin").delete("/api/lubricant-names/Hydraulic%2010W/40").json() == []


def test_only_the_lead_names_them_and_the_trail_has_it(client: BenchClient) -> None:
    assert client.put("/api/lubricant-names/goo", json={"lubricant": "dry"}).status_code == 403
    assert client.as_person("tamsin").delete("/api/lubricant-names/goo").status_code == 404
    assert named(client, "goo", "food_gel") == 200
    trail = client.as_person("tamsin").get("/api/trail").json()
    assert (trail[0]["noun"], trail[0]["subject"]) == ("lubricant name", "goo")


def test_the_list_of_cleaners(client: BenchClient) -> None:
    listed = {one["key"]: one for one in client.get("/api/cleaners").json()}
    assert listed["citric_acid"]["attacks"] == ["aluminium", "chromed steel"]
    assert listed["hydrochloric_acid"]["refused"].startswith("not for this bench")
    assert listed["solvent_spray"]["flammable"] is True

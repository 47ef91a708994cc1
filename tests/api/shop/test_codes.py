"""A scanned code over the API: a unit that is known, a label never given out, a certificate, and what is none."""

from __future__ import annotations

from tests.people import BenchClient


def test_a_code_names_a_unit_or_a_certificate(client: BenchClient) -> None:
    unit = client.get("/api/units", params={"q": "FN-5203"}).json()["units"][0]
    told = client.get("/api/codes", params={"code": f"https://kettle.example/u/{unit['label'].lower()}"}).json()
    assert told == {"kind": "unit", "key": unit["label"], "record": "", "unit": unit}
    link = "https://kettle.example/check?job=1001&record=0123456789abcdef"
    assert client.get("/api/codes", params={"code": link}).json() == {
        "kind": "certificate", "key": "1001", "record": "0123456789abcdef", "unit": None,
    }  # fmt: skip


def test_what_is_no_code_is_refused_and_a_label_never_given_out_is_not_there(client: BenchClient) -> None:
    answer = client.get("/api/codes", params={"code": "https://example.com/menu"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "code"
    assert "is no code of this shop" in answer.json()["errors"][0]["message"]
    label = client.get("/api/units", params={"q": "FN-5203"}).json()["units"][0]["label"]
    wrong = label[:-1] + ("1" if label[-1] != "1" else "2")
    assert "is mistyped" in client.get("/api/codes", params={"code": wrong}).json()["errors"][0]["message"]
    assert client.get("/api/codes", params={"code": "x" * 401}).status_code == 422

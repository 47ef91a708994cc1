"""Every refusal in one shape, whatever was wrong with the request."""

from __future__ import annotations

from typing import Any

import pytest

from tests.people import BenchClient

SHAPE = {"type", "title", "status", "detail", "errors"}
MATCH = "/api/rings/match"


def problem(answer: Any, status: int) -> dict[str, Any]:
    assert answer.status_code == status, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    body: dict[str, Any] = answer.json()
    assert set(body) == SHAPE
    assert body["status"] == status
    assert body["detail"]
    return body


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"{", "JSON"),
        (b"[]", "must hold named fields"),
        (b'"ring"', "must hold named fields"),
        (b"\xff\xfe", "JSON"),
        (b"", "is needed"),
    ],
)
def test_a_body_that_is_no_body(app_client: BenchClient, content: bytes, words: str) -> None:
    answer = app_client.post(MATCH, content=content, headers={"Content-Type": "application/json"})
    body = problem(answer, answer.status_code)
    assert 400 <= body["status"] < 500
    assert words.lower() in body["detail"].lower()


def test_all_faults_come_at_once_each_with_its_field_and_what_fits(app_client: BenchClient) -> None:
    body = problem(
        app_client.post(MATCH, json={"inside_diameter": "24.9", "section": "3 bar", "uncertainty": "x"}), 422
    )
    errors = {error["field"]: error for error in body["errors"]}
    assert set(errors) == {"inside_diameter", "section", "uncertainty"}
    assert errors["inside_diameter"]["accepts"][:2] == ["mm", "in"]
    assert "pressure" in errors["section"]["message"]


@pytest.mark.parametrize(
    ("method", "path", "status"),
    [
        ("GET", "/api/nowhere", 404),
        ("DELETE", MATCH, 405),
        ("GET", "/api/jobs/00000000-0000-0000-0000-000000000000", 404),
        ("GET", "/api/jobs/soon", 404),
        ("GET", "/api/rings/sizes?limit=0", 422),
        ("GET", "/api/rings/sizes?colour=red", 422),
    ],
)
def test_addresses_and_methods(client: BenchClient, method: str, path: str, status: int) -> None:
    problem(client.request(method, path), status)


@pytest.mark.parametrize("field", ["inside_diameter", "section"])
@pytest.mark.parametrize(
    "text", ["", " ", "NaN mm", "1e999 mm", "-0 mm", "0 mm", "1/0 mm", "3\x00 mm", "3 mm 4", "9" * 70]
)
def test_no_text_in_a_quantity_is_an_error_of_the_server(app_client: BenchClient, field: str, text: str) -> None:
    answer = app_client.post(MATCH, json={"inside_diameter": "24.9 mm", "section": "3.5 mm", field: text})
    body = problem(answer, 422)
    assert [error["field"] for error in body["errors"]] == [field]


def test_the_request_is_never_sent_back(app_client: BenchClient) -> None:
    secret = "do-not-echo-" * 4
    body = problem(app_client.post(MATCH, json={"inside_diameter": "24.9 mm", "section": "3.5 mm", "x": secret}), 422)
    assert secret not in str(body)

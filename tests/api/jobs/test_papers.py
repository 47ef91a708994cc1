"""The papers of a job over the API: letterhead, certificate, the customer's report, and the check anybody may ask for."""

from __future__ import annotations

import io
from email import message_from_bytes
from email.message import EmailMessage
from email.policy import default
from typing import Any, cast

import pytest
from fastapi import FastAPI
from pypdf import PdfReader

from tests import walk
from tests.clock import ServerClock
from tests.people import BenchClient

HEAD = {
    "name": "Lock Gate Workshop", "address": ["The Maltings", "Fennimoor"], "contact": "01632 960417",
    "site": "https://kettle.example", "zone": "Asia/Kolkata",
}  # fmt: skip


def pages(client: BenchClient, job: str) -> list[str]:
    content = client.get(f"/api/jobs/{job}/certificate.pdf").content
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(content)).pages]


@pytest.fixture
def lead(client: BenchClient) -> BenchClient:
    return client.as_person("tamsin")


def signed(client: BenchClient) -> dict[str, Any]:
    view = walk.walk(client, walk.open_new(client, "needle-scaler", serial="FN-7788"))
    assert view["job"]["released"]
    return view


def test_the_first_page_is_whole_and_signed(client: BenchClient, lead: BenchClient) -> None:
    assert lead.put("/api/letterhead", json=HEAD).json()["missing"] == []
    view = signed(client)
    first, *rest = pages(client, view["job"]["id"])
    for wanted in ("Lock Gate Workshop", "01632 960417", "FN-7788", "It leaks", "Released and signed by Tamsin Orrell"):
        assert wanted in first, wanted
    # Kolkata is five and a half hours ahead of UTC the whole year.
    assert "UTC+05:30" in first
    assert f"page 1 of {1 + len(rest)}" in first
    assert "Technical record" in rest[0]


def test_a_certificate_keeps_the_letterhead_it_was_signed_with(client: BenchClient, lead: BenchClient) -> None:
    lead.put("/api/letterhead", json=HEAD)
    view = signed(client)
    before = client.get(f"/api/jobs/{view['job']['id']}/certificate.pdf").content
    lead.put("/api/letterhead", json={**HEAD, "name": "Another Shop"})
    assert client.get(f"/api/jobs/{view['job']['id']}/certificate.pdf").content == before
    assert client.get(f"/api/jobs/{view['job']['id']}/seal").json()["holds"]


def test_a_draft_gives_the_same_bytes_too_while_nothing_is_recorded(client: BenchClient) -> None:
    job = walk.open_new(client, "needle-scaler")
    before = client.get(f"/api/jobs/{job}/certificate.pdf").content
    ServerClock.forward(3600)
    assert client.get(f"/api/jobs/{job}/certificate.pdf").content == before


def test_what_the_letterhead_lacks_is_asked_for_before_the_signature(client: BenchClient, lead: BenchClient) -> None:
    lead.put("/api/letterhead", json={"name": "Lock Gate Workshop"})
    job = walk.open_new(client, "needle-scaler")
    assert client.get(f"/api/jobs/{job}").json()["signing"]["letterhead_missing"] == ["address", "contact"]


@pytest.mark.parametrize(
    ("change", "field"),
    [({"zone": "Nowhere"}, "zone"), ({"address": ["x"] * 13}, "address"), ({"site": "ftp://x"}, "site"), ({"logo": "x"}, "logo")],
)  # fmt: skip
def test_a_letterhead_that_is_none_is_refused_by_field(
    client: BenchClient, lead: BenchClient, change: dict[str, Any], field: str
) -> None:
    answer = lead.put("/api/letterhead", json={**HEAD, **change})
    assert answer.status_code == 422
    assert [error["field"] for error in answer.json()["errors"]] == [field]
    assert client.put("/api/letterhead", json=HEAD).status_code == 403


def test_anybody_can_ask_whether_a_certificate_stands(client: BenchClient, app: FastAPI) -> None:
    view = signed(client)
    number, record, nobody = view["job"]["number"], view["head"], BenchClient(app)

    def check(of: int, as_printed: str) -> dict[str, Any]:
        return cast("dict[str, Any]", nobody.get(f"/api/certificates/{of}", params={"record": as_printed}).json())

    found = check(number, record[:16])
    assert (found["state"], found["signed_by"]) == ("stands", "Tamsin Orrell")
    assert check(number + 1, record[:16])["state"] == "unknown"
    assert check(number, "0" * 16)["state"] == "unknown"
    # The hash of an entry that signed nothing is no certificate.
    first = client.get(f"/api/jobs/{view['job']['id']}/log").json()[0]
    assert check(number, first["hash"][:16])["state"] == "unknown"
    assert nobody.get(f"/api/certificates/{number}", params={"record": "%"}).status_code == 422
    walk.send(client, view["job"]["id"], {"kind": "reopened", "reason": "needles were short"}, who="tamsin")
    assert check(number, record[:16])["state"] == "reopened"


def test_the_customers_report_is_a_message_with_both_attached(client: BenchClient, lead: BenchClient) -> None:
    lead.put("/api/letterhead", json=HEAD)
    view = signed(client)
    answer = client.get(f"/api/jobs/{view['job']['id']}/report.eml")
    message = message_from_bytes(answer.content, policy=default)
    assert isinstance(message, EmailMessage)
    assert "FN-7788" in message["Subject"]
    attached = {part.get_filename(): part for part in message.iter_attachments()}
    number = view["job"]["number"]
    certificate = client.get(f"/api/jobs/{view['job']['id']}/certificate.pdf").content
    assert attached[f"certificate-{number}.pdf"].get_payload(decode=True) == certificate
    data = client.get(f"/api/jobs/{view['job']['id']}/report.json").json()
    assert data["signed_by"] == "Tamsin Orrell"
    assert data["statement"] == view["statement"][0]
    body = message.get_body()
    assert body is not None
    assert data["statement"] in body.get_content()

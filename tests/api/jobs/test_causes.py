"""What failed, in a job's answer, beside earlier jobs on the same unit, and on the certificate."""

from __future__ import annotations

import io

from pypdf import PdfReader

from tests import walk
from tests.people import BenchClient

SIGNS = {
    "find:rod-lip": {"signs": ["scored_along", "dirt_embedded"]},
    "cause:rod-lip": {"cause": "dirt", "corrections": ["flush"]},
}


def certificate(client: BenchClient, job: str) -> str:
    content = client.get(f"/api/jobs/{job}/certificate.pdf").content
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages).split())


def test_a_cause_stands_on_job_and_certificate_in_a_customers_words(client: BenchClient) -> None:
    job = walk.numbered(client, "FN-0417")
    view = walk.walk(client, job, found=SIGNS)
    assert view["causes"] == ["rod lip seal: dirt in the fluid or from outside"]
    text = certificate(client, job)
    assert "Cause, rod lip seal: Dirt had got between seal and surface." in text
    assert "Corrected: Flush the unit and its lines, change the filter" in text


def test_the_pattern_over_earlier_jobs_on_the_same_unit_is_told(client: BenchClient) -> None:
    first = walk.open_new(client, "swing-bridge-ram", serial="FN-7001")
    walk.walk(client, first, found=SIGNS)
    other = walk.open_new(client, "swing-bridge-ram", serial="FN-7002")
    second = walk.open_new(client, "swing-bridge-ram", serial="FN-7001", complaint="Leaks again")
    (earlier,) = client.get(f"/api/jobs/{second}").json()["earlier"]
    assert earlier["causes"] == ["rod lip seal: dirt in the fluid or from outside"]
    assert (earlier["released"], earlier["again"]) == (True, False)
    view = walk.walk(client, second, found=SIGNS, until="correct:rod-lip:flush")
    assert view["earlier"][0]["again"] is True
    # Another unit, and an earlier job, know nothing of it.
    assert client.get(f"/api/jobs/{other}").json()["earlier"] == []
    assert client.get(f"/api/jobs/{first}").json()["earlier"] == []

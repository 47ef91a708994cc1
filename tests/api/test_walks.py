"""Demo sheets from intake to release over the API, by the one walker."""

from __future__ import annotations

import io

import pytest
from pypdf import PdfReader

from tests import walk
from tests.people import BenchClient

# Each with something the others lack; every sheet is walked in core, and to its last act in test_acts.
SHEETS = (
    "header-tank-valve", "swing-bridge-ram", "jetting-pump-box", "escape-set-regulator",
)  # fmt: skip
# The float valve comes to release in 25 actions, the latch ram in 90, intake among them.
MOST = {"header-tank-valve": 25, "swing-bridge-ram": 90, "jetting-pump-box": 100}
# Whose soak nobody may cut: the lead of the walk did, and that stands on the certificate.
CUT = {"jetting-pump-box"}


@pytest.mark.parametrize("sheet", SHEETS)
def test_a_sheet_is_worked_from_intake_to_release(client: BenchClient, sheet: str) -> None:
    job = walk.open_new(client, sheet)
    view = walk.walk_by_api(client, job)
    assert view["job"]["released"] is True
    assert view["job"]["entry_count"] <= MOST.get(sheet, 90)
    assert {task["status"] for task in view["tasks"]} == {"done"}
    # The walker waits for nothing; where the sheet lets its timers be cut, that is no deviation.
    ending = ". See the remarks." if sheet in CUT else ", and fit for service."
    assert view["statement"][0] == f"Repaired as recorded, and tested{ending}"
    by_number = client.get(f"/api/jobs/{view['job']['number']}").json()
    assert by_number["tasks"] == view["tasks"]
    seal = client.get(f"/api/jobs/{job}/seal").json()
    assert seal["holds"], seal
    pages = PdfReader(io.BytesIO(client.get(f"/api/jobs/{job}/certificate.pdf").content)).pages
    text = "\n".join(page.extract_text() for page in pages)
    assert "Released and signed by Tamsin Orrell" in text
    assert "NOT RELEASED" not in text

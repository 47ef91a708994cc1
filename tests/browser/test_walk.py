"""One leaking ram from intake to a signed certificate, on the real screens."""

from __future__ import annotations

import io
import re
from collections.abc import Callable

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser import steps

CSV = "t_s;pressure_bar;temperature_c\n" + "".join(
    f"{10 * i};{180 - 0.05 * i:.2f};24,0\n".replace(".", ",") for i in range(30)
)


def test_leaking_ram_from_intake_to_certificate(bench: Page, shot: Callable[[str], None]) -> None:
    page = bench
    shot("bench")
    steps.open_waiting_job(page)
    shot("make-safe")
    steps.make_safe(page)
    steps.go_on(page, "Strip-down")
    steps.strip(page, shot)
    steps.go_on(page, "Match")
    steps.match(page, shot)
    steps.go_on(page, "Kit check")
    steps.count_kit(page, shot)
    steps.go_on(page, "Rebuild")
    steps.rebuild(page, shot)
    steps.go_on(page, "Tighten")
    steps.tighten(page, shot)
    steps.go_on(page, "Test")
    steps.run_test_typed(page, "Hold on the rod side", 0.1)
    expect(page.get_by_text("Pass", exact=True)).to_be_visible()
    shot("test")
    steps.close_run(page, "Hold on the rod side")
    page.get_by_role("button", name=re.compile("^Hold on the cap side")).click()
    page.get_by_label("Gauge", exact=True).select_option("g1-digital")
    page.get_by_role("button", name="From a CSV file").click()
    page.get_by_label("CSV file").set_input_files({"name": "hold.csv", "mimeType": "text/csv", "buffer": CSV.encode()})
    expect(page.get_by_text("30 readings with Digital gauge")).to_be_visible()
    steps.close_run(page, "Hold on the cap side")
    page.get_by_label("Leak at the rod").fill("0")
    page.get_by_label("Leak at the rod").press("Enter")
    steps.go_on(page, "Release")

    expect(page.get_by_role("button", name="Sign and release")).to_be_disabled()
    expect(page.get_by_text("Bede Harrowgate is not one")).to_be_visible()
    page.get_by_label("Who is at the bench").select_option("tamsin")
    page.get_by_label("Next service").fill("in 12 months")
    page.get_by_role("button", name="Sign and release").click()
    expect(page.get_by_role("heading", name="Released by Tamsin Orrell")).to_be_visible()
    shot("release")

    href = page.get_by_role("main").get_by_role("link", name="Certificate").get_attribute("href")
    content = page.request.get(page.url.split("/jobs")[0] + (href or "")).body()
    text = "\n".join(part.extract_text() for part in PdfReader(io.BytesIO(content)).pages)
    for wanted in (
        "AS568 224",
        "found reversed",
        "202 N·m",
        "PASS",
        "Released and signed by Tamsin Orrell",
        "in 12 months",
    ):
        assert wanted in text
    page.goto(page.url.replace("/release", "/safe"))
    page.get_by_label("Drift under load").fill("3")
    page.get_by_label("Drift under load").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("released and takes no entry")

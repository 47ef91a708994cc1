"""Screens by keyboard, for accessibility, on the tablet, and with bad input."""

from __future__ import annotations

import re
from collections.abc import Callable

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser import steps
from tests.browser.conftest import AT_REST

STAGES = ("intake", "safe", "strip", "match", "kit", "rebuild", "tighten", "test", "release")
DESKS = (
    "", "/jobs/new", "/workshop", "/workshop/rules", "/rings", "/rings/chart", "/rings/practice", "/grooves",
    "/grooves/new", "/seals", "/seals/packing", "/seals/press-fit", "/seals/stock", "/compounds",
)  # fmt: skip
# These hold between them every colour there is: verdicts, drawings, cautions, tables, pressed and plain buttons.
SHOW_ALL_COLOURS = (
    "/strip",
    "/kit",
    "/tighten",
    "/test",
    "/grooves",
    "/compounds",
    "/rings/practice",
    "/workshop/rules",
)
SIZES = ({"width": 1280, "height": 800}, {"width": 800, "height": 1280})
BAD_CSV = "t_s,pressure_bar\n0,180\n10,\n5,179\n"


def test_no_screen_has_an_accessibility_fault(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    job = page.url.removesuffix("/safe")
    root = job.split("/jobs")[0]
    axe = Axe()
    for address in (*(f"{root}{desk}" for desk in DESKS), *(f"{job}/{stage}" for stage in STAGES)):
        page.goto(address)
        page.wait_for_load_state("networkidle")
        # What is not a matter of colour is the same in both themes, and so are the colours of most screens.
        themes = [("kettle-night", {}), ("kettle-day", {"runOnly": ["color-contrast"]})]
        for theme, rules in themes if address.endswith(SHOW_ALL_COLOURS) else themes[:1]:
            page.evaluate("theme => (document.documentElement.dataset.theme = theme)", theme)
            page.wait_for_function(AT_REST)
            found = axe.run(page, options=rules)
            assert found.violations_count == 0, f"{address}, {theme}: {found.generate_report()}"


SMALL_TARGETS = """() => [...document.querySelectorAll('a.btn, button, select, input:not([type=checkbox])')]
    .filter(e => e.offsetParent && e.offsetHeight < 43.5).map(e => e.outerHTML.slice(0, 80))"""


def fits(page: Page, size: dict[str, int], address: str) -> None:
    """Nothing runs over the width, and every target can be hit with a glove."""
    page.set_viewport_size(size)  # type: ignore[arg-type]
    assert page.evaluate("document.documentElement.scrollWidth") <= size["width"], (address, size)
    assert page.evaluate(SMALL_TARGETS) == [], (address, size)


def test_every_stage_fits_the_screen(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    job = page.url.removesuffix("/safe")
    for stage in STAGES:
        page.goto(f"{job}/{stage}")
        page.wait_for_load_state("networkidle")
        for size in SIZES:
            fits(page, size, stage)
            expect(page.get_by_role("status").filter(has_text=re.compile("to do|done")).last).to_be_in_viewport()


def test_every_desk_fits_the_screen(bench: Page) -> None:
    page = bench
    root = page.url.rstrip("/")
    for address in DESKS:
        page.goto(root + address)
        page.wait_for_load_state("networkidle")
        for size in SIZES:
            fits(page, size, address)


def test_the_first_stage_by_keyboard_alone(bench: Page) -> None:
    page = bench
    link = page.get_by_role("link", name=re.compile("Swing bridge latch ram, east"))
    link.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Make it safe")).to_be_visible()
    seen = set()
    for _ in range(40):
        page.keyboard.press("Tab")
        seen.add(
            page.evaluate(
                "document.activeElement.getAttribute('aria-label') || document.activeElement.textContent.trim()"
            )
        )
        if any("Done: Isolate" in name for name in seen):
            break
    assert any("Piston in the bore" in name for name in seen), "the drawing is reached on the way"
    page.keyboard.press("Enter")
    expect(page.get_by_role("listitem").filter(has_text="Isolate the supply").filter(has_text="Bede")).to_be_visible()


def test_a_new_job_is_taken_in_and_bad_entries_are_told_at_the_field(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name="New job").click()
    page.get_by_role("button", name=re.compile("Swing bridge latch ram")).click()
    page.get_by_label("Serial number").fill("FN-0502")
    page.get_by_label("Customer").fill("Fennimoor Navigation, bridges")
    page.get_by_label("Complaint").fill("Creeps back under load")
    steps.field(page, "Working pressure").fill("300 bar")
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_text("300 bar is above the rating of this unit (fits: up to 180 bar)").first).to_be_visible()
    steps.field(page, "Working pressure").fill("2500")
    page.get_by_role("button", name="Unit of Working pressure: bar. Change").click()
    expect(page.get_by_text("= 2500 psi (172.4 bar)")).to_be_visible()
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_role("heading", name="Make it safe")).to_be_visible()
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_text("serial FN-0502")).to_be_visible()


def test_nonsense_in_a_field_is_told_as_it_is_typed(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    page.goto(page.url.replace("/safe", "/match"))
    for text, words in (
        ("44 bar", "a length is wanted"),
        ("3,000", "can be read two ways"),
        ("-4 mm", "outside the range"),
    ):
        steps.field(page, "Inside diameter").fill(text)
        steps.field(page, "Section").fill("3.5")
        expect(page.get_by_text(words).first).to_be_visible()


def test_a_csv_with_holes_is_refused_by_line_and_nothing_is_stored(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    page.goto(page.url.replace("/safe", "/test"))
    page.get_by_label("Gauge", exact=True).select_option("g1-digital")
    page.get_by_role("button", name="From a CSV file").click()
    page.get_by_label("CSV file").set_input_files(
        {"name": "bad.csv", "mimeType": "text/csv", "buffer": BAD_CSV.encode()}
    )
    expect(page.get_by_text("[csv.line 3.pressure]")).to_be_visible()
    expect(page.get_by_text("time 5 s does not come after")).to_be_visible()
    expect(page.get_by_text("0 readings with Digital gauge")).to_be_visible()


def test_a_sheet_with_an_unknown_zone_is_refused_with_its_path(bench: Page, shot: Callable[[str], None]) -> None:
    page = bench
    page.get_by_role("link", name="Workshop").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="Export").click()
    text = (
        download.value.path().read_text(encoding="utf-8").replace("- rod_side\n  - outside", "- moon\n  - outside", 1)
    )
    bad = text.replace("key: swing-bridge-ram", "key: other-ram", 1)
    page.get_by_label("Import a sheet").set_input_files(
        {"name": "bad.yaml", "mimeType": "application/yaml", "buffer": bad.encode()}
    )
    expect(page.get_by_text("“moon” is not a zone of this sheet")).to_be_visible()
    good = bad.replace("moon", "rod_side")
    page.get_by_label("Import a sheet").set_input_files(
        {"name": "good.yaml", "mimeType": "application/yaml", "buffer": good.encode()}
    )
    expect(page.get_by_text("Swing bridge latch ram, version 1, is in.")).to_be_visible()
    shot("workshop")


def test_people_are_added_and_then_may_work(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name="Workshop").click()
    page.get_by_text("Add a person").click()
    page.get_by_label("Name", exact=True).first.fill("Osric Penhallow")
    page.get_by_label("Role").fill("technician")
    page.get_by_label("May sign authorised releases").select_option("no")
    page.get_by_role("button", name="Add the person").click()
    page.get_by_label("Who is at the bench").select_option("osric-penhallow")
    steps_link = page.get_by_role("link", name="Bench")
    steps_link.click()
    expect(page.get_by_role("heading", name="On the bench")).to_be_visible()

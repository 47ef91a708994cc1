"""Screens by keyboard, for accessibility, on the tablet, and with bad input."""

from __future__ import annotations

import copy
import re
from typing import Any

import yaml
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser import steps
from tests.browser.conftest import AT_REST, Server, sign_in_quietly

# A unit of the demo at each kind of move: found, ordered, done, looked at, measured, counted, fitted, tightened, tested, signed.
MOVES = (
    "find:rod-lip", "measure:rod", "identify:gland-ring", "count:FN-K-5028", "fit:rod-lip", "tighten:port-flange:0:1",
    "test:rod-side-hold:as_left", "sign",
)  # fmt: skip
# Set to a figure, ticked one by one, told in figures: at the units that have them.
OTHERS = (
    ("set:opening", "FN-5203"), ("test:opening-test:as_left", "FN-5203"), ("tighten:cover-bolts:1:1", "FN-4104"),
    ("set:effort-set", "FN-6107"),
)  # fmt: skip
DESKS = (
    "", "/jobs/new", "/workshop", "/workshop/people", "/workshop/rules", "/rings", "/rings/chart", "/rings/practice", "/grooves",
    "/grooves/new", "/seals", "/seals/packing", "/seals/press-fit", "/seals/failures", "/compounds", "/workshop/stock", "/workshop/orders",
    "/due", "/units", "/workshop/tools", "/calculators", "/calculators/torque", "/stand", "/stand/map",
)  # fmt: skip
# These hold between them every colour there is: verdicts, drawings, cautions, tables, pressed and plain buttons.
SHOW_ALL_COLOURS = (
    "/grooves",
    "/compounds",
    "/rings/practice",
    "/workshop/rules",
)
SIZES = ({"width": 1280, "height": 800}, {"width": 800, "height": 1280})
# The least that nothing may run over.
NARROW = {"width": 320, "height": 640}
BAD_CSV = "t_s,pressure_bar\n0,180\n10,\n5,179\n"


def no_fault(page: Page, axe: Axe, where: str, *, both: bool) -> None:
    # What is not a matter of colour is the same in both themes, and so are the colours of most screens.
    themes: list[tuple[str, dict[str, Any]]] = [
        ("kettle-night", {}),
        ("kettle-day", {"runOnly": ["color-contrast"]}),
    ]
    for theme, rules in themes if both else themes[:1]:
        page.evaluate("theme => (document.documentElement.dataset.theme = theme)", theme)
        page.evaluate(AT_REST)
        found = axe.run(page, options=rules)
        assert found.violations_count == 0, f"{where}, {theme}: {found.generate_report()}"


def to_desk(page: Page, root: str, desk: str) -> None:
    """Opens a desk and waits until it stands; the stand is told as it comes and never rests."""
    page.goto(root + desk)
    if desk == "/stand":
        expect(page.get_by_label("What the channels show")).to_be_visible()
    else:
        page.wait_for_load_state("networkidle")


def test_no_desk_has_an_accessibility_fault_and_each_fits_the_screen(bench: Page) -> None:
    page, axe = bench, Axe()
    root = steps.root_of(page)
    for desk in DESKS:
        to_desk(page, root, desk)
        no_fault(page, axe, desk, both=desk.endswith(SHOW_ALL_COLOURS))
        for size in (*SIZES, NARROW):
            fits(page, size, desk)
        page.set_viewport_size(SIZES[0])  # type: ignore[arg-type]


def test_no_task_has_an_accessibility_fault_and_each_fits_the_screen_with_its_action_in_view(bench: Page) -> None:
    page, axe = bench, Axe()
    for key in MOVES:
        steps.to_task(page, key)
        page.wait_for_load_state("networkidle")
        no_fault(page, axe, key, both=True)
        for size in SIZES:
            fits(page, size, key)
            if key == "identify:gland-ring":
                # The readings are typed first; the sizes come beside them.
                expect(steps.field(page, "Section")).to_be_in_viewport()
            elif key == "sign" or key.startswith("test:"):
                expect(steps.hand(page).locator("button.btn-primary").first).to_be_in_viewport(ratio=0.95)
            elif steps.hand(page).locator("[data-tap-records]").count():
                # Its answers are its buttons.
                expect(steps.hand(page).get_by_role("radio").last).to_be_in_viewport(ratio=0.95)
            else:
                expect(steps.main_button(steps.hand(page))).to_be_in_viewport(ratio=0.95)
        page.set_viewport_size(SIZES[0])  # type: ignore[arg-type]


def test_settings_and_tests_in_figures_have_no_accessibility_fault_and_fit(bench: Page) -> None:
    page, axe = bench, Axe()
    for key, serial in OTHERS:
        steps.to_task(page, key, serial)
        page.wait_for_load_state("networkidle")
        no_fault(page, axe, key, both=True)
        for size in (*SIZES, NARROW):
            fits(page, size, key)
        page.set_viewport_size(SIZES[0])  # type: ignore[arg-type]


SMALL_TARGETS = """() => [...document.querySelectorAll('a.btn, button, select, input:not([type=checkbox]):not(.sr-only)')]
    .filter(e => e.offsetParent && e.offsetHeight < 43.5).map(e => e.outerHTML.slice(0, 80))"""


def fits(page: Page, size: dict[str, int], address: str) -> None:
    """Nothing runs over the width, and every target can be hit with a glove."""
    page.set_viewport_size(size)  # type: ignore[arg-type]
    assert page.evaluate("document.documentElement.scrollWidth") <= size["width"], (address, size)
    assert page.evaluate(SMALL_TARGETS) == [], (address, size)


def test_a_job_by_keyboard_alone_and_the_focus_goes_on_to_the_next_task(bench: Page) -> None:
    page = bench
    link = page.get_by_role("link", name=re.compile("Swing bridge latch ram, east"))
    link.focus()
    page.keyboard.press("Enter")
    expect(steps.hand(page)).to_have_attribute("data-task", "observe:rod-leak:as_found")
    page.get_by_role("textbox", name="Leak at the rod").focus()
    page.keyboard.type("12")
    page.keyboard.press("Enter")
    # Whatever was recorded, the hand stays on the keys: each next field has the focus.
    # The look takes ten minutes: it is begun, and closed when the server's clock has run them.
    expect(steps.hand(page).get_by_role("button", name="Begin: it takes 10 min")).to_be_focused()
    page.keyboard.press("Enter")
    drift = page.get_by_role("textbox", name="Drift under load")
    expect(drift).to_be_focused()
    page.keyboard.type("3")
    steps.set_clock(60)
    expect(steps.main_button(steps.hand(page))).to_be_enabled()
    page.keyboard.press("Enter")
    expect(steps.hand(page).get_by_role("alert")).to_contain_text("it takes 10 min on the server's clock")
    steps.set_clock(601)
    page.keyboard.press("Enter")
    # The question has the focus, none of its answers: a tired Enter says nothing, a digit picks.
    asked = page.get_by_role("group", name="It is seen in")
    expect(asked).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("radio", checked=True)).to_have_count(0)
    # A tap within a moment of the one before would not count.
    expect(page.get_by_role("radio").first).to_be_enabled()
    # The only question is answered: that is the record.
    page.keyboard.press("1")
    isolate = page.get_by_role("button", name=re.compile("^Done: Isolate the supply"))
    expect(isolate).to_be_focused()
    # No two tasks are taken within a moment.
    expect(isolate).not_to_have_attribute("aria-disabled", "true")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Done: Bleed both sides"))).to_be_focused()
    page.get_by_role("link", name="Skip to the current task").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#hand")).to_be_focused()


def test_a_bubble_of_the_drawing_is_large_enough_for_a_glove(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    bubbles = page.get_by_role("group", name=re.compile("^Section through")).get_by_role("button")
    expect(bubbles.first).to_be_visible()
    for bubble in bubbles.all():
        box = bubble.bounding_box()
        assert box is not None
        assert min(box["width"], box["height"]) >= 43.5, box
    # The place is shown large below the whole unit, by its number and by its name.
    bubbles.first.click()
    expect(page.get_by_role("group", name="Piston in the bore, enlarged")).to_be_visible()
    expect(page.get_by_role("group", name=re.compile("^Section through"))).to_be_visible()
    page.get_by_role("list", name="Places").get_by_role("button", name="Rod seal in the gland").click()
    expect(page.get_by_role("group", name="Rod seal in the gland, enlarged")).to_be_visible()


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
    expect(steps.hand(page)).to_be_visible()
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_role("listitem").filter(has_text="FN-0502")).to_be_visible()


def test_an_intake_is_kept_through_a_reload_and_says_what_is_known_of_a_serial(bench: Page, shot: steps.Shot) -> None:
    page = bench
    page.get_by_role("link", name="New job").click()
    page.get_by_label("Find by marking").fill("latch")
    expect(page.get_by_role("main").get_by_role("listitem")).to_have_count(1)
    page.get_by_label("Find by marking").press("Enter")
    # The list folds, and the first empty field has the cursor.
    expect(page.get_by_label("Find by marking")).to_be_hidden()
    expect(page.get_by_label("Serial number")).to_be_focused()
    expect(page.get_by_role("button", name="Open the job")).to_be_in_viewport()
    page.keyboard.type("fn-0416")
    expect(page.get_by_text(re.compile("^Job 1008 on serial FN-0416 is open: strip-down"))).to_be_visible()
    page.get_by_role("button", name="Fill in").click()
    expect(page.get_by_label("Customer")).to_have_value("Fennimoor Navigation, bridges")
    page.get_by_label("Complaint").fill("Oil at the rod")
    shot("intake")
    page.reload()
    expect(page.get_by_label("Complaint")).to_have_value("Oil at the rod")
    expect(page.get_by_label("Serial number")).to_have_value("FN-0416")
    page.get_by_role("link", name="Open it").click()
    expect(page.get_by_role("region", name="Job")).to_contain_text("job 1008")


def test_nonsense_in_a_field_is_told_as_it_is_typed(bench: Page) -> None:
    page = bench
    steps.to_task(page, "identify:gland-ring")
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
    steps.to_task(page, "test:rod-side-hold:as_left")
    steps.start_run(page, "From a CSV file")
    page.get_by_label("CSV file").set_input_files(
        {"name": "bad.csv", "mimeType": "text/csv", "buffer": BAD_CSV.encode()}
    )
    expect(page.get_by_role("alert")).to_contain_text("line 3, pressure: is empty")
    expect(page.get_by_text("time 5 s does not come after")).to_be_visible()
    expect(page.get_by_text("Readings with Digital gauge 250 bar: 0;")).to_be_visible()


def test_a_sheet_with_an_unknown_zone_is_refused_with_its_path(bench: Page, server: Server) -> None:
    page = bench
    page.get_by_role("link", name="Workshop").click()
    with page.expect_download() as download:
        page.get_by_role("listitem").filter(has_text="Swing bridge").get_by_role("link", name="Export").click()
    sheet = yaml.safe_load(download.value.path().read_text(encoding="utf-8"))
    sheet |= {"key": "other-ram", "version": 1}
    bad = copy.deepcopy(sheet)
    bad["stations"][0]["between"][0] = "moon"

    def give(document: object) -> None:
        content = yaml.safe_dump(document, allow_unicode=True).encode()
        page.get_by_label("Import a sheet").set_input_files(
            {"name": "sheet.yaml", "mimeType": "application/yaml", "buffer": content}
        )

    give(bad)
    expect(page.get_by_text("“moon” is not a zone of this sheet").first).to_be_visible()
    give(sheet)
    # A technician's sheet waits for somebody who may stand behind it.
    expect(page.get_by_text(f"{sheet['name']}, version 1, is a draft.")).to_be_visible()
    sign_in_quietly(page, server, "tamsin")
    page.reload()
    expect(page.get_by_role("heading", name="Sheets waiting for approval")).to_be_visible()
    # The lead's own is the shop's at once; the next version beside it, and what it changed.
    give(sheet | {"key": "lead-ram"})
    expect(page.get_by_text(f"{sheet['name']}, version 1: new jobs use it from now on.")).to_be_visible()
    give(sheet | {"key": "lead-ram", "version": 2, "name": "Ram of the lead"})
    expect(page.get_by_text("Ram of the lead, version 2: new jobs use it from now on.")).to_be_visible()
    line = page.get_by_role("listitem").filter(has_text="Ram of the lead")
    line.get_by_role("button", name=re.compile("^Changes")).click()
    page.get_by_label("What changed since").select_option("version 1")
    expect(page.get_by_text(f"name: {sheet['name']} → Ram of the lead")).to_be_visible()

"""What a technician does on the screen, stage by stage; used by the walk and by the tests of interruptions."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

Shot = Callable[[str], None]


def no_shot(_name: str) -> None:
    """Takes no picture."""


FACED = {
    "piston lip seal (cap side)": "cap side",
    "piston lip seal (rod side)": "rod side",
    "rod lip seal": "open air",
    "rod wiper": "open air",
}
PLAIN = ("piston wear band", "O-ring under the piston", "gland outer O-ring", "rod wear band")
FACES = FACED | {"rod lip seal": "rod side"}


def field(page: Page, name: str) -> Locator:
    """An entry field by its label."""
    return page.get_by_role("textbox", name=name, exact=True)


def stage_done(page: Page) -> None:
    expect(page.get_by_text("This stage is done.")).to_be_visible()


def go_on(page: Page, name: str) -> None:
    stage_done(page)
    page.get_by_role("link", name=name, exact=True).last.click()


def open_waiting_job(page: Page) -> None:
    page.get_by_role("link", name=re.compile("Swing bridge latch ram, east")).click()
    expect(page.get_by_role("heading", name="Make it safe")).to_be_visible()


def make_safe(page: Page) -> None:
    for words in ("Isolate", "Bleed", "Let the body cool"):
        page.get_by_role("button", name=re.compile(f"^Done: {words}")).click()
    page.get_by_label("Write down how much oil").fill("140 ml, grey")
    page.get_by_role("button", name=re.compile("^Done: Drain")).click()
    page.get_by_label("Leak at the rod").fill("12")
    page.get_by_label("Leak at the rod").press("Enter")
    expect(page.get_by_text("12 drops per minute")).to_be_visible()
    stage_done(page)


def strip(page: Page, shot: Shot = no_shot) -> None:
    page.get_by_role("button", name=re.compile("^Done: Lay the tools")).click()
    page.get_by_label("Write down where the marks").fill("punch marks at 12 o'clock, photo 3")
    for words in ("One mark", "Turn the gland", "Draw the rod", "Rod in soft jaws"):
        page.get_by_role("button", name=re.compile(f"^Done: {words}")).click()
    for name, zone in FACED.items():
        came_off = _element(page, name, "How the {} came off")
        came_off.get_by_role("button", name=re.compile(f"faced\\s+{zone}$")).click()
        expect(came_off.get_by_role("button", name=re.compile(f"faced\\s+{zone}$"))).to_have_attribute(
            "aria-pressed", "true"
        )
        if name == "rod lip seal":
            expect(page.get_by_text("Reversed: it must face rod side")).to_be_visible()
            shot("strip-down")
    for name in PLAIN:
        _element(page, name, "How the {} came off").get_by_role("button", name="There").click()
    _element(page, "gland backup ring", "How the {} came off").get_by_role("button", name="Missing").click()
    stage_done(page)


def _element(page: Page, name: str, label: str) -> Locator:
    """The buttons of an element; its place is chosen on the drawing first, as a finger would."""
    place = page.get_by_role("button", name=re.compile(rf"^\d\. .*{re.escape(name)}"))
    place.focus()
    place.press("Enter")
    return page.get_by_role("group", name=label.format(name), exact=True)


def match(page: Page, shot: Shot = no_shot) -> None:
    field(page, "Inside diameter").fill("44.1 mm")
    field(page, "Inside diameter").press("Enter")
    page.keyboard.type("3.5")
    first = page.get_by_role("listitem").filter(has_text="AS568 224").first
    expect(first).to_contain_text("fits the groove")
    expect(first).to_contain_text("squeeze")
    shot("match")
    first.get_by_role("button", name="Choose").click()
    expect(page.get_by_label("The reason is kept")).to_have_value(re.compile("Probability .* squeeze"))
    page.get_by_role("button", name="Put it into the job").click()
    stage_done(page)


def count_kit(page: Page, shot: Shot = no_shot) -> None:
    rows = page.get_by_role("main").get_by_role("listitem")
    for row in range(8):
        rows.nth(row).get_by_role("button", name="Counted").click()
        expect(rows.nth(row).get_by_text("1 counted")).to_be_visible()
    rows.nth(8).get_by_role("button", name="Use this one").click()
    rows.nth(9).get_by_role("button", name="Not used").click()
    stage_done(page)
    shot("kit-check")


def rebuild(page: Page, shot: Shot = no_shot) -> None:
    expect(page.get_by_text("rod lip seal was found reversed")).to_be_visible()
    lip = _element(page, "rod lip seal", "Which way the {} faces now")
    lip.get_by_role("button", name="open air").click()
    expect(page.get_by_text("reversed: open lips of the rod lip seal must face rod side")).to_be_visible()
    shot("rebuild")
    for name, zone in FACES.items():
        _element(page, name, "Which way the {} faces now").get_by_role("button", name=zone).click()
        expect(page.get_by_role("button", name=re.compile(rf"{re.escape(name)} fitted"))).to_be_attached()
    for name in (*PLAIN, "gland backup ring"):
        place = page.get_by_role("button", name=re.compile(rf"^\d\. .*{re.escape(name)}"))
        place.focus()
        place.press("Enter")
        row = page.get_by_role("listitem").filter(has_text=re.compile(rf"^\s*\d\. {re.escape(name)}"))
        row.get_by_role("button", name="New one fitted").click()
        expect(page.get_by_role("button", name=re.compile(rf"{re.escape(name)} fitted"))).to_be_attached()
    page.get_by_label("Write down how it moved").fill("even, no catch")
    for words in ("Everything clean", "Gland with its", "O-ring on the", "Rod in straight", "Wire in", "Move the rod"):
        page.get_by_role("button", name=re.compile(f"^Done: {words}")).click()
    stage_done(page)


def tighten(page: Page, shot: Shot = no_shot) -> None:
    page.get_by_role("button", name=re.compile("^Piston lock nut")).click()
    page.get_by_label("Wrench", exact=True).select_option("w3-large")
    expect(page.get_by_text("Set 202.5 N·m")).to_be_visible()
    field(page, "What the wrench read").fill("20 N·m")
    page.get_by_role("button", name="Record number 1").click()
    expect(page.get_by_text("cannot be trusted").or_(page.get_by_text("can be trusted with"))).to_be_visible()
    field(page, "What the wrench read").fill("202")
    field(page, "What the wrench read").press("Enter")
    page.get_by_role("button", name=re.compile("^Port flange")).click()
    page.get_by_label("Wrench", exact=True).select_option("w1-small")
    for reading in ("14", "23"):
        for number in (1, 3, 2, 4):
            expect(page.get_by_text(f"Number {number}", exact=True)).to_be_visible()
            field(page, "What the wrench read").fill(reading)
            field(page, "What the wrench read").press("Enter")
            if reading == "23" and number == 3:
                expect(page.get_by_text("Number 2", exact=True)).to_be_visible()
                shot("tighten")
    stage_done(page)


def run_test_typed(page: Page, name: str, drop_bar: float, readings: int = 8) -> None:
    page.get_by_role("button", name=re.compile(f"^{name}")).click()
    page.get_by_label("Gauge", exact=True).select_option("g1-digital")
    page.get_by_role("button", name=re.compile("readings typed|another run")).click()
    field(page, "Temperature").fill("24")
    for index in range(readings):
        field(page, "Time on hold").fill(str(60 * index))
        field(page, "Pressure").fill(f"{180 - drop_bar * index:.1f}")
        page.get_by_role("button", name="Record the reading").click()
        expect(page.get_by_text(f"{index + 1} readings with Digital gauge")).to_be_visible()


def close_run(page: Page, name: str) -> None:
    page.get_by_role("button", name="Close this run with this verdict").click()
    expect(page.get_by_role("button", name=re.compile(f"^{name}"))).to_contain_text("passed")

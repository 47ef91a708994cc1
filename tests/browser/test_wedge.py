"""Instruments that type: a caliper with and without the cursor in a field, a scanner on a question and over the main button."""

from __future__ import annotations

import time

from playwright.sync_api import Page, expect

from tests.browser import steps
from tests.browser.steps import hand
from tests.browser.test_fewer_taps import log_of
from tests.browser.test_service import label_of

# Its keys follow each other as fast as this, however busy the machine that runs the tests is. [s]
_APART = 0.008
_ENTER = {"key": "Enter", "code": "Enter", "windowsVirtualKeyCode": 13, "text": "\r"}


def send(page: Page, text: str) -> None:
    """What an instrument types: its keys in one burst, and Enter."""
    devtools, begun = page.context.new_cdp_session(page), time.time()
    for place, key in enumerate([*({"key": letter, "text": letter} for letter in text), _ENTER]):
        event = {**key, "timestamp": begun + place * _APART}
        devtools.send("Input.dispatchKeyEvent", {"type": "keyDown", **event})
        devtools.send("Input.dispatchKeyEvent", {"type": "keyUp", **event})
    devtools.detach()


def free_hand(page: Page) -> None:
    """Nothing has the cursor."""
    page.evaluate("document.activeElement?.blur()")


def test_readings_land_in_their_fields_wherever_the_cursor_is(bench: Page) -> None:
    page = bench
    steps.to_task(page, "measure:rod")
    boxes = hand(page).locator("form input[data-entry]:visible")
    expect(boxes.first).to_be_visible()
    before = log_of(page)
    free_hand(page)
    send(page, "0.03")
    expect(boxes.first).to_have_value("0.03")
    expect(boxes.nth(1)).to_be_focused()
    # Now the cursor is in the next field: what is typed there stays there, and a second reading takes its place.
    page.keyboard.type("0.07")
    expect(boxes.nth(1)).to_have_value("0.07")
    assert log_of(page) == before


def test_what_a_scanner_types_presses_no_button_and_answers_nothing(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    before = log_of(page)
    main = steps.main_button(hand(page))
    main.focus()
    send(page, "https://kettle.example/u/K7QF-3ZTM24")
    expect(page.get_by_role("dialog")).to_have_count(0)
    main.focus()
    send(page, "27.95")
    expect(hand(page)).to_have_attribute("data-task", "step:isolate")
    assert log_of(page) == before
    # A hand's own Enter does.
    main.focus()
    page.keyboard.press("Enter")
    expect(hand(page)).to_have_attribute("data-task", "step:bleed")


def test_a_wrench_that_types_fills_its_readings_in_turn(bench: Page) -> None:
    page = bench
    steps.to_task(page, "tighten:port-flange:0:1")
    card = hand(page)
    card.get_by_role("radiogroup", name="Wrench").get_by_role("radio").first.click()
    card.get_by_role("button", name="Type readings instead").click()
    readings = card.locator("[data-readings] [data-entry]")
    expect(readings.first).to_be_visible()
    free_hand(page)
    send(page, "5.1")
    expect(readings.first).to_have_value("5.1")
    expect(readings.nth(1)).to_be_focused()
    send(page, "5.2 N·m")
    expect(readings.nth(1)).to_have_value("5.2 N·m")
    expect(readings.nth(2)).to_be_focused()


def test_a_scanner_on_the_bench_opens_the_unit_of_a_label_and_looks_for_a_serial(bench: Page) -> None:
    page, label = bench, label_of(bench, "FN-5203")
    free_hand(page)
    send(page, f"{steps.root_of(page)}/u/{label}")
    expect(page.get_by_role("heading", name="Fuel injector of the dredger, cylinder 3")).to_be_visible()
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_role("heading", name="On the bench")).to_be_visible()
    free_hand(page)
    send(page, "FN-5203")
    expect(page.get_by_role("list", name="Units").get_by_role("listitem")).to_contain_text("FN-5203")

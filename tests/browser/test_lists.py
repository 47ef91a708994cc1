"""The lists of the shop: found by words, narrowed by chips, opened by Enter, changed in place."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser import steps


def test_a_unit_is_found_by_its_serial_and_opened_by_enter(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name="Units", exact=True).click()
    page.get_by_role("link", name="All units").click()
    words = page.get_by_label("Find a unit")
    expect(words).to_be_focused()
    listed = page.get_by_role("list", name="Units").get_by_role("listitem")
    words.fill("no such thing")
    expect(page.get_by_text("No unit matches.")).to_be_visible()
    words.fill("fn5203")
    expect(listed).to_have_count(1)
    expect(listed).to_contain_text("Fennimoor Navigation, dredger")
    words.press("Enter")
    expect(page.get_by_role("heading", name="Fuel injector of the dredger, cylinder 3")).to_be_visible()


def test_a_build_sheet_is_found_compared_and_withdrawn_in_its_line(bench: Page) -> None:
    page = bench
    steps.change_person(page, "Tamsin Orrell", "tamsin")
    page.goto(f"{steps.root_of(page)}/workshop")
    listed = page.get_by_role("list", name="Build sheets").get_by_role("listitem")
    page.get_by_label("Find a build sheet").fill("needle")
    expect(listed).to_have_count(1)
    listed.get_by_role("button", name=re.compile("^Withdraw ?: Needle scaler")).click()
    listed.get_by_label("Reason for withdrawing it").fill("drawn anew")
    listed.get_by_role("button", name="Withdraw sheet").click()
    expect(listed).to_contain_text("withdrawn")
    listed.get_by_role("button", name="Put back").click()
    expect(listed).not_to_contain_text("withdrawn")


def test_a_tool_is_calibrated_in_its_line_and_counted_by_its_chips(bench: Page) -> None:
    page = bench
    steps.change_person(page, "Tamsin Orrell", "tamsin")
    page.goto(f"{steps.root_of(page)}/workshop/tools")
    which = page.get_by_role("group", name="Which tools")
    listed = page.get_by_role("list", name="Tools").get_by_role("listitem")
    # What is counted is there.
    expect(listed.first).to_be_visible()
    which.get_by_role("button", name="Gauges").click()
    expect(listed).to_have_count(int(which.get_by_role("button", name="Gauges").locator("span").inner_text()))
    which.get_by_role("button", name="All", exact=False).click()
    page.get_by_label("Find a tool").fill("Digital gauge 250")
    expect(listed).to_have_count(1)
    listed.get_by_role("button", name="Edit Digital gauge 250 bar").click()
    listed.get_by_label("Calibration certificate").fill("CAL-9901")
    listed.get_by_label("Calibrated until").fill("2020-01-01")
    listed.get_by_role("button", name="Add the calibration").click()
    expect(listed).to_contain_text(re.compile("CAL-9901, ended on 1 Jan 2020"))


def test_stock_and_orders_are_narrowed_by_chips(bench: Page) -> None:
    page = bench
    page.goto(f"{steps.root_of(page)}/workshop/stock")
    which = page.get_by_role("group", name="Which items")
    listed = page.get_by_role("list", name="Stock").get_by_role("listitem")
    expect(listed.first).to_be_visible()
    low = int(which.get_by_role("button", name="Low").locator("span").inner_text())
    which.get_by_role("button", name="Low").click()
    expect(listed).to_have_count(low)
    for line in listed.all():
        expect(line).to_contain_text("below")
    page.goto(f"{steps.root_of(page)}/workshop/orders")
    which = page.get_by_role("group", name="Which orders")
    expect(page.get_by_role("list", name="Jobs wait for")).to_be_visible()
    wanted = int(which.get_by_role("button", name="To order").locator("span").inner_text())
    which.get_by_role("button", name="To order").click()
    expect(page.get_by_role("list", name="Jobs wait for").get_by_role("listitem")).to_have_count(wanted)
    page.get_by_label("Find on the order list").fill("no such part")
    expect(page.get_by_text("Nothing matches.")).to_be_visible()

"""Looking after tools and units on the screens: a scanned label, a quick service in few actions, counters, what is due."""

from __future__ import annotations

import re
from typing import Any

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser import steps
from tests.browser.steps import Shot, field, hand
from tests.browser.test_screens import SIZES, fits, no_fault
from tests.people import PINS

MOST_ACTIONS = 15
SCALER = ["step:air-off", "step:nose-off", "measure:barrel", "measure:anvil", "measure:nose", "measure:needles",
          "step:oil", "step:run", "test:strikes:as_left", "dispose", "sign"]  # fmt: skip

DUE = ("All", "Overdue", "Coming", "No reading")


def label_of(page: Page, serial: str) -> str:
    root = steps.root_of(page)
    found: Any = page.context.request.get(f"{root}/api/units?q={serial}").json()
    return str(found["units"][0]["label"])


def scan(page: Page, text: str) -> None:
    page.get_by_role("link", name="Units", exact=True).click()
    # A reader types the link of the code, and Enter.
    page.get_by_label("Scan a label").fill(text)
    page.keyboard.press("Enter")


def in_hand(page: Page, key: str) -> None:
    expect(hand(page)).to_have_attribute("data-task", key)


def test_a_quick_service_by_keys_takes_no_more_than_fifteen_actions(bench: Page, shot: Shot) -> None:
    page = bench
    scan(page, f"{steps.root_of(page)}/u/{label_of(page, 'FN-9019')}")
    begin = page.get_by_role("button", name="Start: oil")
    expect(begin).to_be_focused()
    shot("unit")
    actions = 0

    def act(text: str = "") -> None:
        nonlocal actions
        if text:
            page.keyboard.type(text)
        # A tap within the time of the one before would not count.
        expect(page.locator("[data-task] button[aria-disabled]")).to_have_count(0)
        page.keyboard.press("Enter")
        actions += 1

    act()
    for key in SCALER:
        in_hand(page, key)
        if key == "test:strikes:as_left":
            # Begun by the step that runs it, it lasts five seconds.
            expect(hand(page).get_by_text("The 5 s have run.")).to_be_visible()
        if key == "measure:needles":
            expect(field(page, "Needles broken, bent or missing, of 19")).to_be_focused()
            act("1")
            expect(field(page, "Length of the shortest needle")).to_be_focused()
            act("142")
        elif key == "sign":
            pin = page.get_by_label("PIN or password", exact=True)
            expect(pin).to_be_focused()
            act(PINS["bede"])
        else:
            expect(page.locator("[data-task] button.btn-primary").last).to_be_focused()
            act()
    expect(page.get_by_text("Serviced as recorded: oil, due every 6 h, and fit for service.")).to_be_visible()
    assert actions <= MOST_ACTIONS, actions


def test_a_quick_service_by_touch_takes_no_more_taps_and_every_target_is_large(bench: Page) -> None:
    page = bench
    page.set_viewport_size({"width": 800, "height": 1280})
    page.goto(f"{steps.root_of(page)}/u/{label_of(page, 'FN-9021')}")
    taps = 0

    def tap(button: Any) -> None:
        nonlocal taps
        box = button.bounding_box()
        assert box["height"] >= 44, box
        button.click()
        taps += 1

    tap(page.get_by_role("button", name="Start: oil"))
    for key in SCALER:
        in_hand(page, key)
        if key == "test:strikes:as_left":
            expect(hand(page).get_by_text("The 5 s have run.")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= 800
        if key == "measure:needles":
            field(page, "Needles broken, bent or missing, of 19").fill("0")
            field(page, "Length of the shortest needle").fill("150")
        main = hand(page).locator("button.btn-primary").last
        # Without scrolling.
        assert main.bounding_box()["y"] < 1280 - 44  # type: ignore[index]
        tap(main)
        if key == "sign":
            page.get_by_label("Your PIN").fill(PINS["bede"])
            page.keyboard.press("Enter")
            taps += 1
    expect(page.get_by_text("Serviced as recorded")).to_be_visible()
    assert taps <= MOST_ACTIONS


def test_a_quick_service_takes_along_what_the_counter_stands_at(bench: Page) -> None:
    page = bench
    scan(page, label_of(page, "FN-9021"))
    page.get_by_label("Counter [h]").fill("1,250")
    page.get_by_role("button", name="Start: oil").click()
    expect(page.get_by_text("may be 1250 or 1.250").first).to_be_visible()
    page.get_by_label("Counter [h]").fill("12,5")
    page.get_by_role("button", name="Start: oil").click()
    in_hand(page, "step:air-off")
    page.get_by_role("link", name="FN-9021").click()
    expect(page.get_by_text("was 12.5 h")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Continue job"))).to_be_visible()


def test_needles_worn_out_make_a_full_job_at_one_tap(bench: Page) -> None:
    page = bench
    scan(page, label_of(page, "FN-9020").lower())
    page.get_by_role("button", name=re.compile("Continue job")).click()
    banner = page.get_by_role("region", name="Quick service")
    expect(banner).to_contain_text("To be replaced: Needles.")
    in_hand(page, "step:oil")
    banner.get_by_role("button", name="Make it a full job").click()
    expect(banner).to_be_hidden()
    # What was done stays done; what the whole sheet asks comes now.
    in_hand(page, "leak")
    expect(page.get_by_role("navigation", name="Stages")).to_contain_text("as found", ignore_case=True)


def test_a_label_mistyped_or_of_another_shop_is_told(bench: Page) -> None:
    page = bench
    label = label_of(page, "FN-9019")
    last = "2" if label[-1] != "2" else "3"
    scan(page, label[:-1] + last)
    expect(page.get_by_role("alert")).to_contain_text("is mistyped: one letter is wrong")
    scan(page, "https://elsewhere.example/u/12345")
    expect(page.get_by_role("alert")).to_contain_text("is no code of this shop")
    expect(page.get_by_label("Scan a label")).to_have_value("https://elsewhere.example/u/12345")


def test_a_counter_that_runs_backwards_asks_why(bench: Page) -> None:
    page = bench
    scan(page, label_of(page, "FN-6680"))
    counter = page.get_by_label("Counter [cycles]")
    expect(page.get_by_text("was 19,400 cycles")).to_be_visible()
    counter.fill("1,250")
    page.get_by_role("button", name="Enter reading").click()
    expect(page.get_by_role("alert")).to_contain_text("“1,250” may be 1250 or 1.250")
    counter.fill("1250")
    page.get_by_role("button", name="Enter reading").click()
    expect(page.get_by_role("alert")).to_contain_text("a counter does not run backwards")
    page.get_by_label("Why the reading is lower").select_option("new_counter")
    page.get_by_role("button", name="Enter reading").click()
    expect(page.get_by_text("was 1,250 cycles")).to_be_visible()


def test_what_is_due_is_listed_with_what_is_over_first(bench: Page, shot: Shot) -> None:
    page = bench
    page.get_by_role("link", name="Units", exact=True).click()
    listed = page.get_by_role("list", name="Services due").get_by_role("listitem")
    expect(listed.filter(has_text="Needle scaler 5").first).to_contain_text("over")
    shot("due")
    which = page.get_by_role("group", name="Which services")
    counted = {name: int(which.get_by_role("button", name=name).locator("span").inner_text()) for name in DUE}
    assert counted["All"] == sum(counted.values()) - counted["All"]
    which.get_by_role("button", name="No reading").click()
    expect(listed).to_have_count(counted["No reading"])
    expect(listed.first).to_contain_text("no counter reading")
    page.get_by_text("In a calendar program").click()
    page.get_by_role("button", name="Make a link for my calendar").click()
    link = page.get_by_text(re.compile(r"/api/due\.ics\?token=kettle_")).inner_text()
    told = page.context.browser.new_context(ignore_https_errors=True).request.get(link)  # type: ignore[union-attr]
    assert "BEGIN:VEVENT" in told.text()
    page.get_by_text("Counters from a file").click()
    page.get_by_label("Counter readings as CSV").set_input_files(
        {"name": "c.csv", "mimeType": "text/csv", "buffer": b"unit;counter;value;date\nFN-0000;h;3;2026-11-01\n"}
    )
    expect(page.get_by_text("no unit here has the serial or label “FN-0000”")).to_be_visible()


def test_a_unit_tells_its_years(bench: Page, shot: Shot) -> None:
    page = bench
    page.goto(f"{steps.root_of(page)}/u/{label_of(page, 'FN-5203')}")
    chart = page.get_by_role("figure").filter(has_text="Opening pressure, mean opening")
    expect(chart.get_by_role("row").nth(1)).to_contain_text("262.0 bar")
    expect(chart.get_by_role("row").nth(1)).to_contain_text("284.0 bar")
    shot("history")
    page.get_by_role("link", name="Job 1001").click()
    expect(page.get_by_text("Released by Tamsin Orrell")).to_be_visible()
    page.get_by_role("link", name="FN-5203").click()
    expect(page.get_by_role("heading", name="Fuel injector of the dredger, cylinder 3")).to_be_visible()


def test_a_tool_that_never_was_on_the_bench_gets_its_label(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name="Units", exact=True).click()
    page.get_by_role("link", name="All units").click()
    page.get_by_text("Register a tool or unit").click()
    page.get_by_text("Add a tool or unit").click()
    save = page.get_by_role("button", name="Add the tool or unit")
    save.click()
    expect(page.locator("label", has_text="Serial number").locator("..").locator("p.text-error")).to_have_text(
        re.compile(".")
    )
    page.get_by_label("Build sheet").select_option("Needle scaler")
    page.get_by_label("Serial number").fill("FN-9107")
    page.get_by_label("Name", exact=True).fill("Needle scaler 9")
    page.get_by_label("Customer").fill("gates")
    save.click()
    expect(page.get_by_role("heading", name="Needle scaler 9")).to_be_visible()
    expect(page.get_by_role("link", name="Label")).to_be_visible()
    page.get_by_role("button", name="Start: oil").click()
    in_hand(page, SCALER[0])


def test_a_unit_taken_in_from_its_label_is_known(bench: Page) -> None:
    page = bench
    page.goto(f"{steps.root_of(page)}/u/{label_of(page, 'FN-5203')}")
    page.get_by_role("link", name="Take it in").first.click()
    expect(field(page, "Serial number")).to_have_value("FN-5203")
    expect(field(page, "Customer")).to_have_value("Fennimoor Navigation, dredger")
    field(page, "Complaint").fill("Due")
    page.get_by_label("Counter [h]").fill("12")
    page.get_by_role("button", name="Open the job").click()
    expect(page.get_by_text("a counter does not run backwards").first).to_be_visible()
    page.get_by_label("Counter [h]").fill("4500")
    page.get_by_role("button", name="Open the job").click()
    expect(hand(page)).to_be_visible()


@pytest.mark.parametrize(("size", "least"), [((1280, 800), 12), ((800, 1280), 8), ((390, 844), 8)])
def test_the_bench_shows_one_line_a_job(bench: Page, size: tuple[int, int], least: int) -> None:
    page = bench
    page.set_viewport_size({"width": size[0], "height": size[1]})
    lines = page.get_by_role("main").get_by_role("listitem")
    expect(lines.first).to_be_visible()
    boxes = [line.bounding_box() for line in lines.all()]
    whole = [box for box in boxes if box is not None and box["y"] + box["height"] <= size[1]]
    assert len(whole) >= least
    assert all(box["height"] >= 43.5 for box in whole)


def test_the_bench_list_is_filtered_sorted_and_opened_by_enter(bench: Page) -> None:
    page = bench
    lines = page.get_by_role("main").get_by_role("listitem")
    parts = page.get_by_role("button", name=re.compile("^Waiting for parts"))
    expect(parts).to_have_text(re.compile("1$"))
    parts.click()
    expect(lines).to_have_count(1)
    expect(lines).to_contain_text("FN-7710")
    expect(lines).to_contain_text("a part")
    page.get_by_role("button", name=re.compile("^All")).click()
    page.get_by_label("Sorted").select_option("by unit")
    expect(lines.first).to_contain_text("Ballast")
    page.get_by_role("button", name="Filters").click()
    page.get_by_label("Stage").select_option("inspect")
    expect(lines).to_have_count(1)
    expect(lines).to_contain_text("Bucket tilt ram of the dredger, left")
    page.get_by_role("button", name="Clear filters").click()
    page.get_by_label("Family").select_option("injector")
    expect(lines.first).to_contain_text("FN-5203")
    page.get_by_label("Family").select_option("")
    # A serial without its dash, and Enter.
    page.get_by_label("Find a job").fill("FN3310")
    page.get_by_label("Find a job").press("Enter")
    expect(page.get_by_role("region", name="Job")).to_contain_text("FN-3310")


def test_units_have_no_accessibility_fault_and_fit(bench: Page) -> None:
    page, axe = bench, Axe()
    for serial in ("FN-9019", "FN-5203"):
        page.goto(f"{steps.root_of(page)}/u/{label_of(page, serial)}")
        page.wait_for_load_state("networkidle")
        no_fault(page, axe, serial, both=True)
        for size in SIZES:
            fits(page, size, serial)

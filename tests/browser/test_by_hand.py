"""Work by hand: the clock stamps readings, a run can always be left, a mistaken tick is redone from its place."""

from __future__ import annotations

import re
from typing import Any

from playwright.sync_api import Browser, Page, expect

from tests.browser import steps
from tests.browser.conftest import Server, sign_in_quietly
from tests.browser.steps import field


def _start(page: Page) -> None:
    steps.to_task(page, "test:rod-side-hold:as_left")
    steps.start_run(page)


def test_the_clock_stamps_typed_readings_and_the_planned_hold_stays_in_sight(bench: Page) -> None:
    page = bench
    page.clock.install()
    _start(page)
    expect(page.get_by_text("The hold counts from the first reading")).to_be_visible()
    expect(page.get_by_role("button", name="Accept result")).to_be_disabled()
    field(page, "Temperature").fill("24")
    for count in range(1, 7):
        field(page, "Pressure").fill("180.0")
        page.get_by_role("button", name="Record the reading").click()
        expect(page.get_by_text(f"Readings with Digital gauge 250 bar: {count};")).to_be_visible()
        page.clock.fast_forward(30_000)
    expect(page.get_by_role("timer")).to_contain_text(re.compile(r"3 min 0\d s|the planned"))
    expect(page.get_by_text(re.compile(r"\d min \d\d s of the .* planned are held"))).to_be_visible()


def test_a_run_is_given_up_with_a_word_and_another_begins(bench: Page) -> None:
    page = bench
    _start(page)
    field(page, "Pressure").fill("180")
    page.get_by_role("button", name="Record the reading").click()
    expect(page.get_by_text("Readings with Digital gauge 250 bar: 1;")).to_be_visible()
    page.get_by_role("button", name="Abandon run …").click()
    page.get_by_label("Reason for abandoning this run").fill("no")
    page.get_by_role("button", name="Abandon run", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("say why the run is abandoned")
    page.get_by_label("Reason for abandoning this run").fill("the hose burst")
    page.get_by_role("button", name="Abandon run", exact=True).click()
    expect(page.get_by_text("abandoned: the hose burst")).to_be_visible()
    expect(page.get_by_role("button", name="Start another run")).to_be_visible()


def test_what_was_recorded_is_recorded_again_from_its_place(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    page.get_by_role("textbox", name="Leak at the rod").fill("12")
    page.keyboard.press("Enter")
    expect(steps.hand(page)).to_have_attribute("data-task", "observe:drift:as_found")
    page.get_by_text("Done in this stage").click()
    steps.pick(page, "Leak at the rod as found: 12 drops per minute")
    expect(steps.hand(page)).to_contain_text("Already recorded")
    page.get_by_role("textbox", name="Leak at the rod").fill("14")
    expect(steps.main_button(steps.hand(page))).to_be_enabled()
    page.keyboard.press("Enter")
    expect(steps.hand(page)).to_have_attribute("data-task", "observe:drift:as_found")
    page.get_by_role("button", name=re.compile("^Log")).click()
    log = page.get_by_role("dialog", name="Log of the job")
    expect(log.get_by_text("Leak at the rod as found: 14 drops per minute")).to_be_visible()


def test_what_was_typed_survives_leaving_the_screen_and_a_reload(bench: Page) -> None:
    page = bench
    steps.open_waiting_job(page)
    page.get_by_role("textbox", name="Leak at the rod").fill("17")
    page.get_by_role("link", name="Rings", exact=True).click()
    page.get_by_role("link", name="Bench").click()
    steps.open_waiting_job(page)
    expect(page.get_by_role("textbox", name="Leak at the rod")).to_have_value("17")
    page.reload()
    expect(page.get_by_role("textbox", name="Leak at the rod")).to_have_value("17")


def test_a_double_tap_counts_once(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    page.get_by_role("button", name=re.compile("^Done: Isolate")).dblclick()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    # The two looks, one of them begun, where it is wet, the intake, and one step.
    expect(page.get_by_role("button", name="Log (6)")).to_be_visible()


def test_locker_with_a_locknut_and_a_thread_that_strips_are_stopped_at_the_wrench(bench: Page) -> None:
    page = bench
    steps.to_task(page, "tighten:port-flange:0:1")
    page.get_by_role("radio", name=re.compile("Small click")).click()
    expect(page.get_by_text(re.compile(r"Set 1\d\.\d N·m"))).to_be_visible()
    page.get_by_text("Locking").click()
    page.get_by_role("button", name="thread locker").click()
    expect(page.get_by_text("never go together")).to_have_count(0)
    page.get_by_role("button", name="prevailing-torque nut").click()
    expect(page.get_by_text("never go together")).to_be_visible()
    page.get_by_label("Thread in").select_option("aluminium, cast")
    field(page, "Engaged length").fill("3")
    expect(page.get_by_text(re.compile("strip it at 3 mm"))).to_be_visible()
    field(page, "Engaged length").fill("deep")
    expect(page.get_by_text("“deep” is not a length with a unit").first).to_be_visible()
    expect(page.get_by_text("strip it at 3 mm")).to_have_count(0)


def test_what_another_recorded_meanwhile_is_told_in_words(
    bench: Page, server: Server, browser: Browser, browser_context_args: dict[str, Any]
) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    device = browser.new_context(**browser_context_args)
    other = device.new_page()
    sign_in_quietly(other, server, "ines")
    root = steps.root_of(page)
    job = other.request.get(f"{root}/api/jobs?q=FN-0417").json()["jobs"][0]["id"]
    note = {"kind": "note_made", "text": "the tag is mine, Ines"}
    body = {"id": "00000000-0000-4000-8000-0000000000b1", "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    assert other.request.post(f"{root}/api/jobs/{job}/entries", data=body).ok
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    expect(page.get_by_text("Meanwhile Ines Quillfeather: note: the tag is mine, Ines")).to_be_visible()
    device.close()


def test_a_unit_is_taken_apart_again_from_a_step_and_goes_back_through_what_that_touches(bench: Page) -> None:
    page = bench
    steps.to_task(page, "account")
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="strip-down").click()
    steps.pick(page, "^done done: Gland off")
    page.get_by_role("button", name="Take apart again from here").click()
    page.get_by_label("Reason for taking it apart again").fill("drips at the rod again")
    page.get_by_role("button", name="Take apart again", exact=True).click()
    # Its holds pressed it: it is made safe again first.
    expect(steps.hand(page)).to_have_attribute("data-task", "step:isolate")
    steps.work(page, "step:gland-off", {})
    page.get_by_role("button", name=re.compile("^Done: Gland off")).click()
    # What came out is new again, so the kit is counted before anything is fitted.
    expect(steps.hand(page)).to_have_attribute("data-task", "count:FN-K-5028")

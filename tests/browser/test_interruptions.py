"""The plug is pulled, the line is lost, two people work at once: nothing acknowledged is lost."""

from __future__ import annotations

import json
import re
import urllib.request
import uuid
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import APIResponse, Browser, Page, Route, expect

from tests import walk
from tests.browser import steps
from tests.browser.conftest import Server, sign_in_quietly
from tests.people import PINS


@pytest.mark.parametrize("key", ["step:isolate", "find:rod-lip", "test:rod-side-hold:as_left"])
def test_killed_in_the_middle_and_started_again(bench: Page, server: Server, key: str) -> None:
    page = bench
    steps.to_task(page, key)
    if key.startswith("test:"):
        steps.run_test_typed(page, 0.1, readings=4)
        kept = page.get_by_text("Readings with Digital gauge 250 bar: 4;")
    else:
        steps.do(page)
        kept = page.locator(f'[data-task]:not([data-task="{key}"])')
    expect(kept).to_be_visible()
    server.kill()
    server.start()
    page.reload()
    expect(kept).to_be_visible()


def test_work_goes_on_without_a_connection_and_is_sent_when_it_is_back(bench: Page, server: Server) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    server.kill()
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    expect(page.get_by_text("1 kept on this device")).to_be_visible()
    server.start()
    expect(page.get_by_text("kept on this device")).to_be_hidden(timeout=15_000)
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    page.reload()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    expect(page.get_by_role("button", name="Log (6)")).to_be_visible()


def test_the_second_person_sees_what_the_first_did(
    bench: Page, server: Server, browser: Browser, browser_context_args: dict[str, Any]
) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    other_device = browser.new_context(**browser_context_args)
    other = other_device.new_page()
    sign_in_quietly(other, server, "ines")
    other.goto(page.url)
    expect(steps.hand(other)).to_have_attribute("data-task", "step:isolate")
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    # The other screen follows by itself, and goes on from there.
    expect(steps.hand(other)).to_have_attribute("data-task", "step:bleed", timeout=15_000)
    other.get_by_role("button", name=re.compile("^Done: Bleed")).click()
    for one in (page, other):
        expect(one.get_by_role("button", name="Log (7)")).to_be_visible(timeout=15_000)
    other_device.close()


def test_an_answer_that_comes_late_does_not_take_the_screen_back(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    held: list[tuple[Route, APIResponse]] = []

    def hold_back(route: Route) -> None:
        if held or route.request.method != "GET":
            route.fallback()
        else:
            # Asked without the tag of the last answer, so that it is a whole one.
            whole = {**route.request.headers, "if-none-match": ""}
            held.append((route, route.fetch(headers=whole)))

    of_job = re.compile(r"/api/jobs/[0-9a-f-]{36}$|/api/jobs/\d+$")
    with page.expect_request(of_job, timeout=15_000):
        page.route(of_job, hold_back)
    expect(steps.hand(page)).to_have_attribute("data-task", "step:isolate")
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    page.evaluate(
        """() => {
            window.seen = [];
            new MutationObserver(() =>
                window.seen.push(document.querySelector('[data-task]')?.getAttribute('data-task'))
            ).observe(document.body, { subtree: true, childList: true, attributes: true });
        }"""
    )
    [(route, old)] = held
    assert old.json()["job"]["entry_count"] == 5
    with page.expect_response(of_job, timeout=15_000):
        route.fulfill(response=old)
    with page.expect_response(of_job, timeout=15_000):
        pass
    assert set(page.evaluate("window.seen")) <= {"step:bleed"}


def test_what_was_unfolded_stays_so_while_the_job_is_followed(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:bleed")
    page.get_by_text("Done in this stage").click()
    first = page.get_by_role("main").get_by_role("button", name=re.compile("Isolate")).first
    for _ in range(2):
        expect(first).to_be_visible()
        with page.expect_response(re.compile(r"/api/jobs/\d+$"), timeout=15_000):
            pass
        page.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")
    assert first.is_visible()


def test_a_mistake_is_struck_out_and_the_seal_holds(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    page.get_by_role("button", name="Log (6)").click()
    page.get_by_role("listitem").filter(has_text="done: Isolate").get_by_role("button", name="Strike out").click()
    page.get_by_label("Why was it a mistake?").fill("ticked before it was locked")
    page.get_by_label("Why was it a mistake?").press("Enter")
    expect(page.get_by_text("Struck out: ticked before it was locked", exact=True)).to_be_visible()
    page.get_by_role("button", name="Check the record").click()
    expect(page.get_by_text("The record is intact: 7 entries.")).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^Done: Isolate"))).to_be_visible()


def begin_recording(page: Page) -> int:
    """Gives how many entries there were before."""
    steps.to_task(page, "test:rod-side-hold:as_left")
    before = page.get_by_role("button", name=re.compile(r"Log \(\d+\)")).inner_text()
    steps.start_run(page, "From the test stand")
    page.get_by_role("button", name="Raise to 180 bar").click()
    expect(page.get_by_text(re.compile(r"Recording from the stand; [1-9]\d* readings"))).to_be_visible()
    return int(re.findall(r"\d+", before)[0])


def test_the_server_records_while_every_tab_is_closed(bench: Page, shot: Callable[..., None]) -> None:
    page = bench
    before = begin_recording(page)
    address, root = page.url, steps.root_of(page)
    page.goto("about:blank")
    # Another device watches, with the screen of the stand.
    page.goto(f"{root}/stand")
    expect(page.get_by_text(re.compile(r"records job \d+: recording, [1-9]\d* readings"))).to_be_visible()
    expect(page.get_by_role("button", name="Pump up and shut the valve")).to_be_disabled()
    page.goto(address)
    expect(page.get_by_text(re.compile(r"Recording from the stand; (\d{3}|[3-9]\d) readings"))).to_be_visible()
    shot("test", live=True)
    page.get_by_role("button", name="Stop recording").click()
    expect(page.get_by_text(re.compile(r"Recording ended; readings kept: [1-9]"))).to_be_visible()
    expect(page.get_by_text("Leak", exact=False).first).to_be_visible()
    # One entry began the run, one took its readings into the log.
    expect(page.get_by_role("button", name=f"Log ({before + 2})")).to_be_visible()
    page.get_by_role("button", name="Continue recording this hold").click()
    expect(page.get_by_text("Continued after")).to_be_visible()
    steps.accept_result(page)
    expect(page.get_by_text(re.compile("are needed"))).to_be_visible()


def test_a_stand_that_came_back_with_another_hold_fills_no_old_run(bench: Page, server: Server) -> None:
    page = bench
    begin_recording(page)
    server.kill_stand()
    expect(page.get_by_text(re.compile("The stand stopped answering at"))).to_be_visible()
    server.start_stand()
    expect(page.get_by_text(re.compile(r"Interrupted; readings kept: [1-9]"))).to_be_visible()
    expect(page.get_by_text(re.compile("The stand is on another hold|The valve was opened"))).to_be_visible()


def test_a_server_killed_in_the_hold_leaves_an_interrupted_run_with_its_readings(bench: Page, server: Server) -> None:
    page = bench
    begin_recording(page)
    expect(page.get_by_text(re.compile(r"Recording from the stand; (\d{3}|[2-9]\d) readings"))).to_be_visible()
    server.kill()
    expect(page.get_by_text(re.compile("The server does not answer"))).to_be_visible()
    server.start()
    expect(page.get_by_text(re.compile(r"Interrupted; readings kept: [1-9]\d"))).to_be_visible()
    expect(page.get_by_text(re.compile("The server stopped after"))).to_be_visible()
    page.get_by_role("button", name="Continue recording this hold").click()
    expect(page.get_by_text(re.compile("Recording from the stand"))).to_be_visible()
    page.get_by_role("button", name="Stop recording").click()
    expect(page.get_by_text(re.compile("Recording ended"))).to_be_visible()


def test_killed_once_in_every_stage_nothing_acknowledged_is_lost(server: Server, workshop: object) -> None:
    """The whole walk over HTTP; the server is killed right after an acknowledgement in each stage."""

    cookies = {}

    def call(path: str, body: object = None, who: str = "bede") -> dict[str, Any]:
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json", "Cookie": cookies.get(who, "")}
        request = urllib.request.Request(server.address + path, data, headers)
        with urllib.request.urlopen(request, timeout=20) as answer:
            cookies.setdefault(who, str(answer.headers["set-cookie"] or "").split(";")[0])
            found: dict[str, Any] = json.load(answer)
        return found

    for person in ("bede", "tamsin"):
        call("/api/session", {"person": person, "pin": PINS[person]}, person)
    job = call("/api/jobs?q=FN-0417")["jobs"][0]["id"]
    view, acknowledged = call(f"/api/jobs/{job}"), 1
    killed: set[str] = set()
    while (task := walk.next_of(view)) is not None:
        who = "tamsin" if task["kind"] == "sign" else "bede"
        entry = {"id": str(uuid.uuid4()), "bench_time": "2026-11-24T09:00:00Z", "payload": walk.payload_of(task)}
        signed = {"pin": PINS[who]} if task["kind"] == "sign" else {}
        if task["needs"] is not None:
            call(f"/api/jobs/{job}/entries", {**entry, "id": str(uuid.uuid4()), "payload": task["begin"]}, who)
            acknowledged += 1
            steps.forward(task["needs"]["seconds"])
        view = call(f"/api/jobs/{job}/entries?view=full", {**entry, **signed}, who)
        acknowledged += 1
        if task["stage"] in killed and task["kind"] not in ("test", "sign"):
            continue
        killed.add(task["stage"])
        server.kill()
        server.start()
        again = call(f"/api/jobs/{job}")
        assert again["job"]["entry_count"] == acknowledged
        assert again["tasks"] == view["tasks"]
        assert call(f"/api/jobs/{job}/seal")["holds"] is True
    assert killed == {"as_found", "safe", "strip", "inspect", "match", "kit", "rebuild", "test", "release"}
    assert call(f"/api/jobs/{job}")["job"]["released"] is True

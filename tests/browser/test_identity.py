"""Signing in on the real screens, other origins and host names, and entries that must not vanish."""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserType, Page, Route, expect
from sqlalchemy import Engine

from ironkettle.launch.address import LOOPBACK_NAMES, Listening
from ironkettle.launch.machine import free_port
from ironkettle.store.base import session_of
from ironkettle.tls import make_certificate
from tests.browser import steps
from tests.browser.conftest import Server, sign_in_quietly
from tests.people import PINS
from tests.walk import demo_job

OTHER_NAME = "bench.lockgate.test"


def test_names_pin_and_back_where_one_was(
    page: Page, server: Server, workshop: Engine, shot: Callable[[str], None]
) -> None:
    page.goto(f"{server.address}/workshop/rules")
    shot("sign-in")
    page.get_by_role("button", name="Tamsin Orrell").click()
    for digit in "417901":
        page.get_by_role("button", name=digit, exact=True).click()
    page.get_by_role("button", name="Enter").click()
    expect(page.get_by_text("that is not this person's PIN")).to_be_visible()
    for digit in PINS["tamsin"]:
        page.get_by_role("button", name=digit, exact=True).click()
    page.get_by_role("button", name="Enter").click()
    expect(page.get_by_role("heading", name="Shop settings")).to_be_visible()
    assert page.url.endswith("/workshop/rules")


def test_by_keyboard_and_by_badge(page: Page, server: Server, workshop: Engine) -> None:
    sign_in_quietly(page, server, "tamsin")
    given = page.context.request.put(f"{server.address}/api/people/bede/badge", data={"badge": "04A1B2C3D4"})
    assert given.ok
    page.context.clear_cookies()
    page.goto(server.address)
    expect(page.get_by_label("hold your badge")).to_be_focused()
    page.keyboard.type("04A1B2C3D4")
    page.keyboard.press("Enter")
    expect(page.get_by_role("banner").get_by_role("button", name="Bede Harrowgate")).to_be_visible()


def test_a_session_that_ended_is_asked_for_over_the_open_screen(bench: Page, server: Server, workshop: Engine) -> None:
    page = bench
    steps.to_task(page, "step:drain")
    page.context.clear_cookies()
    page.get_by_role("textbox").first.fill("140 ml, grey")
    page.keyboard.press("Enter")
    expect(page.get_by_text("You are signed out")).to_be_visible()
    page.get_by_role("dialog").get_by_role("button", name="Bede Harrowgate").first.click()
    page.get_by_label("PIN or password").fill(PINS["bede"])
    page.keyboard.press("Enter")
    expect(steps.hand(page)).not_to_have_attribute("data-task", "step:drain")
    page.get_by_role("button", name=re.compile("^Log")).click()
    expect(page.get_by_text("140 ml, grey")).to_be_visible()


def test_what_bede_made_offline_is_never_recorded_as_anothers(bench: Page, server: Server) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    page.route("**/entries", lambda route: route.abort())
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    expect(page.get_by_text("1 kept on this device")).to_be_visible()
    # The hand goes on while it waits.
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    steps.change_person(page, "Ines Quillfeather", "ines")
    page.unroute("**/entries")
    expect(page.get_by_text("1 entries of Bede Harrowgate wait on this device")).to_be_visible()
    root = steps.root_of(page)
    job = page.context.request.get(f"{root}/api/jobs?q=FN-0417").json()["jobs"][0]["id"]
    note = {"kind": "note_made", "text": "Ines was here"}
    body = {"id": "00000000-0000-4000-8000-0000000000a1", "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    assert page.context.request.post(f"{root}/api/jobs/{job}/entries", data=body).ok
    steps.change_person(page, "Bede Harrowgate", "bede")
    expect(page.get_by_text("wait on this device")).to_be_hidden()
    page.get_by_role("button", name="Log (7)").click()
    log = page.get_by_role("dialog", name="Log of the job")
    expect(log.get_by_role("listitem").filter(has_text="Ines Quillfeather")).to_have_count(1)
    expect(
        log.get_by_role("listitem").filter(has_text="done: Isolate").filter(has_text="Bede Harrowgate")
    ).to_have_count(1)


def refuse_later(page: Page, key: str = "step:bleed", before: str = "done: Isolate") -> None:
    """An entry made offline that the server refuses when it comes: what stands before it was struck out."""
    steps.to_task(page, key)
    page.route("**/entries", lambda route: route.abort())
    steps.fill_in(steps.hand(page), {})
    steps.main_button(steps.hand(page)).click()
    expect(page.get_by_text("1 kept on this device")).to_be_visible()
    root = steps.root_of(page)
    job = page.context.request.get(f"{root}/api/jobs?q=FN-0417").json()["jobs"][0]["id"]
    log = page.context.request.get(f"{root}/api/jobs/{job}/log").json()
    entry = next(line["id"] for line in log if line["words"].startswith(before))
    strike = {"kind": "entry_struck", "entry": entry, "reason": "ticked too early"}
    body = {"id": "00000000-0000-4000-8000-000000000001", "bench_time": "2026-11-24T09:00:00Z", "payload": strike}
    assert page.context.request.post(f"{root}/api/jobs/{job}/entries", data=body).ok
    page.unroute("**/entries")
    expect(page.get_by_text("Not recorded: 1 entry is kept on this device")).to_be_visible()


def test_a_refusal_after_being_offline_stays_until_somebody_decides(bench: Page, shot: Callable[[str], None]) -> None:
    page = bench
    refuse_later(page)
    held = page.get_by_role("region", name="Not recorded")
    expect(held).to_contain_text("done: Bleed")
    expect(held).to_contain_text("first: Isolate the supply")
    page.reload()
    expect(held).to_contain_text("first: Isolate the supply")
    shot("held-entry")
    page.get_by_role("link", name="Bench").click()
    expect(held).to_contain_text("Swing bridge latch ram")
    held.get_by_role("link", name="Swing bridge").click()
    held.get_by_role("button", name="Keep as a note").click()
    expect(held).to_be_hidden()
    page.get_by_role("button", name=re.compile("^Log")).click()
    expect(page.get_by_text("Not recorded as entered: done: Bleed")).to_be_visible()


def test_a_refused_entry_is_changed_and_sent_or_discarded_with_a_reason(bench: Page, server: Server) -> None:
    page = bench
    refuse_later(page, "find:rod-lip", "done: Gland off")
    held = page.get_by_role("region", name="Not recorded")
    page.get_by_role("button", name=re.compile("^Done: Gland off")).click()
    expect(steps.hand(page)).to_have_attribute("data-task", "find:rod-lip")
    held.get_by_role("button", name="Change and send").click()
    held.get_by_role("radio", name="open air").click()
    held.get_by_role("textbox", name="What you saw").fill("lips outwards, burr on the edge")
    held.get_by_role("button", name="Change and send").click()
    expect(held).to_be_hidden()
    expect(page.get_by_text("rod lip seal was found reversed")).to_be_visible()


def test_a_refused_entry_that_may_go_now_is_sent_again(bench: Page) -> None:
    page = bench
    refuse_later(page)
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    page.get_by_role("region", name="Not recorded").get_by_role("button", name="Send again").click()
    expect(page.get_by_role("region", name="Not recorded")).to_be_hidden()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:cool")


def test_a_refused_entry_is_discarded_with_a_reason_on_the_trail(bench: Page, server: Server) -> None:
    page = bench
    refuse_later(page)
    held = page.get_by_role("region", name="Not recorded")
    held.get_by_role("button", name="Discard").click()
    held.get_by_label("Why it is discarded").fill("ticked on the wrong job")
    held.get_by_role("button", name="Discard entry").click()
    expect(held).to_be_hidden()
    steps.change_person(page, "Tamsin Orrell", "tamsin")
    page.goto(f"{server.address}/workshop/changes")
    expect(page.get_by_text("discarded on the device")).to_be_visible()
    expect(page.get_by_text("ticked on the wrong job")).to_be_visible()


def test_one_entry_the_server_fails_at_does_not_hold_up_the_others(bench: Page) -> None:
    page = bench
    steps.to_task(page, "step:isolate")

    def fail_at_isolating(route: Route) -> None:
        if "isolate" in (route.request.post_data or ""):
            route.fulfill(status=500, content_type="text/plain", body="oops")
        else:
            route.continue_()

    page.route("**/entries", fail_at_isolating)
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    expect(page.get_by_text("The server failed at 1 of the entries")).to_be_visible()
    expect(page.get_by_text("No connection")).to_be_hidden()
    page.get_by_role("link", name="As found").click()
    # All of it is done: its list is unfolded by itself.
    steps.pick(page, "Leak at the rod as found")
    page.get_by_role("textbox", name="Leak at the rod").fill("12")
    page.get_by_role("textbox", name="Leak at the rod").press("Enter")
    page.get_by_role("button", name=re.compile("^Log")).click()
    log = page.get_by_role("dialog", name="Log of the job")
    expect(log.get_by_text("Leak at the rod as found: 12 drops per minute")).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()
    page.unroute("**/entries")
    expect(page.get_by_text("The server failed at").first).to_be_hidden()
    page.get_by_role("button", name=re.compile("^Log")).click()
    expect(log.get_by_text("done: Isolate the supply")).to_be_visible()


BROKEN = {
    "no storage": "indexedDB.open = () => { throw new DOMException('off', 'SecurityError') }",
    "full": "IDBObjectStore.prototype.put = () => { throw new DOMException('full', 'QuotaExceededError') }",
    "no local storage": """const no = () => { throw new DOMException('full', 'QuotaExceededError') };
        Storage.prototype.setItem = no; indexedDB.open = no""",
}


@pytest.mark.parametrize("broken", BROKEN)
def test_a_device_that_keeps_nothing_records_all_the_same_and_says_so(
    page: Page, server: Server, workshop: Engine, broken: str
) -> None:
    page.add_init_script(BROKEN[broken])
    sign_in_quietly(page, server, "bede")
    page.goto(server.address)
    steps.to_task(page, "step:isolate")
    page.get_by_role("button", name=re.compile("^Done: Isolate")).click()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    expect(page.get_by_role("button", name="Log (6)")).to_be_visible()
    expect(page.get_by_text("This device cannot keep entries")).to_be_visible()


def test_a_box_of_a_former_version_is_taken_over_and_a_corrupt_one_set_aside(bench: Page, server: Server) -> None:
    page = bench
    steps.to_task(page, "step:isolate")
    job = page.context.request.get(f"{server.address}/api/jobs?q=FN-0417").json()["jobs"][0]["id"]
    entry = {
        "job": job, "id": "00000000-0000-4000-8000-00000000000a", "who": "bede",
        "bench_time": "2026-11-24T09:00:00Z", "payload": {"kind": "step_done", "step": "isolate"},
    }  # fmt: skip
    page.evaluate("text => localStorage.setItem('kettle-outbox', text)", json.dumps([entry]))
    page.reload()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:bleed")
    page.evaluate("localStorage.setItem('kettle-outbox', '{broken')")
    page.reload()
    page.get_by_role("button", name=re.compile("^Done: Bleed")).click()
    expect(steps.hand(page)).to_have_attribute("data-task", "step:cool")
    aside = page.evaluate("Object.entries(localStorage).filter(([k]) => k.includes('set-aside')).map(([, v]) => v)")
    assert aside == ["{broken"]


@pytest.fixture
def mapped(browser_type: BrowserType, browser_type_launch_args: dict[str, Any]) -> Iterator[Browser]:
    """A browser in which another host name, and a page elsewhere, lie on this machine."""
    rules = f"MAP {OTHER_NAME} 127.0.0.1, MAP evil.test 127.0.0.1"
    arguments = {
        **browser_type_launch_args,
        "args": [*browser_type_launch_args["args"], f"--host-resolver-rules={rules}"],
    }
    browser = browser_type.launch(**arguments)
    yield browser
    browser.close()


def test_a_page_of_another_host_name_gets_nothing(mapped: Browser, server: Server, workshop: Engine) -> None:
    page = mapped.new_page()
    answer = page.goto(f"http://evil.test:{server.port}/")
    assert answer is not None
    assert answer.status == 421
    assert "does not answer to the name" in page.content()
    found = page.evaluate("fetch('/api/people').then(a => a.status)")
    assert found == 421


def test_a_page_of_another_origin_writes_nothing(mapped: Browser, server: Server, workshop: Engine) -> None:
    context = mapped.new_context()
    page = context.new_page()
    body = {"person": "bede", "pin": PINS["bede"]}
    assert context.request.post(f"{server.address}/api/session", data=body).ok
    # A page elsewhere on this machine: another port is another origin, though cookies do not tell ports apart.
    page.route("http://127.0.0.1:1/**", lambda route: route.fulfill(status=200, content_type="text/html", body="<p>"))
    page.goto("http://127.0.0.1:1/")
    with session_of(workshop) as session:
        job = demo_job(session)
    note = {"kind": "note_made", "stage": "strip", "text": "written by a stranger"}
    entry = {"id": "00000000-0000-4000-8000-00000000000b", "bench_time": "2026-11-24T09:00:00Z", "payload": note}
    page.evaluate(
        """([url, body]) => fetch(url, {method: 'POST', mode: 'no-cors', credentials: 'include',
            headers: {'Content-Type': 'text/plain'}, body}).catch(() => null)""",
        [f"{server.address}/api/jobs/{job.id}/entries", json.dumps(entry)],
    )
    with session_of(workshop) as session:
        assert demo_job(session).entry_count == 1
    context.close()


def record_on_another_name(browser: Browser, address: str) -> None:
    context = browser.new_context(ignore_https_errors=True, viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.set_default_timeout(20_000)
    page.goto(address)
    page.get_by_role("button", name="Bede Harrowgate").click()
    page.get_by_label("PIN or password").fill(PINS["bede"])
    page.keyboard.press("Enter")
    steps.open_waiting_job(page)
    steps.do(page, {"Leak at the rod": "12"})
    expect(steps.hand(page)).to_have_attribute("data-task", "observe:drift:as_found")
    context.close()


def test_a_device_on_another_host_name_records_over_tls(
    mapped: Browser, database_url: str, workshop: Engine, tmp_path_factory: pytest.TempPathFactory
) -> None:
    folder = tmp_path_factory.mktemp("tls")
    make_certificate(folder, [OTHER_NAME])
    listening = Listening(
        "127.0.0.1", free_port(), (OTHER_NAME, *LOOPBACK_NAMES), str(folder / "cert.pem"), str(folder / "key.pem")
    )
    other = Server(database_url, listening)
    try:
        record_on_another_name(mapped, f"https://{OTHER_NAME}:{other.port}")
    finally:
        other.stop()


def test_a_page_that_is_no_secure_context_records_too(mapped: Browser, database_url: str, workshop: Engine) -> None:
    """Behind somebody's own encryption, say: browsers then withhold crypto.randomUUID."""
    other = Server(database_url, Listening("127.0.0.1", free_port(), (OTHER_NAME, *LOOPBACK_NAMES)))
    try:
        record_on_another_name(mapped, f"http://{OTHER_NAME}:{other.port}")
    finally:
        other.stop()


def test_people_rights_tokens_and_changes_on_the_screens(
    page: Page, server: Server, workshop: Engine, shot: Callable[[str], None]
) -> None:
    sign_in_quietly(page, server, "tamsin")
    page.goto(f"{server.address}/workshop/people")
    page.get_by_text("Add a person").click()
    page.get_by_label("Name", exact=True).fill("Osric Penhallow")
    page.get_by_label("Role", exact=True).first.select_option("technician")
    page.get_by_label("First PIN").fill("123456")
    page.get_by_role("button", name="Add the person").click()
    expect(page.get_by_text("too easy to guess")).to_be_visible()
    page.get_by_label("First PIN").fill("530917")
    page.get_by_role("button", name="Add the person").click()
    card = page.get_by_role("article", name="Osric Penhallow")
    expect(card).to_be_visible()
    card.get_by_text("Let Osric Penhallow release").click()
    card.get_by_label("Kind of work").select_option("life_support")
    card.get_by_label("Last day").fill("2027-06-30")
    card.get_by_role("button", name="Grant").click()
    expect(card.get_by_text("life support, to 30 Jun 2027")).to_be_visible()
    shot("people")
    page.get_by_role("link", name="Tokens").click()
    page.get_by_text("Add a token").click()
    page.get_by_label("Purpose").fill("stores system")
    page.get_by_label("Acts as").select_option("Wystan Peverell")
    page.get_by_role("button", name="Add the token").click()
    expect(page.get_by_text("kettle_")).to_be_visible()
    page.get_by_role("button", name="I have saved it").click()
    expect(page.get_by_text("kettle_")).to_be_hidden()
    page.get_by_role("button", name="Revoke").click()
    expect(page.get_by_text("revoked")).to_be_visible()
    page.get_by_role("link", name="Changes").click()
    for words in ("token", "authority granted: life support", "Osric Penhallow"):
        expect(page.get_by_text(words).first).to_be_visible()


def test_the_first_start_on_the_screen(page: Page, server: Server, empty: Engine) -> None:
    page.goto(server.address)
    expect(page.get_by_role("heading", name="First start")).to_be_visible()
    page.get_by_label("Your name").fill("Osric Penhallow")
    page.get_by_label("PIN or password").fill("530917")
    page.get_by_label("Repeat").fill("530918")
    expect(page.get_by_text("The two entries differ.")).to_be_visible()
    page.get_by_label("Repeat").fill("530917")
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_text("The bench is empty")).to_be_visible()

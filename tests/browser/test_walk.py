"""Units from intake to release on the real screens: the ram with its reversed lip, a short kit, a float valve."""

from __future__ import annotations

import io
import re
from collections.abc import Callable, Mapping

from playwright.sync_api import Locator, Page, expect
from pypdf import PdfReader

from tests.browser import steps
from tests.browser.steps import Act, field, hand
from tests.people import PINS

Shot = Callable[[str], None]
CSV = "t_s;pressure_bar;temperature_c\n" + "".join(
    f"{10 * i};{180 - 0.05 * i:.2f};24,0\n".replace(".", ",") for i in range(30)
)


def reversed_lip(shot: Shot) -> Act:
    def act(page: Page, card: Locator) -> None:
        card.get_by_role("radio", name="open air").click()
        card.get_by_role("button", name="none of these").click()
        steps.main_button(card).click()
        expect(page.get_by_text("rod lip seal was found reversed")).to_be_visible()
        # Looked at once more from its place: the drawing shows it as it was found, and the way of the leak.
        page.get_by_text("Done in this stage").click()
        steps.pick(page, "rod lip seal found, open lips to open air")
        expect(page.get_by_text("a way from rod side to open air through Rod seal in the gland")).to_be_visible()
        page.get_by_text("Done in this stage").click()
        shot("strip-down")
        steps.pick(page, "^to do Rod wear band: as it came off")

    return act


def missing_backup(page: Page, card: Locator) -> None:
    card.get_by_role("button", name="Otherwise").click()
    gone = card.get_by_role("radiogroup", name="Was it there?").get_by_role("radio", name="No")
    gone.click()
    expect(gone).to_have_attribute("aria-checked", "true")
    steps.main_button(card).click()
    expect(card.get_by_text("a gland backup ring belongs here: missing, or still in the groove?")).to_be_visible()
    card.get_by_role("textbox", name="What you saw").fill("nothing beside the ring, nothing in the tray")
    steps.main_button(card).click()


def match(shot: Shot) -> Act:
    def act(page: Page, card: Locator) -> None:
        field(page, "Inside diameter").fill("44.1 mm")
        field(page, "Inside diameter").press("Enter")
        page.keyboard.type("3.5")
        first = page.get_by_role("listitem").filter(has_text="AS568 224").first
        expect(first).to_contain_text("fits the groove")
        shot("match")
        first.get_by_role("button", name="Choose").click()

    return act


def wrong_way_first(shot: Shot) -> Act:
    def act(page: Page, card: Locator) -> None:
        # Either answer tells what it would record before its tap records it.
        expect(card.locator("form")).to_have_attribute("data-sole", "tap")
        card.get_by_role("radio", name="open air").click()
        # It says why, and not which tile would have been right.
        expect(card.get_by_role("alert")).to_contain_text("reversed: the rod lip seal goes with its open lips")
        expect(card.get_by_role("alert")).not_to_contain_text("rod side")
        shot("rebuild")
        card.get_by_role("radio", name="rod side").click()

    return act


def tighten(wrench: str, readings: list[str], shot: Shot = steps.no_shot) -> Act:
    def act(page: Page, card: Locator) -> None:
        # The wrench of the pass before lies in the hand still.
        kept = card.get_by_role("button", name="Change wrench")
        choice = card.get_by_role("radio", name=re.compile(wrench))
        expect(choice.or_(kept).first).to_be_visible()
        if not kept.is_visible():
            choice.click()
        expect(card.get_by_text(re.compile(r"Set \d+\.\d N·m"))).to_be_visible()
        typed = card.get_by_role("button", name="Type readings instead")
        if typed.count():
            typed.click()
        for place, text in enumerate(readings):
            card.locator("[data-readings] [data-entry]").nth(place).fill(text)
        shot("tighten")
        steps.main_button(card).click()

    return act


def typed_hold(page: Page, card: Locator) -> None:
    steps.run_test_typed(page, 0.1)
    expect(page.get_by_text("The pressure passes. Read what ran into the measuring glass")).to_be_visible()
    steps.accept_result(page)


def csv_hold(page: Page, card: Locator) -> None:
    steps.start_run(page, "From a CSV file")
    page.get_by_label("CSV file").set_input_files({"name": "hold.csv", "mimeType": "text/csv", "buffer": CSV.encode()})
    expect(page.get_by_text("Readings with Digital gauge 250 bar: 30;")).to_be_visible()
    steps.accept_result(page)


def test_leaking_ram_from_intake_to_certificate(bench: Page, shot: Shot) -> None:
    page = bench
    shot("bench")
    steps.open_waiting_job(page)
    acts: Mapping[str, Act | Mapping[str, str]] = {
        "observe:rod-leak:as_found": {"Leak at the rod": "12"},
        "step:drain": {"much": "140 ml"},
        "find:gland-backup": missing_backup,
        "find:rod-lip": reversed_lip(shot),
        "measure:barrel": {"Depth": "0.01"},
        "measure:rod": {"Depth": "0.03", "Run-out": "0.05"},
        "identify:gland-ring": match(shot),
        "fit:rod-lip": wrong_way_first(shot),
        "tighten:piston-thread:0:1": tighten("Large click", ["170"]),
        "tighten:port-flange:0:1": tighten("Small click", ["12.5"] * 4, shot),
        "tighten:port-flange:0:2": tighten("Small click", ["21"] * 4),
        "tighten:port-flange:0:3": tighten("Small click", ["21"] * 4),
        "test:rod-side-hold:as_left": typed_hold,
        "test:cap-side-hold:as_left": csv_hold,
        "observe:rod-leak:as_left": {"Leak at the rod": "0"},
    }
    done = steps.work(page, "step:bleed", acts)
    shot("make-safe")
    done += steps.work(page, "count:FN-K-5028", acts)
    shot("kit-check")
    done += steps.work(page, "sign", acts | {"count:FN-K-5028": count_kit})
    # With the intake and the signature no more than ninety acts.
    assert done + 2 <= 90
    expect(page.get_by_role("button", name="Sign and release")).to_be_disabled()
    expect(page.get_by_text("Bede Harrowgate may not release this unit")).to_be_visible()
    steps.change_person(page, "Tamsin Orrell", "tamsin")
    page.get_by_role("button", name="Sign and release").click()
    page.get_by_label("Your PIN").fill(PINS["bede"])
    page.keyboard.press("Enter")
    expect(page.get_by_text("not this person's PIN")).to_be_visible()
    page.get_by_label("Your PIN").fill(PINS["tamsin"])
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Released by Tamsin Orrell")).to_be_visible()
    shot("release")
    href = page.get_by_role("main").get_by_role("link", name="Certificate").get_attribute("href")
    content = page.request.get(steps.root_of(page) + (href or "")).body()
    text = " ".join(" ".join(part.extract_text() for part in PdfReader(io.BytesIO(content)).pages).split())
    for wanted in (
        "AS568 224",
        "found reversed",
        "1: 170 N·m",
        "Hold on the cap side: PASS",
        "Released and signed by Tamsin Orrell",
        "Signed by PIN, authorised for lifting gear",
    ):
        assert wanted in text, wanted
    page.get_by_label("Reason for reopening").fill("the customer found a scratch")
    page.get_by_role("button", name="Reopen the job").click()
    page.get_by_label("Your PIN").fill(PINS["tamsin"])
    page.keyboard.press("Enter")
    # What counts the tray and the kit is asked for again, and then the signature.
    expect(hand(page)).to_have_attribute("data-task", "account")


def count_kit(page: Page, card: Locator) -> None:
    """Every line with what is needed, as its label says."""
    for box in card.locator("input[data-entry]").all():
        label = str(box.evaluate("node => node.labels[0].textContent"))
        needed = re.search(r": (\d+) (needed|if used)", label)
        assert needed, label
        box.fill(needed.group(1))
    steps.main_button(card).click()


def test_a_check_valve_with_a_short_kit_waits_for_its_ring(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name=re.compile("Check valve, disinfectant")).click()
    expect(hand(page)).to_have_attribute("data-task", "order:k-guide")
    page.get_by_role("button", name="Order 1 × guide ring").click()
    expect(hand(page)).to_have_attribute("data-task", "receive:k-guide")
    # What is not there yet cannot be fitted, and the screen says which it is.
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="Rebuild").click()
    steps.pick(page, "Fit the guide ring \\(spring side\\)")
    expect(hand(page)).to_contain_text("Not yet: Receive: guide ring, 1 missing")
    page.get_by_role("link", name="Kit check").click()
    hand(page).get_by_role("textbox").fill("1")
    steps.main_button(hand(page)).click()
    expect(page.locator('[data-task="receive:k-guide"]')).to_have_count(0)
    acts: dict[str, Act | Mapping[str, str]] = {
        "tighten:clamp-screw:0:1": tighten("Small click", ["6.5"]),
        "test:opening:as_left": {"Opening": "50 mbar", "Reseat": "44 mbar"},
    }
    steps.work(page, "sign", acts)
    steps.sign(page, "bede")
    expect(page.get_by_role("heading", name="Released by Bede Harrowgate")).to_be_visible()


def test_a_float_valve_comes_to_release_in_few_acts(bench: Page) -> None:
    page = bench
    page.get_by_role("link", name="New job").click()
    page.get_by_label("Find by marking").fill("FN-K-HT15")
    page.get_by_role("button", name=re.compile("kit FN-K-HT15")).click()
    for label, text in (("Serial number", "FN-2210"), ("Customer", "boats"), ("Complaint", "overfills")):
        page.get_by_label(label).fill(text)
    page.get_by_role("button", name="Open the job").click()
    acts = {"count:FN-K-HT15": count_kit}
    done = steps.work(page, "sign", acts)
    steps.sign(page, "bede")
    expect(page.get_by_role("heading", name="Released by Bede Harrowgate")).to_be_visible()
    assert done + 2 <= 25

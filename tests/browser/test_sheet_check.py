"""A sheet of format 2 checked at the workshop: drawn from its own facts, its faults told, a seal told from its mirror image."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.browser.test_rings import desk, no_fault
from tests.tiny import UNITS


def test_a_sheet_is_checked_drawn_and_looked_at_closely(bench: Page) -> None:
    page = bench
    desk(page, "Workshop")
    page.get_by_role("link", name="Check a sheet").click()
    expect(page.get_by_text("it is checked as you type")).to_be_visible()
    page.get_by_label("A build sheet (YAML or JSON)").set_input_files(UNITS / "swing-bridge-ram.yaml")
    expect(page.get_by_text("Sound: a job on it has 55 tasks")).to_be_visible()
    drawing = page.get_by_role("group", name="Section through Swing bridge latch ram, to scale")
    expect(drawing.locator(".element[data-kind='lip_seal']")).to_have_count(6)
    no_fault(page)
    page.get_by_role("button", name="3. Rod seal in the gland").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("listitem").filter(has_text="open lips towards rod side")).to_be_visible()
    expect(page.get_by_text("groove width 6.3 mm +0.2/-0")).to_be_visible()
    expect(page.get_by_text("rod ⌀ 28 mm +0/-0.052")).to_be_visible()
    enlarged = page.get_by_role("group", name="Rod seal in the gland, enlarged")
    lip = enlarged.locator("polygon.element").filter(has_text="rod lip seal").first
    right = lip.get_attribute("points")
    page.get_by_role("button", name="Wrong way round").click()
    expect(lip).not_to_have_attribute("points", right or "")
    page.get_by_role("button", name="Whole unit").click()
    page.get_by_label("How does the retaining wire end?").select_option("plain")
    expect(page.get_by_text("Sound")).to_be_visible()


def test_faults_are_told_by_their_path_and_the_drawing_is_gone(bench: Page) -> None:
    page = bench
    desk(page, "Workshop")
    page.get_by_role("link", name="Check a sheet").click()
    text = (UNITS / "dosing-check-valve.yaml").read_text(encoding="utf-8")
    sheet = page.get_by_label("or its text")
    sheet.fill(text)
    expect(page.get_by_text("Sound: a job on it has 30 tasks")).to_be_visible()
    sheet.fill(text.replace("at: [10, 4]", "at: [23, 20]"))
    expect(page.get_by_text("Not sound: 1 fault")).to_be_visible()
    expect(page.get_by_text("lies in metal or in a seal, at z 23.0, r 20.0")).to_be_visible()
    expect(page.get_by_role("region", name="Drawing")).to_have_count(0)
    # What was typed survives leaving the screen and coming back.
    page.get_by_role("link", name="Build sheets").click()
    page.get_by_role("link", name="Check a sheet").click()
    expect(page.get_by_text("Not sound: 1 fault")).to_be_visible()
    sheet.fill("zones: [")
    expect(page.get_by_text("cannot be read as YAML")).to_be_visible()

"""The other desks: pocket chart, practice, seals, compounds, shop settings."""

from __future__ import annotations

import csv
import re

from playwright.sync_api import Page, expect

from tests.browser import steps
from tests.browser.conftest import Server, sign_in_quietly
from tests.browser.steps import field
from tests.browser.test_rings import Shot, desk, groove, no_fault


def test_the_pocket_chart_is_searched_compared_and_exported(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Rings", "Pocket chart")
    expect(page.get_by_role("status")).to_contain_text(re.compile(r"3\d\d\d\s+sizes, the first 60 shown"))
    field(page, "Inside diameter about").fill("25")
    page.get_by_role("checkbox", name="Compare metric stock 25x3", exact=True).check()
    page.get_by_role("checkbox", name="Compare AS568 214 = ISO 3601 25x3.55").check()
    beside = page.get_by_role("region", name="Two sizes side by side")
    expect(beside).to_contain_text("Read the section or the outside diameter.")
    shot("pocket-chart")
    beside.get_by_role("button", name="Close").click()
    page.get_by_label("Series").select_option("AS568")
    page.get_by_label("Size contains").fill("21")
    field(page, "Inside diameter about").fill("")
    expect(page.get_by_role("rowheader", name="AS568 214", exact=False)).to_be_visible()
    page.emulate_media(media="print")
    # Dark words on white paper, whatever the theme on the screen; the controls stay off the paper.
    assert page.evaluate("getComputedStyle(document.querySelector('main th')).color") == "rgb(0, 0, 0)"
    expect(page.get_by_role("link", name="CSV")).to_be_hidden()
    page.emulate_media(media="screen")
    with page.expect_download() as download:
        page.get_by_role("link", name="CSV").click()
    rows = list(csv.DictReader(download.value.path().read_text(encoding="utf-8").splitlines()))
    assert {"214", "021", "121"} <= {row["designation"] for row in rows}
    assert all(row["series"] == "AS568" for row in rows)


def test_a_guess_is_answered_with_the_reasoning_and_scored(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Rings", "Practice")
    page.get_by_role("button", name="19. It never sealed").click()
    page.get_by_role("button", name="fit a new one of the same size").click()
    expect(page.get_by_text("Not right.")).to_be_visible()
    expect(page.get_by_text("AS568 327 in this groove")).to_be_visible()
    page.get_by_role("button", name="Next puzzle").click()
    expect(page.get_by_role("heading", name="The cover would not close")).to_be_visible()
    page.get_by_role("button", name="the groove wants a 2.62 mm section").click()
    expect(page.get_by_text("Right.")).to_be_visible()
    expect(page.get_by_role("listitem").filter(has_text="Bede Harrowgate")).to_contain_text("1 of 2 tried")
    expect(page.get_by_role("button", name="19. It never sealed, wrong")).to_be_visible()
    shot("practice")
    no_fault(page)


def test_a_shop_setting_reaches_the_groove_check_and_goes_back(bench: Page, shot: Shot) -> None:
    page = bench
    steps.change_person(page, "Tamsin Orrell", "tamsin")
    desk(page, "Workshop", "Shop settings")
    rule = page.get_by_role("textbox", name="Static, minimum")
    row = page.locator("form").filter(has=rule)
    rule.fill("40")
    row.get_by_role("button", name="Set").click()
    expect(row).to_contain_text("40 is not below 30")
    rule.fill("much")
    row.get_by_role("button", name="Set").click()
    expect(row).to_contain_text("“much” is not a number; 0 to 60 % fits")
    rule.fill("22")
    row.get_by_role("button", name="Set").click()
    expect(row).to_contain_text("Changed by Tamsin Orrell")
    shot("shop-settings")
    desk(page, "Grooves")
    groove(page, "50", "44.4", "5.4")
    page.get_by_role("textbox", name="Ring size").fill("224")
    expect(page.get_by_text("Limits: shop settings (changed by this shop")).to_be_visible()
    expect(
        page.get_by_text("within limits 22 to 30 %").or_(page.get_by_text("outside the limits 22 to 30 %"))
    ).to_be_visible()
    desk(page, "Workshop", "Shop settings")
    row.get_by_role("button", name="Reset to 10").click()
    expect(rule).to_have_value("10")
    expect(row).to_contain_text("default 10")


def test_seals_by_housing_packing_and_press_fit(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Seals")
    field(page, "Rod or shaft").fill("28")
    field(page, "Groove diameter").fill("38")
    field(page, "Groove length").fill("6.3")
    fits = page.get_by_role("region", name="Fits this housing")
    expect(fits.get_by_role("listitem").first).to_contain_text("6 in stock")
    field(page, "Groove length").fill("7")
    expect(page.get_by_text("groove length 7 → 8 mm: open by 1 mm")).to_be_visible()
    shot("seals")
    field(page, "Groove diameter").fill("20")
    expect(page.get_by_text("must be larger than the rod")).to_be_visible()
    desk(page, "Packing set")
    for name, value in (
        ("Bore of the box", "45"), ("Rod or stem", "30"), ("Depth of the box", "42"), ("Height of one V-ring", "5.1"),
        ("Head ring", "6"), ("Follower ring", "7"), ("Nut must enter by", "4"), ("Nut travel in one turn", "1.5"),
    ):  # fmt: skip
        field(page, name).fill(value)
    # By hand: 25 mm of room for rings of 5.1 is 4; 5 % of 20.4 is 1.02 mm; over 1.5 mm a turn, 0.68.
    expect(page.get_by_text("4 V-rings, then 0.68 turns of the nut")).to_be_visible()
    desk(page, "Pressed in")
    field(page, "Bore").fill("42 mm +0.039/-0")
    field(page, "Seal, outside diameter").fill("42.13")
    field(page, "Seal, width").fill("7")
    field(page, "Seat, depth").fill("7")
    expect(page.get_by_text("Take care: interference 0.13 mm")).to_be_visible()


def test_compound_and_lubricant(bench: Page, shot: Shot) -> None:
    page = bench
    desk(page, "Compounds")
    page.get_by_role("combobox", name="Fluid", exact=True).select_option("glycol brake fluid")
    page.get_by_label("Fitted with").select_option("Mineral grease")
    epdm = page.get_by_role("listitem").filter(has=page.get_by_text("EPDM", exact=True)).first
    expect(epdm).to_contain_text("Mineral grease on EPDM: do not use")
    expect(epdm).to_contain_text("other lubricant")
    shot("compounds")
    no_fault(page)
    page.get_by_label("Fitted with").select_option("Silicone grease")
    expect(epdm).not_to_contain_text("Silicone grease on EPDM")
    page.get_by_role("button", name="Oxygen").click()
    expect(epdm).to_contain_text("can burn near oxygen")
    page.get_by_text("Hardness for this gap").click()
    field(page, "Worst gap").fill("0.12")
    field(page, "Section").fill("3.53")
    field(page, "Pressure").fill("70")
    expect(page.get_by_role("status")).to_contain_text("90 Shore A resists this gap")


def test_cylinder_sums_warn_before_a_side_is_blocked(bench: Page) -> None:
    page = bench
    desk(page, "Calculators", "Cylinder")
    told = page.get_by_role("region", name="What it comes to")
    # Ø63/36 at 180 bar by hand: push 56.1 kN, ratio 1.485, 267 bar in a blocked rod side.
    expect(told).to_contain_text("56.1 kN")
    expect(told).to_contain_text("the rod side reaches 267 bar: vent it before pressing the cap side")
    field(page, "Load on the rod").fill("20 kN")
    field(page, "Leak past the piston").fill("1")
    expect(told).to_contain_text("cap 64, rod 95 bar")
    expect(told).to_contain_text("cap 0.32, rod 0.48 mm/min")
    page.get_by_label("Weakest part").fill("gland")
    field(page, "Its rating").fill("210")
    expect(told).to_contain_text("above the rating of the gland, 210 bar")
    field(page, "Rod").fill("63")
    expect(told).to_contain_text("a plunger is pushed only")
    field(page, "Rod").fill("70")
    expect(page.get_by_text("thicker than the bore").first).to_be_visible()


def test_torque_without_a_job(bench: Page) -> None:
    page = bench
    desk(page, "Calculators", "Torque")
    plan = page.get_by_role("region", name="The plan")
    expect(plan).to_contain_text("Set 37.0 N·m")
    expect(plan).to_contain_text("1 → 4 → 2 → 5 → 3 → 6")
    field(page, "Length of the wrench").fill("300")
    field(page, "Adapter").fill("40")
    # 37 · 300/340 on the scale.
    expect(plan).to_contain_text("Set 32.6 N·m")
    page.get_by_role("button", name="Number 1 is done").click()
    expect(page.get_by_role("button", name="Number 4: next")).to_be_visible()
    page.get_by_role("button", name="Back to a slot").click()
    page.get_by_label("Thread").fill("M60x2")
    expect(plan).to_contain_text("nearest of 6 slots: at most 60°, which opens 0.33 mm")


def test_the_stand_holds_and_its_panel_opens_a_leak(bench: Page) -> None:
    page = bench
    desk(page, "Test stand")
    shown = page.get_by_label("What the channels show")
    field(page, "Raise to and hold").fill("100 bar")
    page.get_by_role("button", name="Pump up and shut the valve").click()
    expect(page.get_by_text(re.compile(r"^(99|100)\.\d\d bar$")).first).to_be_visible()
    expect(page.get_by_text(re.compile("Held for"))).to_be_visible()
    page.get_by_label("Gap at the piston seal, µm").fill("6")
    page.get_by_role("button", name="Apply").click()
    expect(shown.get_by_text(re.compile(r"[1-9]\.\d+ ml/min"))).to_be_visible()
    page.get_by_role("button", name="beyond its range").click()
    page.get_by_role("button", name="Apply").click()
    expect(shown.get_by_text("no reading").first).to_be_visible()
    page.get_by_label("A hole, mm").fill("9")
    page.get_by_role("button", name="Apply").click()
    expect(page.get_by_role("alert")).to_contain_text("A hole: 9 mm cannot be set")
    page.get_by_role("button", name="Valve or injector").click()
    page.get_by_role("button", name="sound").click()
    field(page, "Opens at, bar").fill("150")
    page.get_by_role("button", name="Apply").click()
    expect(page.get_by_text("Applied.")).to_be_visible()
    field(page, "Raise to and hold").fill("200 bar")
    page.get_by_role("button", name="Pump up and shut the valve").click()
    # It climbs to where it opens, and falls: it never comes to 200.
    expect(shown.get_by_text(re.compile(r"^14\d\.\d\d bar$")).first).to_be_visible()
    page.get_by_role("button", name="Release pressure").click()
    page.get_by_role("button", name="Oil-filled unit").click()
    page.get_by_role("button", name="Apply").click()
    expect(page.get_by_label("A hole, mm")).to_be_visible()


def test_the_lead_sets_the_registers_of_the_stand(bench: Page, server: Server) -> None:
    page = bench
    desk(page, "Test stand", "Register map")
    expect(page.get_by_text("Only the lead can change it.")).to_be_visible()
    expect(page.get_by_label("Scale").first).to_be_disabled()
    sign_in_quietly(page, server, "tamsin")
    page.reload()
    expect(page.get_by_text("This is the shipped map.")).to_be_visible()
    page.get_by_label("Scale").first.fill("0")
    page.get_by_role("button", name="Save map").click()
    expect(page.get_by_text("scale 0 of Pressure is none").first).to_be_visible()
    page.get_by_label("Scale").first.fill("14,503774")
    page.get_by_label("Unit", exact=True).first.select_option("psi")
    page.get_by_label("To", exact=True).first.fill("9000")
    page.get_by_label("Name").first.fill("Cap side")
    page.get_by_role("button", name="Save map").click()
    expect(page.get_by_text("This is the shop’s own map.")).to_be_visible()
    page.get_by_role("link", name="Gauge", exact=True).click()
    expect(page.get_by_text("Cap side")).to_be_visible()
    expect(page.get_by_text(re.compile(r"psi$")).first).to_be_visible()
    page.get_by_role("link", name="Register map").click()
    page.get_by_role("button", name="Back to the shipped map").click()
    expect(page.get_by_text("This is the shipped map.")).to_be_visible()

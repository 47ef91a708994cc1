"""A sheet of format 1 reads as one of format 2: the same keys, the same grooves, the same way round, worked to its end."""

from __future__ import annotations

import pytest

from ironkettle.core.base.quantities import Toleranced
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.release import release_of
from ironkettle.core.sheets.document import facts
from ironkettle.core.sheets.document.format1 import BuildSheet
from ironkettle.core.sheets.document.upgrade import settled_family, upgraded, upgraded_document
from tests import older, tiny
from tests.bench import Job

OLD = BuildSheet.model_validate(older.SHEET)


def test_keys_stay_as_they_were() -> None:
    new = upgraded(OLD)
    assert (new.key, new.version, new.authority) == (OLD.key, OLD.version, OLD.release_authority)
    assert [step.key for step in new.steps] == [step.key for step in OLD.steps]
    assert [station.key for station in new.stations] == [station.key for station in OLD.stations]
    assert [e.key for *_, e in new.elements] == [e.key for s in OLD.stations for e in s.elements]
    assert [line.key for kit in new.kits for line in kit.lines] == [line.key for line in OLD.kit_lines]
    assert [test.key for test in new.tests] == [test.key for test in OLD.tests]
    assert new.service.pressure == OLD.ratings.pressure
    assert new.service.medium == "oil"


def test_elements_side_by_side_share_a_groove_and_others_have_their_own() -> None:
    seats = {s.key: [(seat.at, [e.key for e in seat.elements]) for seat in s.seats] for s in upgraded(OLD).stations}
    assert seats["gland-bore"] == [(171, ["gland-ring", "gland-backup"])]
    assert seats["piston-bore"] == [(33, ["piston-lip-cap"]), (46, ["piston-band"]), (61, ["piston-lip-rod"])]


def test_the_grooves_are_those_of_the_old_figures() -> None:
    new = upgraded_document(older.SHEET)
    grooves = {s.key: facts.gland_of(new, s, s.seats[0]) for s in new.stations}
    gland = grooves["gland-bore"]
    assert gland is not None
    # As the old sheet wrote them: bore 50 +0.039, groove 44.4, between rod side and open air, one backup in it.
    assert gland.bore == Toleranced(50, 0, 0.039)
    assert gland.groove_diameter.nominal == 44.4
    assert (gland.pressure, gland.backup_rings_fitted) == (18.0, 1)


def test_every_element_faces_as_it_must() -> None:
    now = facts.orientation_of(upgraded(OLD))
    for element, zone in older.ELEMENTS.items():
        if zone is not None:
            assert now.facing(element) == zone


def test_it_is_worked_to_its_end() -> None:
    job = Job(upgraded(OLD))
    job.walk()
    assert release_of(job.state) is not None
    assert set(job.state.book(FITTED)) == {e.key for s in OLD.stations for e in s.elements}


@pytest.mark.parametrize(
    ("words", "family"),
    [
        ("double-acting ram, wire-retained gland", "cylinder"),
        ("oil-free piston compressor, two cylinders", "compressor"),
        ("air-driven piston pump, air end with pilot", "pump"),
        ("pressure reducing regulator", "valve"),
        ("hose coupler, poppet worked by a handle", "coupler"),
        ("regulator", "regulator"),
        # Only whole words count: a frame is no ram.
        ("gramophone frame", "other"),
    ],
)
def test_a_family_told_in_words_is_the_first_that_they_name(words: str, family: str) -> None:
    assert settled_family(words) == family


def test_a_stored_sheet_keeps_the_words_of_its_family_to_be_found_by() -> None:
    document = tiny.plug() | {"family": "ram of the old lock"}
    sheet = upgraded_document(document)
    assert sheet.family == "cylinder"
    assert "ram of the old lock" in sheet.like
    assert upgraded_document(tiny.plug()).like == []

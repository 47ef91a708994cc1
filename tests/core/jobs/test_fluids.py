"""The fluid at intake against sheet and seals. Ratings: reference/tables/compatibility.csv (NBR in brake fluid 4, EPDM in mineral oil 4)."""

from __future__ import annotations

import pytest

from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.fluids import attacked_seals, fluid_words
from tests.bench import INTAKE, Job
from tests.tiny import UNITS, plug, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))


def came_with(fluid: str, compound: str | None = "NBR", **changes: object) -> Job:
    element = {} if compound is None else {"stations__0__seats__0__elements__0__compound": compound}
    job = Job(sheet_of(plug(**element, **changes)), intake=False)
    job.do({**INTAKE, "pressure": "10 bar", "fluid": fluid})
    return job


@pytest.mark.parametrize("key", EVERY)
def test_no_shipped_sheet_names_a_fluid_that_its_own_seals_do_not_stand(key: str) -> None:
    sheet = sheet_of(unit(key))
    for fluid in (*sheet.service.fluids, "as the sheet says"):
        job = Job(sheet, intake=False)
        job.do({**INTAKE, "pressure": sheet.service.pressure, "fluid": fluid})
        assert fluid_words(job.case()) is None
        assert list(attacked_seals(job.case())) == []


@pytest.mark.parametrize(
    ("fluid", "says"),
    [
        ("brake fluid", "It came in with brake fluid; its sheet is for mineral oil ISO VG 46"),
        ("sodium chlorate", "It came in with “sodium chlorate”, which no table knows"),
        ("Mineral oil ISO VG 32", None),
        ("MINERAL OIL ISO VG 46", None),
        ("as the build sheet says", None),
    ],
)
def test_another_fluid_than_the_sheet_s_is_said(fluid: str, says: str | None) -> None:
    words = fluid_words(came_with(fluid).case())
    assert words is None if says is None else words is not None and words.startswith(says)


def test_a_seal_that_does_not_stand_it_is_said_where_it_is_fitted_and_on_the_certificate() -> None:
    job = came_with("brake fluid")
    job.walk(until=lambda task: task.key == "fit:ring")
    task = job.next()
    assert task is not None
    assert "NBR in brake fluid: do not use: the unit came in with it" in task.delicate
    job.walk(until=lambda task: task.key == "sign")
    told = compose_statement(job.case(), job.tasks())
    assert "Plug ring, NBR in brake fluid: do not use." in told
    assert "It came in with brake fluid; its sheet is for mineral oil ISO VG 46." in told


@pytest.mark.parametrize(
    ("compound", "fluid"), [("EPDM", "brake fluid"), ("NBR", "diesel fuel"), (None, "brake fluid")]
)
def test_what_stands_it_and_what_is_of_no_known_compound_is_not_said_to_suffer(
    compound: str | None, fluid: str
) -> None:
    assert list(attacked_seals(came_with(fluid, compound).case())) == []


def test_a_doubtful_one_is_said_too() -> None:
    """CR in diesel is rated 3, doubtful."""
    (told,) = attacked_seals(came_with("diesel fuel", "CR").case())
    assert told.startswith("Plug ring, CR in diesel fuel: ")

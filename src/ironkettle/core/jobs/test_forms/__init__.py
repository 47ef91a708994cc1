"""How a test of the sheet is recorded in a job: as a trace, or as figures."""

from __future__ import annotations

from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.proving import spec_of
from ironkettle.core.jobs.test_forms.base import TestForm
from ironkettle.core.jobs.test_forms.figures import FiguresForm, FiguresScreen
from ironkettle.core.jobs.test_forms.hold import HoldForm, HoldScreen
from ironkettle.core.sheets.document.trials import HoldTest, TestSpec

__all__ = ["FiguresForm", "FiguresScreen", "HoldForm", "HoldScreen", "TestForm", "find_form", "form_of", "form_of_spec"]


def form_of(case: Case, key: str) -> TestForm:
    """How the test of that key is recorded. Raises RuleError for a key the sheet does not have."""
    return form_of_spec(case, spec_of(case, key))


def find_form(case: Case, key: str) -> TestForm | None:
    """How the test of a run is recorded; None for one the sheet of the job does not have, as after a full job is struck out."""
    spec = next((test for test in case.resolved.sheet.tests if test.key == key), None)
    return None if spec is None else form_of_spec(case, spec)


def form_of_spec(case: Case, spec: TestSpec) -> TestForm:
    """How a test of the sheet is recorded."""
    return (
        HoldForm(case, spec)
        if isinstance(spec, HoldTest)
        else FiguresForm(case, spec, case.resolved.figure_tests[spec.key])
    )

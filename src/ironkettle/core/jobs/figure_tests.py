"""A test told in figures, as a job has it: its kind with the sheet's figures, what is asked, and what it comes to."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from pydantic import ValidationError

from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.quantities import Dimension, read_gauge_pressure
from ironkettle.core.base.wording import plain_words
from ironkettle.core.jobs.ask import Ask
from ironkettle.core.jobs.runs import GaugeUsed, Judgement, ResultTold
from ironkettle.core.machine.tests import (
    TRIALS,
    BoundTest,
    Instrument,
    Outcome,
    Result,
    TrialPlan,
    in_unit,
    interval_words,
    shown,
    within_words,
)
from ironkettle.core.sheets.document.facts import cylinder_of
from ironkettle.core.sheets.document.parts import Read
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.trials import FunctionTest, TestSpec

_IN_WORDS = "function"


@dataclass(frozen=True, slots=True)
class FigureTest:
    """A test of a sheet as its kind reads it. ``unreadable``: why its figures cannot be read, so that it is recorded in words."""

    bound: BoundTest
    unreadable: str | None = None

    def outcome(self, record: Mapping[str, object], gauge: GaugeUsed | None) -> Outcome:
        """What a run comes to. Raises RuleError naming the fields under ``record`` for what cannot be read."""
        try:
            return self.bound.analyse(record, self.instrument(gauge))
        except ValidationError as error:
            raise RuleError(
                FieldFault(
                    _path(error_of_field["loc"]),
                    plain_words(error_of_field["type"], error_of_field["msg"], error_of_field.get("ctx") or {}),
                )
                for error_of_field in error.errors()
            ) from None
        except RuleError as error:
            raise RuleError(fault.under("record") for fault in error.faults) from None

    def plan(self, gauge: GaugeUsed | None) -> TrialPlan:
        """How it is run on a gauge."""
        return self.bound.plan(self.instrument(gauge))

    def instrument(self, gauge: GaugeUsed | None) -> Instrument:
        """The gauge as this kind reads it; unknown for what is read on none of the shop's."""
        if gauge is None or not self.reads_pressure:
            return Instrument()
        step, reach = (read_gauge_pressure(text, "gauge") for text in (gauge.resolution, gauge.range))
        return Instrument(step, gauge.accuracy_pct, reach)

    @property
    def reads_pressure(self) -> bool:
        return self.bound.plan(Instrument()).dimension is Dimension.PRESSURE

    @property
    def asks(self) -> tuple[Ask, ...]:
        return tuple(
            Ask(
                f"record.{figure.path}", Read(figure.read), figure.label, unit=figure.unit, limit=figure.good, optional=figure.optional,
                hint=figure.hint,
            )
            for figure in self.bound.wanted
        )  # fmt: skip


def figure_test_of(sheet: Sheet, spec: TestSpec) -> FigureTest | None:
    """A test as its kind reads it; None for a hold, which has a trace.

    Where the figures of the sheet cannot be read by the kind's rule it is recorded in words, with the sheet's own as its sign.
    """
    trial = TRIALS.get(spec.kind)
    if trial is None:
        return None
    try:
        return FigureTest(trial.bound({**_cylinder(sheet), **spec.model_dump(by_alias=True, exclude_defaults=True)}))
    except (ValidationError, RuleError) as error:
        unreadable = error.errors()[0]["msg"] if isinstance(error, ValidationError) else error.faults[0].message
        return FigureTest(TRIALS[_IN_WORDS].bound({"sign": written_figures(spec)}), unreadable)


def _cylinder(sheet: Sheet) -> dict[str, str]:
    if sheet.cylinder is None:
        return {}
    cylinder = cylinder_of(sheet)
    # No more oil is under load than a full stroke holds.
    most = {"volume": f"{max(cylinder.cap_area, cylinder.rod_area) * cylinder.stroke / 1000:.6g} ml"}
    return most | {"bore": f"{cylinder.bore:g} mm", **({"rod": f"{cylinder.rod:g} mm"} if cylinder.rod else {})}


def _path(loc: tuple[int | str, ...]) -> str:
    return ".".join(["record", *(str(part) for part in loc)])


_FIGURE_WORDS = {
    "value": "", "limit": "limit", "lock_up": "lock-up", "spread": "spread", "reseat": "reseat", "floor": "never below",
    "ceiling": "never above", "breakaway": "breakaway", "running": "running", "to": "to", "within": "within",
}  # fmt: skip


def written_figures(spec: TestSpec) -> str:
    """The figures of a sheet as they are written, in words."""
    if isinstance(spec, FunctionTest):
        return spec.sign
    written = spec.model_dump(mode="json")
    figures = [f"{words} {written[name]}".strip() for name, words in _FIGURE_WORDS.items() if written.get(name)]
    return f"{written.get('what') or written.get('quantity') or spec.name}: {', '.join(figures)}"


def in_words(record: Mapping[str, object]) -> str:
    """What was read, as it was written, in one line."""
    if set(record) <= {"seen", "value", "times"}:
        value = record.get("value")
        return f"{'seen' if record.get('seen') else 'not seen'}{f', {value}' if value else ''}"
    return "; ".join(line for key, value in record.items() if (line := _line(key, value)))


def _line(key: str, value: object) -> str:
    name = key.replace("_", " ")
    if isinstance(value, list):
        rows = [_row(row) for row in value[:12]]
        more = f" … {len(value)} in all" if len(value) > 12 else ""
        return f"{name} {', '.join(rows)}{more}" if rows else ""
    if isinstance(value, bool):
        return f"{name}: {'yes' if value else 'no'}"
    return f"{name} {value}" if value not in (None, "") else ""


def _row(row: object) -> str:
    """A reading of a list, with the second it was read at where it has one."""
    if not isinstance(row, dict):
        return str(row)
    read = ", ".join(str(value) for key, value in row.items() if key != "t_s")
    at = row.get("t_s")
    return f"{read} at {at:g} s" if isinstance(at, int | float) else read


def judged_of(test: FigureTest, outcome: Outcome) -> Judgement:
    """What a run came to, in words that stand by themselves on a certificate."""
    return Judgement(
        verdict=outcome.verdict,
        limit=test.bound.says,
        wanted="",
        words=[finding.message for finding in outcome.findings if finding.severity != "info"],
        results=[_told(result) for result in outcome.results],
    )


def _told(result: Result) -> ResultTold:
    return ResultTold(
        key=result.key,
        name=result.name,
        value=in_unit(result.value, result.unit),
        shown=shown(result.value, result.unit),
        interval=interval_words(result),
        within=within_words(result),
        verdict=result.verdict,
    )

"""Tools used past their calibration, as a certificate states it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date

from ironkettle.core.base.dates import shown_day
from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed


def past_calibration(uses: Iterable[tuple[WrenchUsed | GaugeUsed, date]]) -> Iterator[str]:
    """A sentence for each tool that was used after its calibration had ended; each with the day it was used."""
    ended = {
        tool.name: tool.calibrated_until for tool, day in uses if tool.calibrated_until and day > tool.calibrated_until
    }
    for name, until in ended.items():
        yield f"{name} was used past its calibration, which ended on {shown_day(until)}."

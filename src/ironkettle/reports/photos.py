"""The photos chosen for the certificate, before and after side by side, with what is drawn on them."""

from __future__ import annotations

import io
from collections.abc import Mapping, Sequence

from reportlab.lib.utils import ImageReader
from reportlab.platypus import Flowable, KeepTogether, Spacer, Table

from ironkettle.core.jobs.kinds.photo import PhotoTaken
from ironkettle.reports.pieces import WIDTH, paragraph, title
from ironkettle.reports.style import BOLD, FAIL, FAINT

_GAP = 8.0
_MOST_HIGH = 230.0
_SIDE_BY_SIDE = 2


class _Photo(Flowable):  # type: ignore[misc]
    """A photo with its arrows and circles drawn over it. [pt]"""

    def __init__(self, content: bytes, photo: PhotoTaken, wide: float) -> None:
        super().__init__()
        self._reader, self._photo = ImageReader(io.BytesIO(content)), photo
        width, height = self._reader.getSize()
        scale = min(wide / width, _MOST_HIGH / height)
        self.width, self.height = width * scale, height * scale

    def wrap(self, _wide: float, _high: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        canvas = self.canv
        canvas.drawImage(self._reader, 0, 0, self.width, self.height)
        canvas.setStrokeColor(FAIL)
        canvas.setFillColor(FAIL)
        canvas.setLineWidth(2)
        for arrow in self._photo.arrows:
            (x0, y0), (x1, y1) = (self._at(arrow.start), self._at(arrow.end))
            canvas.line(x0, y0, x1, y1)
            canvas.circle(x1, y1, 3, fill=1)
            self._name(arrow.word, x0, y0)
        for circle in self._photo.circles:
            x, y = self._at(circle.at)
            radius = circle.radius * self.width
            canvas.circle(x, y, radius, fill=0)
            self._name(circle.word, x - radius, min(y + radius, self.height - 10))

    def _name(self, word: str, x: float, y: float) -> None:
        if word:
            self.canv.setFont(BOLD, 8)
            self.canv.drawString(max(0.0, min(x, self.width - 60)), y + 3, word)

    def _at(self, share: tuple[float, float]) -> tuple[float, float]:
        # Shares run from the top, points from the bottom.
        return share[0] * self.width, (1 - share[1]) * self.height


def photos_section(chosen: Sequence[PhotoTaken], pictures: Mapping[str, bytes]) -> list[Flowable]:
    """The photos of an order, two in a row: those of the same place before and after stand beside each other."""
    there = sorted(
        (picture for picture in chosen if str(picture.photo) in pictures),
        key=lambda picture: (picture.about or "", picture.time == "after"),
    )
    if not there:
        return []
    wide = (WIDTH - _GAP) / _SIDE_BY_SIDE
    cells: list[list[Flowable]] = []
    for photo in there:
        words = ", ".join(part for part in (photo.time or "", photo.words) if part) or "photo"
        cells.append([_Photo(pictures[str(photo.photo)], photo, wide), paragraph(words, 8, colour=FAINT)])
    rows = [cells[at : at + _SIDE_BY_SIDE] for at in range(0, len(cells), _SIDE_BY_SIDE)]
    tables = [
        KeepTogether([Table([[*row, *[""] * (_SIDE_BY_SIDE - len(row))]], colWidths=[WIDTH / 2] * 2), Spacer(1, 4)])
        for row in rows
    ]
    return [KeepTogether([title("Photos"), tables[0]]), *tables[1:]]

"""The section drawing on paper: the same picture as on the screen, as vector shapes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace

from reportlab.graphics.shapes import FILL_EVEN_ODD, Drawing, Line, Path, Polygon, String
from reportlab.lib.colors import Color, HexColor, white

from ironkettle.core.sheets.drawing import Picture
from ironkettle.core.sheets.drawing.picture import ElementPicture, Shape
from ironkettle.reports.style import COPPER, FAINT, INK, IRON, REGULAR, RUBBER, TINT

_NEAR = 9.0
_TALLEST = 260.0
_METAL = (HexColor("#d6d1cb"), IRON, HexColor("#8f8a84"))
_RIGID = HexColor("#b98a4a")


class _Plane:
    """From millimetres in the section to points on the paper."""

    def __init__(self, picture: Picture, width: float) -> None:
        z0, r0, z1, r1 = picture.extent
        self.mirrored = r0 >= 0
        self.low = -r1 if self.mirrored else r0
        self.scale = min(width / max(z1 - z0, 1e-6), _TALLEST / max(r1 - self.low, 1e-6))
        self.height = (r1 - self.low) * self.scale
        self.start = z0 - (width / self.scale - (z1 - z0)) / 2
        self.signs = (1, -1) if self.mirrored else (1,)

    def x(self, z: float) -> float:
        return (z - self.start) * self.scale

    def y(self, r: float, sign: int = 1) -> float:
        return 8 + (sign * r - self.low) * self.scale

    def points(self, ring: Iterable[tuple[float, float]], sign: int) -> list[float]:
        return [value for z, r in ring for value in (self.x(z), self.y(r, sign))]


def first_of_each(picture: Picture) -> Picture:
    """Of places that are there several times, all drawn in one spot, only those of the first position."""
    positions = [*(station.position for station in picture.stations), *(part.position for part in picture.parts)]
    first = next((position for position in positions if position), None)
    stations = tuple(station for station in picture.stations if station.position in {None, first})
    keys = {station.key for station in stations}
    return replace(
        picture,
        stations=stations,
        parts=tuple(part for part in picture.parts if part.position in {None, first}),
        elements=tuple(element for element in picture.elements if element.station in keys),
    )


def section_drawing(picture: Picture, facing: Mapping[str, str], width: float) -> Drawing:
    """The picture scaled to a width in points; ``facing`` gives the zone each directed element faces."""
    plane = _Plane(picture, width)
    # Two rows of numbers stand above the drawing: near neighbours take the upper one.
    drawing = Drawing(width, plane.height + 34)
    for sign in plane.signs:
        for zone in picture.zones:
            if zone.kind != "atmosphere":
                _shapes(drawing, plane, zone.shapes, sign, _tint(zone.share), None)
        for order, part in enumerate(picture.parts):
            _shapes(drawing, plane, part.shapes, sign, _METAL[order % 3], INK)
        for element in picture.elements:
            z0, r0, z1, r1 = element.box
            cavity = plane.points(((z0, r0), (z1, r0), (z1, r1), (z0, r1)), sign)
            drawing.add(Polygon(cavity, fillColor=white, strokeColor=INK, strokeWidth=0.3))
            fill = _RIGID if element.rigid else RUBBER
            outline = plane.points(_outline(element, facing), sign)
            drawing.add(Polygon(outline, fillColor=fill, strokeColor=INK, strokeWidth=0.3))
    if plane.mirrored:
        axis = plane.y(0)
        drawing.add(Line(0, axis, width, axis, strokeColor=FAINT, strokeWidth=0.4, strokeDashArray=[8, 2, 2, 2]))
    _numbers(drawing, plane, picture)
    return drawing


def _shapes(
    drawing: Drawing, plane: _Plane, shapes: Iterable[Shape], sign: int, fill: Color, stroke: Color | None
) -> None:
    for shape in shapes:
        path = Path(fillColor=fill, strokeColor=stroke, strokeWidth=0.4, fillMode=FILL_EVEN_ODD)
        for ring in (shape.outer, *shape.holes):
            first, *others = ring
            path.moveTo(plane.x(first[0]), plane.y(first[1], sign))
            for z, r in others:
                path.lineTo(plane.x(z), plane.y(r, sign))
            path.closePath()
        drawing.add(path)


def _numbers(drawing: Drawing, plane: _Plane, picture: Picture) -> None:
    last_x, raised = {0: -_NEAR, 1: -_NEAR}, {}
    middles = {
        number: plane.x((station.box[0] + station.box[2]) / 2)
        for number, station in enumerate(picture.stations, start=1)
    }
    for number, x in sorted(middles.items(), key=lambda pair: pair[1]):
        raised[number] = int(x - last_x[0] < _NEAR)
        last_x[raised[number]] = x
    for number, station in enumerate(picture.stations, start=1):
        x, top = middles[number], plane.height + 16 + 8 * raised[number]
        aside = x + _NEAR * raised[number]
        drawing.add(Line(x, plane.y(station.box[3]), aside, top, strokeColor=COPPER, strokeWidth=0.5))
        word = String(aside, top + 1, str(number), fontName=REGULAR, fontSize=7, fillColor=COPPER, textAnchor="middle")
        drawing.add(word)


def _outline(element: ElementPicture, facing: Mapping[str, str]) -> tuple[tuple[float, float], ...]:
    towards = facing.get(element.key) or element.faces or "-"
    return element.outlines.get(towards) or next(iter(element.outlines.values()))


def _tint(share: float) -> Color:
    return Color(1 - (1 - TINT.red) * share, 1 - (1 - TINT.green) * share, 1 - (1 - TINT.blue) * share)

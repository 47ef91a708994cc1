"""The section drawing on paper: the same scene as on the screen, as vector shapes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from reportlab.graphics.shapes import Drawing, Line, Polygon, String
from reportlab.lib.colors import Color, HexColor, white

from ironkettle.core.drawings import ElementShape, Scene
from ironkettle.reports.style import COPPER, FAINT, INK, IRON, REGULAR, RUBBER, TINT

_NEAR = 9.0
_MATERIAL = {"housing": HexColor("#d6d1cb"), "moving": IRON, "fastener": HexColor("#8f8a84")}
_SOFT = {"o_ring": RUBBER, "wear_band": HexColor("#b98a4a"), "backup_ring": HexColor("#e9e3da")}


def section_drawing(scene: Scene, facing: Mapping[str, str], width: float) -> Drawing:
    """The scene scaled to a width in points; ``facing`` gives the zone each directed element faces."""
    start, end, radius = scene.extent
    scale = width / (end - start)
    height = 2 * radius * scale + 16
    # Two rows of numbers stand above the drawing: near neighbours take the upper one.
    axis = height / 2
    drawing = Drawing(width, height + 8)

    def place(points: Iterable[tuple[float, float]], sign: int) -> list[float]:
        return [value for z, r in points for value in ((z - start) * scale, axis + sign * r * scale)]

    for sign in (1, -1):
        for zone in scene.zones:
            for area in zone.areas:
                drawing.add(Polygon(place(area, sign), fillColor=_tint(zone.share), strokeColor=None))
        for part in scene.parts:
            fill = _MATERIAL[part.material]
            drawing.add(Polygon(place(part.outline, sign), fillColor=fill, strokeColor=INK, strokeWidth=0.5))
        for station in scene.stations:
            for element in station.elements:
                z0, r0, z1, r1 = element.box
                cavity = ((z0, r0), (z1, r0), (z1, r1), (z0, r1))
                drawing.add(Polygon(place(cavity, sign), fillColor=white, strokeColor=INK, strokeWidth=0.3))
                fill = _SOFT.get(element.kind, RUBBER)
                drawing.add(
                    Polygon(place(_outline(element, facing), sign), fillColor=fill, strokeColor=INK, strokeWidth=0.3)
                )
    drawing.add(Line(0, axis, width, axis, strokeColor=FAINT, strokeWidth=0.4, strokeDashArray=[8, 2, 2, 2]))
    last_x, raised = {0: -_NEAR, 1: -_NEAR}, {}
    for number, station in sorted(enumerate(scene.stations, start=1), key=lambda pair: pair[1].box[0] + pair[1].box[2]):
        x = ((station.box[0] + station.box[2]) / 2 - start) * scale
        raised[number] = int(x - last_x[0] < _NEAR)
        last_x[raised[number]] = x
    for number, station in enumerate(scene.stations, start=1):
        z0, _, z1, r1 = station.box
        x = ((z0 + z1) / 2 - start) * scale
        top, aside = height - 9 + 8 * raised[number], x + _NEAR * raised[number]
        drawing.add(Line(x, axis + r1 * scale, aside, top, strokeColor=COPPER, strokeWidth=0.5))
        drawing.add(
            String(aside, top + 1, str(number), fontName=REGULAR, fontSize=7, fillColor=COPPER, textAnchor="middle")
        )
    return drawing


def _outline(element: ElementShape, facing: Mapping[str, str]) -> tuple[tuple[float, float], ...]:
    towards = facing.get(element.key) or element.faces or "-"
    return element.outlines.get(towards) or next(iter(element.outlines.values()))


def _tint(share: float) -> Color:
    return Color(1 - (1 - TINT.red) * share, 1 - (1 - TINT.green) * share, 1 - (1 - TINT.blue) * share)

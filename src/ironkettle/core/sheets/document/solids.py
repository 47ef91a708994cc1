"""The primitives a solid is built from. Plain numbers are millimetres, radii are off the solid's own axis."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, PlainSerializer, model_validator

from ironkettle.core.sheets.document.fields import Key, Millimetres, Place, Radius, Strict


class _Along(Strict):
    """Between two places along the axis; YAML's ``from`` and ``to``."""

    start: Millimetres = Field(alias="from")
    end: Millimetres = Field(alias="to")

    @model_validator(mode="after")
    def _runs_forward(self) -> _Along:
        if self.start >= self.end:
            raise ValueError(f"from {self.start:g} to {self.end:g} runs backwards; small z comes first")
        return self


class _Ring(_Along):
    inner: Radius = 0.0
    outer: Radius

    @model_validator(mode="after")
    def _has_wall(self) -> _Ring:
        if self.inner >= self.outer:
            raise ValueError(f"inner {self.inner:g} is not below outer {self.outer:g}")
        return self


class Tube(_Ring):
    shape: Literal["tube"] = "tube"
    inner: Radius


class Plate(_Ring):
    shape: Literal["plate"] = "plate"


class Bar(_Along):
    shape: Literal["bar"] = "bar"
    outer: Radius


class Shut(_Ring):
    """Closes the picture in the proof where a neighbour would; no metal."""

    shape: Literal["shut"] = "shut"


class Cone(_Along):
    shape: Literal["cone"] = "cone"
    outer: tuple[Radius, Radius]
    inner: tuple[Radius, Radius] = (0.0, 0.0)

    @model_validator(mode="after")
    def _has_wall(self) -> Cone:
        if any(inner > outer for inner, outer in zip(self.inner, self.outer, strict=True)):
            raise ValueError("inner lies outside outer")
        return self


class Ball(Strict):
    shape: Literal["ball"] = "ball"
    at: Millimetres | Place
    radius: Annotated[Radius, Field(ge=0.01)]


class Pin(Strict):
    shape: Literal["pin"] = "pin"
    at: Place
    radius: Annotated[Radius, Field(ge=0.01)]


class Spring(_Ring):
    shape: Literal["spring"] = "spring"
    inner: Radius
    wire: Annotated[Radius, Field(ge=0.01)]


class Port(Strict):
    """A radial hole, shut at its mouth."""

    shape: Literal["port"] = "port"
    at: Millimetres
    radius: Annotated[Radius, Field(ge=0.01)]
    start: Radius = Field(alias="from")
    end: Radius = Field(alias="to")
    zone: Key


class Passage(Strict):
    """Joins its two ends; cuts nothing between."""

    shape: Literal["passage"] = "passage"
    start: Place = Field(alias="from")
    end: Place = Field(alias="to")
    zone: Key


class Outline(Strict):
    shape: Literal["outline"] = "outline"
    points: Annotated[list[Place], Field(min_length=3, max_length=400)]


Primitive = Annotated[
    Tube | Plate | Bar | Shut | Cone | Ball | Pin | Spring | Port | Passage | Outline, Field(discriminator="shape")
]
SHAPES = ("tube", "plate", "bar", "shut", "cone", "ball", "pin", "spring", "port", "passage", "outline")


def _as_primitive(value: Any) -> Any:
    """``{tube: {from: 0, …}}`` as ``{shape: tube, from: 0, …}``; an outline's points stand under its name."""
    if not isinstance(value, dict) or "shape" in value:
        return value
    named = [shape for shape in SHAPES if shape in value]
    if len(named) != 1 or len(value) != 1:
        return value
    inside = value[named[0]]
    if named[0] == "outline" and isinstance(inside, list | tuple):
        return {"shape": "outline", "points": inside}
    return {"shape": named[0], **inside} if isinstance(inside, dict) else value


Cut = Annotated[Primitive, BeforeValidator(_as_primitive)]


class Solid(Strict):
    """One primitive, what is cut from it, the view it is drawn in and the radius of its own axis. [mm]"""

    body: Primitive | None = None
    cut: list[Cut] = Field(default_factory=list)
    view: Key | None = None
    axis: Millimetres = 0.0


def as_solids(value: Any) -> Any:
    """A part's ``solid`` as a list of ``Solid``: one mapping or several, each naming its primitives."""
    if value is None:
        return []
    items = value if isinstance(value, list | tuple) else [value]
    solids: list[Any] = []
    for item in items:
        if not isinstance(item, dict) or "body" in item:
            solids.append(item)
            continue
        shared = {name: item[name] for name in ("cut", "view", "axis") if name in item}
        bodies = [_as_primitive({shape: item[shape]}) for shape in SHAPES if shape in item]
        unknown = {name: v for name, v in item.items() if name not in SHAPES and name not in shared}
        if "shape" in item:
            solids.append({"body": {name: v for name, v in item.items() if name not in shared}, **shared})
        elif not bodies:
            solids.append({**item})
        else:
            solids += [{"body": _taking(body, shared), **shared, **unknown} for body in bodies]
    return solids


def _taking(body: Any, shared: dict[str, Any]) -> Any:
    """A primitive may carry its view, axis and cuts inside; they belong to the solid."""
    if isinstance(body, dict):
        for name in ("cut", "view", "axis"):
            if name in body:
                shared.setdefault(name, body[name])
        return {name: v for name, v in body.items() if name not in {"cut", "view", "axis"}}
    return body


def as_written(solids: list[Solid]) -> list[dict[str, Any]]:
    """Solids as a sheet writes them, each primitive under its name."""
    found = []
    for solid in solids:
        written: dict[str, Any] = {} if solid.body is None else _named(solid.body)
        if solid.cut:
            written["cut"] = [_named(cut) for cut in solid.cut]
        if solid.view is not None:
            written["view"] = solid.view
        if solid.axis:
            written["axis"] = solid.axis
        found.append(written)
    return found


def _named(primitive: Strict) -> dict[str, Any]:
    fields = primitive.model_dump(mode="json", by_alias=True, exclude_defaults=True, exclude={"shape"})
    shape: str = primitive.shape  # type: ignore[attr-defined]
    return {shape: fields["points"] if shape == "outline" else fields}


Solids = Annotated[list[Solid], BeforeValidator(as_solids), PlainSerializer(as_written)]

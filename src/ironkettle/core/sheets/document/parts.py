"""Parts: everything that comes off, is looked at, or must stay; what is read off them and what becomes of them."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Any, Literal, TypeAlias, get_args

from pydantic import BaseModel, BeforeValidator, Field

from ironkettle.core.sheets.document.fields import Item, Key, Keyed, Name, Named, Place, Pressure, Strict, Text, Written
from ironkettle.core.sheets.document.solids import Cut, Solids


class Material(StrEnum):
    STEEL = "steel"
    STAINLESS = "stainless steel"
    CHROMED_STEEL = "chromed steel"
    CAST_IRON = "cast iron"
    ALUMINIUM = "aluminium"
    BRASS = "brass"
    BRONZE = "bronze"
    PLASTIC = "plastic"
    RUBBER = "rubber"
    CERAMIC = "ceramic"
    CARBIDE = "carbide"
    GLASS = "glass"
    WOOD = "wood"
    LEATHER = "leather"
    PAPER = "paper"

    @property
    def soft(self) -> bool:
        """Whether a steel tool or a full torque spoils it."""
        return self not in {
            Material.STEEL, Material.STAINLESS, Material.CHROMED_STEEL, Material.CAST_IRON, Material.CERAMIC,
            Material.CARBIDE,
        }  # fmt: skip


class Fate(StrEnum):
    KEEP = "keep"
    RENEW = "renew"
    ONE_USE = "one_use"
    JUDGE = "judge"
    LEAVE = "leave"


class Read(StrEnum):
    """What a person is asked for."""

    CHOICE = "choice"
    ZONE = "zone"
    LOOK = "look"
    GO_NO_GO = "go_no_go"
    YES_NO = "yes_no"
    LENGTH = "length"
    TORQUE = "torque"
    PRESSURE = "pressure"
    ANGLE = "angle"
    TIME = "time"
    FLOW = "flow"
    VOLUME = "volume"
    TEMPERATURE = "temperature"
    FORCE = "force"
    SPEED = "speed"
    NUMBER = "number"
    TEXT = "text"
    PHOTO = "photo"
    TRACE = "trace"


class PartMark(Strict):
    """A mark that shows a part's right way round, and what it faces: a zone, or words."""

    word: Text
    faces: Text | None = None


class Dress(Strict):
    """Up to which reading a fault may be dressed out, how, and what it costs; ``pits``: only where the shop dresses pits.

    ``of``: of several signs those that can be dressed out; all where none is named.
    """

    to: Text
    how: Text | None = None
    caution: Text | None = None
    costs: Text | None = None
    pits: bool = False
    of: list[Text] = Field(default_factory=list)


class _Point(Keyed):
    """A point of inspection. ``else``: what follows when it is not as it must be; ``at``: where it lies in the drawing, ``view`` in which."""

    ask: Text
    dress: Dress | None = None
    otherwise: Literal["replace", "send_out", "judge", "reuse", "dress"] = Field(default="replace", alias="else")
    at: Place | None = None
    view: Key | None = None
    caution: Text | None = None
    why: Text | None = None


class LookPoint(_Point):
    """Something looked for: ``bad`` are the signs that speak against the part."""

    read: Literal[Read.LOOK]
    bad: list[Text] = Field(default_factory=list)


class YesNoPoint(_Point):
    """A question, or a gauge that goes or does not."""

    read: Literal[Read.YES_NO, Read.GO_NO_GO]


class MeasuredPoint(_Point):
    """Something measured, at so many ``places``. ``rule``: the shop's limit it is held against where it has none of its own."""

    read: Literal[
        Read.LENGTH, Read.TORQUE, Read.PRESSURE, Read.ANGLE, Read.TIME, Read.FLOW, Read.VOLUME, Read.TEMPERATURE, Read.FORCE,
        Read.SPEED, Read.NUMBER,
    ]  # fmt: skip
    places: int = Field(default=1, ge=1, le=24)
    compute: Literal["ovality", "wear", "taper", "mean", "flatness", "run_out", "difference", "sum"] | None = None
    nominal: Written | None = None
    limit: Text | None = None
    rule: Key | None = None
    unit: Text | None = None


class WordPoint(_Point):
    """Something put into words."""

    read: Literal[Read.TEXT]


PointSpec: TypeAlias = LookPoint | YesNoPoint | MeasuredPoint | WordPoint
POINTS: tuple[type[BaseModel], ...] = get_args(PointSpec)


def _marks(value: Any) -> Any:
    return [{"word": item} if isinstance(item, str) else item for item in value] if isinstance(value, list) else value


class PartSpec(Named):
    """``rated``: its own pressure rating; the weakest decides. ``leave``: never taken off, ``why`` says so."""

    count: int = Field(default=1, ge=1, le=200)
    rated: Pressure | None = None
    material: Material | None = None
    fate: Fate = Fate.KEEP
    why: Text | None = None
    marks: Annotated[list[PartMark], BeforeValidator(_marks)] = Field(default_factory=list)
    delicate: Text | None = None
    points: list[Annotated[PointSpec, Field(discriminator="read")]] = Field(default_factory=list)
    solid: Solids = Field(default_factory=list)
    cut: list[Cut] = Field(default_factory=list)


class Choice(Strict):
    """``refuses``: why a unit that is so is not worked by this sheet; answering so is refused with these words."""

    key: Key
    says: Text
    sign: Text | None = None
    refuses: Text | None = None


class QuestionSpec(Keyed):
    """What differs between units of this kind; asked at intake, or at the step where it can be seen."""

    ask: Text
    seen_at: Name | None = None
    choices: list[Choice] = Field(min_length=2, max_length=20)


class Rung(Keyed):
    """One way of getting a part off, the gentlest first; ``may``: what it may spoil.

    ``uses``: cleaners and lubricants put on, by the lists; ``hot``: heat comes with it. What its words give
    away counts too.
    """

    do: Text
    may: Text | None = None
    caution: Text | None = None
    never: Text | None = None
    uses: list[Text] = Field(default_factory=list)
    hot: bool = False
    reads: list[PointName] = Field(default_factory=list)


class PointName(Strict):
    part: Name
    point: Key


class LadderSpec(Item):
    part: Name
    rungs: list[Rung] = Field(min_length=1)
    stop: Text | None = None


Rung.model_rebuild()

"""Changes of a placement in which a rule says what comes with what a hand has done."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import Field

from skypane.changes import with_area_renamed
from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE
from skypane.handing_down import OF_ORIGINAL, Handed, Values
from skypane.layouts import layout_of
from skypane.model import (
    Part,
    PartIndex,
    Placement,
    Role,
    Site,
    Treatment,
    When,
)
from skypane.model.frame import Letter
from skypane.model.original import AreaName
from skypane.treatments import (
    FIELDS,
    handed_of_kind,
    layers_below,
    own_values,
    resolve,
    with_fields,
)
from skypane.values import Noun
from skypane.widths.spans import spans_of


class OriginalGiven(Noun):
    """An original for a part in one span. The first one of a part is for every width, whatever span
    was chosen: the widest hands it down."""

    kind: Literal["original"] = "original"
    part: PartIndex
    letter: Letter
    original: int


class RoleGiven(Noun):
    """An original for what lies on the picture, in one span; there is such a part from then on."""

    kind: Literal["role"] = "role"
    role: Role
    letter: Letter
    original: int


class VariantSet(Noun):
    """Values of what shows in the place of a part under conditions, in one span. There is such a
    part from then on; none that shows the usual one in every span. `gone` are fields that the span
    takes back."""

    kind: Literal["variant"] = "variant"
    part: PartIndex
    when: Annotated[When, Field(min_length=1)]
    letter: Letter
    treatment: Treatment = Treatment()
    gone: Annotated[tuple[str, ...], Field(max_length=len(FIELDS))] = ()


class AreaRenamed(Noun):
    """An area of an original called otherwise: whatever names it follows."""

    kind: Literal["area"] = "area"
    original: int
    before: AreaName
    after: AreaName


class _OfStep(Noun):
    """Values that were set in one span: of a part, of all parts, and of the kind itself."""

    part: PartIndex
    letter: Letter
    treatment: Treatment = Treatment()
    common: Treatment = Treatment()
    layout: dict[str, Any] = Field(default_factory=dict)


class InAllSpans(_OfStep):
    """What was set in one span, for all of them: the widest sets it, and no other one sets it
    otherwise."""

    kind: Literal["all-spans"] = "all-spans"


class OnlyThere(_OfStep):
    """What was set in one span, for that span alone: the next narrower one shows what it showed in
    the placement `before`, where it would be handed down what was set."""

    kind: Literal["only-there"] = "only-there"
    before: Placement


Edit = Annotated[
    OriginalGiven | RoleGiven | VariantSet | AreaRenamed | InAllSpans | OnlyThere,
    Field(discriminator="kind"),
]

#: The names of the keep areas of originals, by their numbers.
AreaNames = Mapping[int, tuple[str, ...]]


def edited(site: Site, placement: Placement, edit: Edit, areas: AreaNames) -> Placement:
    """The placement after an edit. `areas` are those of the originals that it shows. Raises
    InvalidPlan for a span or a part that is not there."""
    _check(site, placement, edit)
    match edit:
        case OriginalGiven():
            return _given(site, placement, edit.part, edit.letter, edit.original)
        case RoleGiven():
            return _with_role(site, placement, edit)
        case VariantSet():
            return _with_variant(placement, edit)
        case AreaRenamed():
            names = (edit.before, edit.after)
            return with_area_renamed(site, placement, edit.original, names)
        case InAllSpans():
            return _in_all_spans(site, placement, edit)
        case OnlyThere():
            return _only_there(site, placement, edit, areas)


def _check(site: Site, placement: Placement, edit: Edit) -> None:
    letter, part = getattr(edit, "letter", None), getattr(edit, "part", 0)
    if letter is not None and letter not in {s.letter for s in spans_of(site)}:
        raise InvalidPlan(f"There is no span {letter} in this site.", field="edit.letter")
    parts = [len(placement.parts)]
    if isinstance(edit, OnlyThere):
        parts.append(len(edit.before.parts))
    if part >= min(parts):
        raise InvalidPlan(f"There is no part {part} in this placement.", field="edit.part")


def _given(site: Site, placement: Placement, part: int, letter: str, original: int) -> Placement:
    is_first = all(t.original is None for t in placement.parts[part].treatments.values())
    where = spans_of(site)[-1].letter if is_first else letter
    if is_first:
        placement = layout_of(placement).with_first(placement, where, original)
    return _treated(placement, part, where, {"original": original})


def _with_role(site: Site, placement: Placement, edit: RoleGiven) -> Placement:
    at = next((i for i, p in enumerate(placement.parts) if p.role == edit.role), None)
    if at is None:
        at, parts = len(placement.usual), list(placement.parts)
        parts.insert(at, Part(role=edit.role))
        placement = placement.model_copy(update={"parts": tuple(parts)})
    return _given(site, placement, at, edit.letter, edit.original)


def _with_variant(placement: Placement, edit: VariantSet) -> Placement:
    usual = placement.parts[edit.part]
    if usual.of is not None:
        raise InvalidPlan("What shows under conditions has no other one.", field="edit.part")
    key = usual.key or _free_key(placement)
    parts = list(placement.with_part(edit.part, usual.model_copy(update={"key": key})).parts)
    at = next((i for i, p in enumerate(parts) if (p.of, p.when) == (key, edit.when)), None)
    if at is None:
        at = len(parts)
        parts.append(Part(of=key, when=edit.when))
    placement = placement.model_copy(update={"parts": tuple(parts)})
    gone = dict.fromkeys(f for f in edit.gone if f in FIELDS)
    values = {**gone, **own_values(edit.treatment)}
    placement = _treated(placement, at, edit.letter, values)
    own = [own_values(t) for t in placement.parts[at].treatments.values()]
    if any(v != {"show": "usual"} for v in own if v):
        return placement
    left = (*placement.parts[:at], *placement.parts[at + 1 :])
    return placement.model_copy(update={"parts": left})


def _free_key(placement: Placement) -> str:
    """A key that no part has."""
    taken = {p.key for p in placement.parts}
    return next(k for n in range(1, len(taken) + 2) if (k := str(n)) not in taken)


def _in_all_spans(site: Site, placement: Placement, edit: InAllSpans) -> Placement:
    letters = [s.letter for s in spans_of(site)]
    below = layers_below(site, placement)
    values, common = own_values(edit.treatment), own_values(edit.common)
    gone = dict.fromkeys((*values, *(OF_ORIGINAL if "original" in values else ())))
    for letter in letters:
        widest = letter == letters[-1]
        # what all parts or the named frame set there would lie over what is handed down
        over = {
            f: v
            for f, v in values.items()
            if widest or any(f in layer.values.get(letter, ()) for layer in below)
        }
        placement = _treated(placement, edit.part, letter, {**gone, **over})
        if common:
            told = common if widest else dict.fromkeys(common)
            placement = _for_all(placement, letter, told)
        if edit.layout:
            told = edit.layout if widest else dict.fromkeys(edit.layout)
            placement = _of_kind(placement, letter, told)
    return placement


def _only_there(site: Site, placement: Placement, edit: OnlyThere, areas: AreaNames) -> Placement:
    letters = [s.letter for s in spans_of(site)]
    at = letters.index(edit.letter)
    if at == 0:
        return placement
    below = letters[at - 1]
    then = resolve(site, edit.before)[edit.part][below]
    now = resolve(site, placement)[edit.part][below]

    def had(field: str) -> Any:
        value = getattr(then.effective, field)
        if value is not None or field not in OF_ORIGINAL:
            return value
        return WHOLE if field == "crop" else areas.get(then.effective.original or 0)

    def kept(values: Values) -> dict[str, Any]:
        fields = [f for f in values if f not in now.handed.set_in(below)]
        if "original" in fields:
            fields += [f for f in OF_ORIGINAL if f not in fields]
        return {f: had(f) for f in fields}

    placement = _treated(placement, edit.part, below, kept(own_values(edit.treatment)))
    if common := kept(own_values(edit.common)):
        placement = _for_all(placement, below, common)
    held, before = handed_of_kind(site, placement)[below], _kind_values(site, edit.before, below)
    of_kind = {f: before.get(f) for f in edit.layout if f not in held.set_in(below)}
    return _of_kind(placement, below, of_kind) if of_kind else placement


def _kind_values(site: Site, placement: Placement, letter: str) -> Values:
    """The values of the kind in a span, defaults among them, as JSON."""
    held: Handed = handed_of_kind(site, placement)[letter]
    return layout_of(placement).values(held.values).model_dump(mode="json")


# -- values of one span: None takes one away -------------------------------------------------


def _treated(placement: Placement, part: int, letter: str, values: Values) -> Placement:
    mine = placement.parts[part]
    changed = {"treatments": with_fields(mine.treatments, letter, values)}
    return placement.with_part(part, mine.model_copy(update=changed))


def _for_all(placement: Placement, letter: str, values: Values) -> Placement:
    """What some parts set otherwise there gives way, so that it does hold for all."""
    parts = []
    for part in placement.parts:
        own = part.treatments.get(letter)
        if own is not None and part.of is None:
            rest = {f: v for f, v in own_values(own).items() if f not in values}
            treatments = {**part.treatments, letter: Treatment(**rest)}
            part = part.model_copy(update={"treatments": treatments})
        parts.append(part)
    common = with_fields(placement.common, letter, values)
    return placement.model_copy(update={"parts": tuple(parts), "common": common})


def _of_kind(placement: Placement, letter: str, values: Values) -> Placement:
    merged = {**placement.layout.get(letter, {}), **values}
    own = {f: v for f, v in merged.items() if v is not None}
    return placement.model_copy(update={"layout": {**placement.layout, letter: own}})

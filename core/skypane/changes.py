"""What differs between two versions of a placement, in a few words: names of steps in its history,
and of conflicts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from skypane.layouts import has_items, value_names
from skypane.model import MOST_AREAS, Area, Part, Placement, Site, Treatment, Treatments
from skypane.model.condition import when_words
from skypane.treatments import FIELDS, Resolved, resolve

WORDS = {
    "width": "width",
    "height": "height",
    "stands": "where it stands",
    "show": "what shows",
    "original": "original",
    "crop": "crop",
    "keeps": "areas that matter",
    "fit": "fit",
    "aim": "aim",
    "whole": "what the files carry",
    "background": "colour",
}


class Look(NamedTuple):
    """Where an original's focal point and areas are, and what it is called."""

    name: str
    focal: tuple[float, float]
    areas: tuple[Area, ...]


class Version(NamedTuple):
    """A placement with the looks of its originals, by id."""

    placement: Placement
    looks: Mapping[int, Look]


def differences(before: Version, after: Version) -> tuple[str, ...]:
    """One phrase per thing that differs, parts in their order, spans from the narrowest; empty
    where nothing does."""
    out: list[str] = []
    a, b = before.placement, after.placement
    if a.name != b.name:
        out.append("Name")
    if a.kind != b.kind:
        out.append(f"Now {b.kind}")
    if a.lead != b.lead:
        out.append("Loading")
    if (a.blurred, a.substitute) != (b.blurred, b.substitute):
        out.append("What shows until pictures are there")
    if a.words != b.words:
        out.append("Words")
    if a.one_of != b.one_of:
        out.append("The set that it is one of")
    names = {**value_names(a.kind), **value_names(b.kind)}
    out += _of_layout(a.layout, b.layout, names)
    under = [{u.when: u.layout for u in version.layout_under} for version in (a, b)]
    for when in dict.fromkeys((*under[0], *under[1])):
        of_when = _of_layout(under[0].get(when, {}), under[1].get(when, {}), names)
        out += [f"{phrase} {when_words(when)}" for phrase in of_when]
    if a.frame != b.frame:
        out.append("Named frame")
    if (a.lists, a.n_files) != (b.lists, b.n_files):
        out.append("Widths to export")
    if a.formats != b.formats:
        out.append("Formats")
    beside = tuple(
        {(_beside(p), p.of): _beside(p) for p in version.parts if _beside(p)} for version in (a, b)
    )
    out += [f"{_capital(name)} added" for of, name in beside[1].items() if of not in beside[0]]
    out += [f"{_capital(name)} removed" for of, name in beside[0].items() if of not in beside[1]]
    if len(a.parts) != len(b.parts) and not (beside[0] or beside[1]):
        out.append(_more_or_fewer(len(b.parts) - len(a.parts), b.kind))
    out += _of_treatments(a.common, b.common, " for all parts")
    if is_reordered(a.parts, b.parts):
        return (*out, "Order of the items")
    for index, (old, new) in enumerate(zip(a.parts, b.parts, strict=False)):
        named = _beside(new)
        if _beside(old) != named or old.of != new.of:
            continue
        where = f" of the {named}" if named else f" in part {index + 1}"
        where = where if len(b.parts) > 1 and (named or index) else ""
        if old.item != new.item:
            out.append(f"Caption of item {index + 1}")
        if old.alt != new.alt:
            out.append(f"Alt text{where}")
        for letter in sorted({*old.ladders, *new.ladders}):
            if old.ladders.get(letter) != new.ladders.get(letter):
                out.append(f"Widths to export of span {letter}{where}")
        out += _of_treatments(old.treatments, new.treatments, where)
    for id_ in sorted({*before.looks} & {*after.looks}):
        out += _of_look(before.looks[id_], after.looks[id_])
    return tuple(out)


def _beside(part: Part) -> str:
    """What a part is beside the pictures themselves: its role, or when it stands in for one; "" for
    a picture itself."""
    if part.of is None:
        return part.role or ""
    return f"picture {when_words(part.when)}"


def _capital(name: str) -> str:
    return f"{name[:1].upper()}{name[1:]}"


def is_reordered(before: Sequence[Part], after: Sequence[Part]) -> bool:
    """Whether the same parts stand in another order."""
    if len(before) != len(after) or tuple(before) == tuple(after):
        return False
    told = [[p.model_dump_json() for p in parts] for parts in (before, after)]
    return sorted(told[0]) == sorted(told[1])


def _more_or_fewer(n: int, kind: str) -> str:
    noun = "item" if has_items(kind) else "part"
    plural = "" if abs(n) == 1 else "s"
    return f"{abs(n)} {noun}{plural} {'more' if n > 0 else 'fewer'}"


def _of_layout(
    before: Mapping[str, Mapping[str, object]],
    after: Mapping[str, Mapping[str, object]],
    names: Mapping[str, str],
) -> list[str]:
    out = []
    for letter in sorted({*before, *after}):
        old, new = before.get(letter, {}), after.get(letter, {})
        fields = [f for f in {**new, **old} if old.get(f) != new.get(f)]
        if fields:
            said = ", ".join(names.get(f, f) for f in fields[:2])
            said += f" and {len(fields) - 2} more" if len(fields) > 2 else ""
            out.append(f"{said[:1].upper()}{said[1:]} of span {letter}")
    return out


def _of_treatments(before: Treatments, after: Treatments, where: str) -> list[str]:
    out = []
    for letter in sorted({*before, *after}):
        old, new = before.get(letter, Treatment()), after.get(letter, Treatment())
        fields = [f for f in FIELDS if getattr(old, f) != getattr(new, f)]
        if fields:
            said = ", ".join(WORDS[f] for f in fields[:2])
            said += f" and {len(fields) - 2} more" if len(fields) > 2 else ""
            out.append(f"{said[:1].upper()}{said[1:]} of span {letter}{where}")
    return out


def _of_look(before: Look, after: Look) -> list[str]:
    out = []
    if before.focal != after.focal:
        out.append(f"Focal point of {after.name}")
    if before.areas != after.areas:
        old, new = {a.name: a for a in before.areas}, {a.name: a for a in after.areas}
        gone, come = [n for n in old if n not in new], [n for n in new if n not in old]
        moved = [n for n in new if n in old and new[n] != old[n]]
        if names := renamed(before.areas, after.areas):
            out.append("{} is called {}".format(*names))
        elif come or gone:
            out.append(", ".join([*(f"{n} drawn" for n in come), *(f"{n} removed" for n in gone)]))
        elif moved:
            out.append(
                f"Area {moved[0]}" + (f" and {len(moved) - 1} more" if len(moved) > 1 else "")
            )
        else:
            out.append(f"Order of areas of {after.name}")
    return out


def renamed(before: tuple[Area, ...], after: tuple[Area, ...]) -> tuple[str, str] | None:
    """The old and the new name where two lists of areas differ by the name of one."""
    old, new = [a.name for a in before], [a.name for a in after]
    gone, come = set(old) - set(new), set(new) - set(old)
    return (
        (gone.pop(), come.pop()) if len(gone) == len(come) == 1 and len(old) == len(new) else None
    )


def with_area_renamed(
    site: Site, placement: Placement, original: int, names: tuple[str, str]
) -> Placement:
    """The placement with the old name of an area of `original` replaced by the new one wherever a
    span names it.

    What is said for all parts keeps the old name beside the new one where another original shows
    too: that one may have an area called so.
    """
    old, new = names
    resolved = resolve(site, placement)

    def renamed_in(treatments: Treatments, parts: Sequence[Mapping[str, Resolved]]) -> Treatments:
        out = {}
        for letter, own in treatments.items():
            shown = {part[letter].effective.original for part in parts} - {None}
            if own.keeps and original in shown:
                called = (new,) if shown == {original} else (new, old)
                keeps = [n for name in own.keeps for n in (called if name == old else (name,))]
                own = own.model_copy(update={"keeps": tuple(keeps[:MOST_AREAS])})
            out[letter] = own
        return out

    parts = tuple(
        part.model_copy(update={"treatments": renamed_in(part.treatments, (held,))})
        for part, held in zip(placement.parts, resolved, strict=True)
    )
    common = renamed_in(placement.common, resolved)
    return placement.model_copy(update={"parts": parts, "common": common})


def named(before: Version, after: Version) -> str:
    """The name of the step from one version to the next, at most 120 characters."""
    found = differences(before, after)
    if not found:
        return "No change"
    text = found[0] if len(found) == 1 else f"{found[0]} and {len(found) - 1} more"
    return text if len(text) <= 120 else f"{text[:119]}…"

"""What is wrong with the files."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from skypane.files.groups import Group, drawn_widths, groups, lists_of
from skypane.files.renditions import SHARP_ENOUGH
from skypane.files.taken import taken_files
from skypane.findings.rule import Case, Found, Matter, plain, rule
from skypane.geometry import WHOLE
from skypane.model import Viewers
from skypane.numerals import whole_px
from skypane.shown.nouns import ShownSpan


class _Lack(NamedTuple):
    """What some visitors see softly: the px that their screen asks for, and those there are."""

    span: ShownSpan
    viewers: Viewers
    density: float
    needed: int
    has: int


def _seen_by(case: Case, p: ShownSpan) -> Iterator[Viewers]:
    """The visitors of the audience whose viewport lies in a span."""
    for v in case.site.audience:
        if v.weight and p.span.first <= v.width <= p.span.last:
            yield v


def _lacking(case: Case, group: Group) -> Iterator[_Lack]:
    """Who of the audience sees the pictures of a group softly, at the densities that are
    offered."""
    most = case.site.densities[-1]
    for p in group.spans:
        drawn = drawn_widths(p)
        for v in _seen_by(case, p):
            density = min(v.density, most)
            needed = whole_px(float(drawn[v.width - p.span.first]) * density)
            if group.crop.w / needed < SHARP_ENOUGH:
                yield _Lack(p, v, density, needed, group.crop.w)


def _soft(case: Case, *, cropped: bool) -> Iterator[Found]:
    for group in groups(case.part, lists_of(case.site, case.plan.placement, case.part.part)):
        if not group.original.has_px:  # sharp at any size
            continue
        for lack in _lacking(case, group):
            # without the crop there would be enough
            own = group.original.width_px * lack.span.cut.w / lack.span.crop.w
            is_crop = lack.span.crop is not WHOLE and own / lack.needed >= SHARP_ENOUGH
            if is_crop != cropped:
                continue
            sharp_to = group.crop.w / (lack.needed / lack.density)
            of = "The crop of" if cropped else ""
            yield Matter(
                group.original.name,
                lack.span.span.letter,
                ((lack.viewers.width, lack.viewers.width),),
                lack.needed / lack.has,
                f"{of} {plain(group.original.name)} is soft {{where}}: {lack.needed} px are needed"
                f" at {lack.viewers.width} px and {lack.density:g}x, {lack.has} are there,"
                f" {lack.needed - lack.has} too few. Sharp up to {sharp_to:.2f}x.".strip(),
            )


@rule(
    "soft",
    "wrong",
    "files",
    "Bring a larger original, or make the frame smaller.",
    shows=False,
)
def soft(case: Case) -> Iterator[Found]:
    """An original has too few px for somebody of the site's audience, at the densities that are
    offered. Said once for a picture, with what it lacks where it lacks most."""
    yield from _soft(case, cropped=False)


@rule(
    "soft-crop",
    "wrong",
    "aim",
    "Crop it less tightly, or make the frame smaller.",
    at="crop",
    shows=False,
)
def soft_crop(case: Case) -> Iterator[Found]:
    """A crop has too few px for somebody of the site's audience, where the original it is cut from
    would have enough."""
    yield from _soft(case, cropped=True)


@rule(
    "over-budget",
    "wasteful",
    "files",
    "Make the frame smaller there, or ask for less likeness.",
    shows=False,
)
def over_budget(case: Case) -> Iterator[Found]:
    """Somebody of the site's audience fetches more bytes for a picture than it may have, in the
    newest format. Known once its files are made."""
    budget = case.site.budget_bytes
    if all(size <= budget for size in case.made.values()):
        return
    for p in case.part.shown:
        for v in _seen_by(case, p):
            taken = taken_files(case.files, case.part.index, p, v.density)
            if taken is None:
                continue
            file = taken.files[int(taken.at[v.width - p.span.first])]
            size = case.made.get(file.key)
            if size is None or size <= budget:
                continue
            yield Matter(
                "",
                p.span.letter,
                ((v.width, v.width),),
                size / budget,
                f"It weighs more than its budget {{where}}: {_kb(size)} at {v.width} px and"
                f" {v.density:g}x, {_kb(size - budget)} over {_kb(budget)}.",
            )


def _kb(size_bytes: int) -> str:
    return f"{size_bytes / 1000:.0f} kB"


@rule(
    "service-cut",
    "wrong",
    "files",
    "Aim there in place of cutting, or name the four numbers of a cut in the service's template.",
)
def service_cut(case: Case) -> Iterator[Found]:
    """A crop of a picture that an image service gives out which cannot cut: the whole picture would
    come, and be shown in the place of the crop."""
    service = case.site.hand_over.service
    if service is None or service.cuts:
        return
    letters = tuple(p.span.letter for p in case.part.shown if p.crop is not WHOLE)
    if letters:
        yield letters, "The image service cannot cut, and gives out the whole picture."

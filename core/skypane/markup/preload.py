"""Links that ask for the first picture of a page before anything else has been read (HTML Standard
§4.2.4 and §4.6.8.17, `preload` of images).

Their conditions do not overlap, so that one at most holds on every screen, and it offers what the
picture or background there would take. Of several formats the most modern alone is asked for: a
browser that does not know the type passes the link over.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from skypane.files.renditions import Files, by_letter, by_part
from skypane.markup.background import Run, runs_of_span
from skypane.markup.elements import Candidate, Element, Listed, element
from skypane.markup.picture import served_by
from skypane.markup.sources import Served, Source
from skypane.markup.types import TYPES
from skypane.markup.ways import way_of
from skypane.model import Feature, MediaStyle
from skypane.shown.nouns import PartPlan, Plan
from skypane.widths.conditions import lower_condition, media_of, upper_condition


def preload_links(plan: Plan, files: Files) -> tuple[Element, ...]:
    """The links for the picture of a placement that loads first, where its site wants them; none
    for what lies on it or stands beside it."""
    if not plan.placement.lead or not plan.site.hand_over.preload or plan.layout.has_items:
        return ()
    part, of = plan.written[0], by_part(files)
    if way_of(plan, part, of.get(part.index, ())) == "background":
        return tuple(_of_background(plan, part, of))
    served = served_by(plan, part, of)
    return tuple(_of_picture(served, plan.site.media_style))


def _of_picture(served: Sequence[Served], style: MediaStyle) -> Iterator[Element]:
    for i, one in enumerate(served):
        before = served[i - 1].span.last if i else None
        after = None if i == len(served) - 1 else one.span.last
        width = _between(before, after, style)
        tested: list[str] = []
        for when, sources in one.instead:
            yield from _link_of(sources, _all([*width, when, *map(_not, tested)]), one.letters)
            tested.append(when)
        yield from _link_of(one.sources, _all([*width, *map(_not, tested)]), one.letters)


def _link_of(
    sources: Sequence[Source], media: str | None, letters: tuple[str, ...]
) -> Iterator[Element]:
    if sources:
        best = sources[0]
        yield _link(best.candidates, best.type, best.sizes, media, letters)


def _of_background(plan: Plan, part: PartPlan, of: dict[int, Files]) -> Iterator[Element]:
    style, densities = plan.site.media_style, plan.site.densities
    own = by_letter(of.get(part.index, ()))
    others = [(o, by_letter(of.get(o.index, ()))) for o in plan.alternatives(part)]
    for at, p in enumerate(part.spans):
        letter, is_last = p.span.letter, at == len(part.spans) - 1
        tested: list[str] = []
        shows: list[tuple[tuple[Feature, ...], tuple[Run, ...]]] = [
            (o.part.when, runs_of_span(o.spans[at], theirs.get(letter, ()), densities))
            for o, theirs in others
            if letter not in o.usual
        ]
        shows.append(((), runs_of_span(p, own.get(letter, ()), densities)))
        for when, runs in shows:
            conditions = [*([media_of(when)] if when else []), *map(_not, tested)]
            for i, run in enumerate(runs):
                before = None if at == i == 0 else run.first - 1
                after = None if is_last and i == len(runs) - 1 else run.last
                if run.files:
                    media = _all([*_between(before, after, style), *conditions])
                    best = run.files[0]
                    each = tuple(Candidate(f, "" if len(best) == 1 else f"{d:g}x") for d, f in best)
                    yield _link(each, TYPES[best[0][1].format], None, media, (letter,))
            if when:
                tested.append(media_of(when))


def _link(
    candidates: Sequence[Candidate],
    type_: str | None,
    sizes: str | None,
    media: str | None,
    letters: tuple[str, ...],
) -> Element:
    said = {
        "rel": "preload",
        "as": "image",
        "imagesrcset": Listed(tuple(candidates)),
        "imagesizes": sizes,
        "type": type_,
        "media": media,
        "fetchpriority": "high",
    }
    return element("link", said, spans=letters)


def _between(before: int | None, after: int | None, style: MediaStyle) -> list[str]:
    """Conditions that hold beyond one width, the last that is narrower, up to and with another one,
    where the sources or rules of a page change: at fractions of a px too."""
    if style == "min-width":
        lower = [] if before is None else [lower_condition(before + 1)]
        return lower + ([] if after is None else [_not(lower_condition(after + 1))])
    upper = [] if after is None else [upper_condition(after, style)]
    return upper + ([] if before is None else [_not(upper_condition(before, style))])


def _not(media: str) -> str:
    """Media Queries 4 §3: what is negated stands in brackets, a conjunction in its own."""
    return f"(not ({media}))" if " and " in media else f"(not {media})"


def _all(conditions: Sequence[str]) -> str | None:
    return " and ".join(conditions) or None

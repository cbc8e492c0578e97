"""The one door for the interface: a placement in, everything that is shown on its desk out.

A reading is compact: bands are runs of widths, curves the few points where their slope changes, so
that the cursor can say its sentence for any width without asking again.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from skypane.advice.walk import advise_part
from skypane.files.kept import left_out, savings, without
from skypane.files.renditions import Files, quick_key, renditions
from skypane.files.rows import file_rows
from skypane.files.taken import as_known
from skypane.findings import findings
from skypane.geometry import Rect
from skypane.layouts.facts import value_facts
from skypane.markup.css import css_lines
from skypane.markup.fonts import font_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import PreviewUrl, pane_lines
from skypane.model import AS_USUAL, Conditions, Original, Placement, Site
from skypane.model.condition import when_words
from skypane.reading.bands import (
    area_bands,
    frame_band,
    one_of_band,
    own_lying_band,
    seen_band,
    sharp_bands,
)
from skypane.reading.detail import span_detail
from skypane.reading.elsewhere import with_elsewhere, words_with_elsewhere
from skypane.reading.items import items_reading
from skypane.reading.ladders import ladder_readings
from skypane.reading.nouns import (
    Band,
    ItemsReading,
    LayoutSpan,
    Moving,
    MovingPart,
    OverallSafe,
    OwnReading,
    PartReading,
    PlacementPane,
    Reading,
    ViewportPoint,
    WordsReading,
)
from skypane.reading.own import own_reading
from skypane.reading.sky import Sky, sky_of
from skypane.reading.spans import items_print, moving_span, span_reading
from skypane.reading.weights import all_weights, weight_band, weight_bands
from skypane.reading.written import code_told
from skypane.services.addresses import Sign
from skypane.shown.brief import brief
from skypane.shown.keeps import failing
from skypane.shown.nouns import PartPlan, Plan, ShownSpan
from skypane.shown.safe import always_in_view, in_px
from skypane.shown.sets import Siblings
from skypane.shown.store import STORE, Store
from skypane.shown.under import Pixels, no_pixels

#: Where an application gives out the files of typefaces to its panes.
FONT_URL = "/api/fonts/{}".format

#: So many parts are looked at for what the kind itself lays on them while one is worked on.
MOST_LAIN_ON = 40

#: Gives the bytes of those renditions that exist already, by key.
MadeBytes = Callable[[list[str]], Mapping[str, int]]
#: Gives originals of the site that advice may propose. Asked only where something fails.
Others = Callable[[], Mapping[int, Original]]


def _name(original: Original, crop: Rect | None, drawn_px: float) -> str:
    return original.name


def read(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    *,
    preview: PreviewUrl = _name,
    made_bytes: MadeBytes = lambda keys: {},
    others: Others = dict,
    pixels: Pixels = no_pixels,
    siblings: Siblings = tuple,
    chosen: tuple[int, str] | None = None,
    costs: bool = False,
    words: bool = False,
    every: bool = True,
    scrollbar_px: float = 0,
    conditions: Conditions = AS_USUAL,
    sign: Sign | None = None,
    store: Store = STORE,
) -> Reading:
    """Everything about a placement. `chosen` is the part and the letter of the span that is read in
    detail, and then the only one that advice is worked out for; with `costs` its detail says what
    each way to aim comes to, with `words` what can be done about the words. Without `every` the
    files, ladders and code of many items are those of the chosen one alone. `scrollbar_px` is what
    a classic scrollbar takes of the page in CSS px: frames and bands are those beside it, files and
    code stay. `conditions` are what the page is seen under: panes, verdicts, words and bands of the
    whole are as they are then, and on screens that stand as they then do; files, findings and code
    stay, but bands of weight are of the formats that are known then. `pixels` gives the px of
    originals that words lie on, `siblings` the other placements of the page, `sign` signs addresses
    of an image service, `store` has the plans of earlier readings.

    Raises InvalidPlan where the placement cannot be computed.
    """
    sky = sky_of(site, placement, originals, scrollbar_px, conditions, store)
    written, computed, there = sky.written, sky.computed, sky.there
    all_files = renditions(written)
    told = {part.index for part in _asked(computed, None if every else chosen)}
    files = tuple((g, mine) for g, mine in all_files if g.part in told)
    made, quick = made_of(made_bytes, files)
    known = as_known(files, conditions.knows)
    gone = left_out(files, made)
    rows = file_rows(files, made, quick, gone)
    proposed: dict[int, Original] = {}
    if any(failing(p) for part in computed.parts for p in part.shown if _is(part, p, chosen)):
        proposed = {**originals, **others()}

    many = computed.layout.is_large
    beside = [items_print(spot) if many else "" for spot in computed.spots]

    def part_reading(part: PartPlan) -> PartReading:
        letter = chosen[1] if chosen and chosen[0] == part.index else None
        advised = chosen is None or letter is not None
        in_detail = part.at(letter) if letter else None
        areas, is_usual = area_bands(part), part.part.of is None
        return PartReading(
            place=computed.place_of(part),
            called=when_words(part.part.when) or part.part.role or "picture",
            spans=tuple(
                span_reading(part, p, items) for p, items in zip(part.spans, beside, strict=True)
            ),
            bands=(
                *(with_elsewhere(areas, found, conditions.features) if is_usual else areas),
                *seen_band(part),
                *own_lying_band(computed, part),
                *frame_band(part),
                *sharp_bands(site, part, known, written.parts[part.index]),
                *weight_bands(site, part, known, made),
            ),
            safe=overall_safe(part),
            advice=(
                advise_part(part, proposed, site.budget_bytes, letter, computed.handed_of_kind)
                if advised
                else ()
            ),
            brief=brief(part.spans, site.densities[-1]) if part.waiting else None,
            detail=span_detail(site, in_detail, costs) if in_detail else None,
        )

    found = findings(written, all_files, pixels, siblings, made)
    parts = {part.index: part_reading(part) for part in _asked(computed, chosen)}
    of_words = sky.words(pixels, chosen if words else None)
    of_words = words_with_elsewhere(of_words, found, conditions.features)
    of_items = items_reading(there, found, chosen, _weight_of_all(written, known, made))
    of_own = own_reading(there, originals, pixels)
    of_set = one_of_band(site, placement, siblings)
    bands = {i: part.bands for i, part in parts.items()}
    # of parts that are not read one by one too
    rest = [part for part in computed.parts if part.index not in parts][:MOST_LAIN_ON]
    bands |= {part.index: own_lying_band(computed, part) for part in rest}
    whole = _bands_of_whole(of_words, of_items, of_own, of_set)
    return Reading(
        narrowest=site.narrowest,
        widest=site.widest,
        heights=tuple(
            ViewportPoint(to_px=h.to_px, typical_px=h.typical_px)
            for h in sorted(computed.site.heights, key=lambda h: h.to_px)
        ),
        budget_bytes=site.budget_bytes,
        parts=parts,
        files=rows,
        ladders=ladder_readings(written, files, made),
        savings=savings(files, made),
        words=of_words,
        items=of_items,
        own=of_own,
        layout=layout_spans(there),
        values=value_facts(placement.kind),
        one_of=of_set,
        verdicts=sky.verdicts(bands, whole, of_items, found),
        findings=tuple(found),
        code=code_told(written, without(files, gone), told, sign),
        pane=_pane(sky, preview),
    )


def _bands_of_whole(
    words: WordsReading | None, items: ItemsReading | None, own: OwnReading | None, one: Band | None
) -> tuple[Band, ...]:
    """The bands that are of no part alone."""
    return (
        *(words.bands if words else ()),
        *((items.together,) if items else ()),
        *(own.bands if own else ()),
        *((one,) if one else ()),
    )


def _weight_of_all(computed: Plan, files: Files, made: Mapping[str, int]) -> Band | None:
    """What all of many items weigh together, where the files of all of them are read."""
    n, told = len(computed.parts), {g.part for g, _ in files}
    if (
        not computed.layout.is_large
        or n < 2
        or len(told) < sum(bool(p.shown) for p in computed.parts)
    ):
        return None
    site = computed.site
    found = all_weights(computed, computed.parts, files, made)
    return weight_band(site, "weight", f"Weight of all {n}", found, site.budget_bytes * n)


def made_of(made_bytes: MadeBytes, files: Files) -> tuple[dict[str, int], frozenset[str]]:
    """Bytes by key; where there is only a quick file, its bytes, and such keys."""
    all_ = [r for _, mine in files for r in mine]
    looks = {r.key: quick_key(r, group.original.sha256) for group, mine in files for r in mine}
    found = made_bytes([*looks, *looks.values()])
    made = {r.key: found[r.key] for r in all_ if r.key in found}
    quick = {k: found[look] for k, look in looks.items() if k not in made and look in found}
    return {**made, **quick}, frozenset(quick)


def read_moving(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    *,
    preview: PreviewUrl = _name,
    pixels: Pixels = no_pixels,
    siblings: Siblings = tuple,
    chosen: tuple[int, str] | None = None,
    scrollbar_px: float = 0,
    conditions: Conditions = AS_USUAL,
    store: Store = STORE,
) -> Moving:
    """What changes on the desk while something is dragged: a part of what `read` gives, for a
    fraction of its time; of many items the `chosen` one. Raises InvalidPlan."""
    sky = sky_of(site, placement, originals, scrollbar_px, conditions, store)
    computed, there = sky.computed, sky.there
    parts = {part.index: _moving_part(part) for part in _asked(computed, chosen)}
    of_words, of_items = sky.words(pixels), items_reading(there, (), None)
    of_own = own_reading(there, originals, pixels)
    of_set = one_of_band(site, placement, siblings)
    bands = {i: part.bands for i, part in parts.items()}
    whole = _bands_of_whole(of_words, of_items, of_own, of_set)
    return Moving(
        parts=parts,
        words=of_words,
        items=of_items,
        own=of_own,
        one_of=of_set,
        verdicts=sky.verdicts(bands, whole, of_items),
        pane=_pane(sky, preview),
    )


def _asked(computed: Plan, chosen: tuple[int, str] | None) -> Sequence[PartPlan]:
    """The parts that are read one by one: all, or of many items the chosen one, with what stands in
    for it."""
    if not computed.layout.is_large or chosen is None:
        return computed.parts
    usual = computed.usual_of(computed.parts[min(chosen[0], len(computed.parts) - 1)])
    return [usual, *computed.alternatives(usual)]


def layout_spans(computed: Plan) -> tuple[LayoutSpan, ...]:
    """The values of the kind itself in every span."""
    out = []
    for spot in computed.spots:
        letter = spot.span.letter
        notes, origin = computed.layout.notes(spot), computed.handed_of_kind[letter].origin
        out.append(LayoutSpan(letter=letter, notes=notes, values=spot.values, origin=origin))
    return tuple(out)


def _is(part: PartPlan, p: object, chosen: tuple[int, str] | None) -> bool:
    return chosen is None or (part.index == chosen[0] and part.at(chosen[1]) is p)


def _moving_part(part: PartPlan) -> MovingPart:
    return MovingPart(
        spans=tuple(moving_span(part, p) for p in part.spans),
        bands=(*area_bands(part), *seen_band(part), *frame_band(part)),
        safe=overall_safe(part),
    )


def overall_safe(part: PartPlan) -> tuple[OverallSafe, ...]:
    """Per original in use what all its spans have in common."""
    spans: dict[int, list[ShownSpan]] = {}
    for p in part.shown:
        spans.setdefault(p.original.id, []).append(p)
    out = []
    for id_, mine in spans.items():
        safe, of = always_in_view(mine), mine[0].original
        letters = tuple(p.span.letter for p in mine)
        px = in_px(safe, of.width_px, of.height_px)
        out.append(OverallSafe(original=id_, spans=letters, safe=safe, safe_px=px))
    return tuple(out)


def _pane(sky: Sky, preview: PreviewUrl) -> PlacementPane:
    computed = sky.pane
    return PlacementPane(
        called=computed.placement.called,
        colours=computed.site.colours_under(sky.conditions.features),
        markup=text_of(pane_lines(computed, preview)),
        css=text_of(
            (*font_lines([computed], FONT_URL, waits=False), *css_lines(computed, whole=True))
        ),
    )

"""What to do where words cannot be read, cover what matters, or need more room than there is.

Walked down from what changes least: a scrim, another colour of the words, another place, a box, and
at last the words below the picture. Every remedy is tried over the whole span before it is told.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

import numpy as np
from pydantic import JsonValue

from skypane.advice.aside import with_layout
from skypane.advice.others import square_around
from skypane.advice.remedies import Remedy, fails, lays, works
from skypane.advice.walk import with_narrower
from skypane.errors import InvalidPlan
from skypane.geometry import Rect
from skypane.layouts.banner import laid_out, values_of
from skypane.model import Treatment
from skypane.numerals import number
from skypane.shown.clear import block_edges, covered, outgrown
from skypane.shown.flattest import flattest_ratio
from skypane.shown.places import PlaceRating, ratings
from skypane.shown.plan import PartPlan, SpanPlan
from skypane.shown.readable import (
    EVEN,
    LeastScrim,
    Seen,
    least_scrim,
    plain_scrim,
    ratio_before_loading,
    readable,
    said_range,
    seen_in,
    unread,
)
from skypane.shown.under import Pixels, at_widths, under
from skypane.treatments import LayoutSaid
from skypane.values import Answer, Noun
from skypane.words.block import channels
from skypane.words.contrast import ENOUGH, luminance_of, needed, ratio_of

Problem = Literal["unreadable", "covers", "outgrows", "before-loading"]

#: Words that are dark or light, where the present ones cannot be read.
DARK, LIGHT = "#10222b", "#ffffff"
#: Text is not made smaller than this by advice (common practice for body text on screens).
LEAST_TEXT_PX = 14.0


class WordsAdvice(Answer):
    """What is wrong with the words in one span, in a sentence, why, and what helps; `best` is the
    index of the first remedy that works."""

    problem: Problem
    sentence: str
    why: str
    steps: tuple[Remedy, ...]
    best: int | None


class StandIn(Noun):
    """A keep area that can stand in for the picture as an inset, and the square around it."""

    name: str
    original: int
    crop: Rect


class WordsDetail(Noun):
    """The words of the one span that is being worked on: all nine places, the least scrim, and the
    flattest ratio that holds keep areas and words. `scrim_why` says it where no strength passes."""

    letter: str
    places: tuple[PlaceRating, ...]
    least_strength: float | None
    scrim_why: str
    flattest: float | None
    advice: tuple[WordsAdvice, ...]
    stand_ins: tuple[StandIn, ...]


def words_detail(
    part: PartPlan, letter: str, pixels: Pixels, said: Mapping[str, LayoutSaid] | None = None
) -> WordsDetail:
    """Of a banner's picture, in one span; `said` are the banner's own values by letter, by which
    each remedy says what keeps the next narrower span as it is. Raises KeyError where there is no
    such span."""
    p = part.of(letter)
    seen, places = seen_in(p, pixels), ratings(p, pixels)
    least = least_scrim(p, pixels, seen)
    why = ""
    if least is not None and least.strength is None:
        why = (
            f"No strength of this scrim makes every width readable: the most that it gives is"
            f" {number(round(least.best * 100))} % of the contrast needed."
        )
    found = [
        a
        for a in (
            _unreadable(p, pixels, seen, least, places),
            _covers(p, pixels, places),
            _outgrows(p),
            _before_loading(p, pixels),
        )
        if a is not None
    ]
    return WordsDetail(
        letter=p.span.letter,
        places=places,
        least_strength=least.strength if least else None,
        scrim_why=why,
        flattest=flattest_ratio(p),
        advice=tuple(_with_narrower(a, part, p, said) for a in found),
        stand_ins=stand_ins(part),
    )


def _with_narrower(
    advice: WordsAdvice, part: PartPlan, p: SpanPlan, said: Mapping[str, LayoutSaid] | None
) -> WordsAdvice:
    at = part.spans.index(p)
    if not at or said is None:
        return advice
    narrower = part.spans[at - 1]
    origin = part.origins[narrower.span.letter]
    steps = with_narrower(advice.steps, narrower, origin, said)
    return advice.model_copy(update={"steps": steps})


def stand_ins(part: PartPlan) -> tuple[StandIn, ...]:
    """Every keep area of the originals that a part shows, the most important of each first."""
    originals = {p.original.id: p.original for p in part.shown}
    return tuple(
        StandIn(name=a.name, original=o.id, crop=square_around(a.rect, o, in_circle=True))
        for o in originals.values()
        for a in o.keeps
    )


def _advice(problem: Problem, sentence: str, why: str, steps: list[Remedy]) -> WordsAdvice:
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return WordsAdvice(problem=problem, sentence=sentence, why=why, steps=tuple(steps), best=best)


# -- reading ------------------------------------------------------------------------------


def _unreadable(
    p: SpanPlan,
    pixels: Pixels,
    seen: tuple[Seen, ...],
    least: LeastScrim | None,
    places: tuple[PlaceRating, ...],
) -> WordsAdvice | None:
    wrong = list(unread(p, seen))
    if not wrong:
        return None
    s = min((w for w, _ in wrong), key=lambda w: float(w.worst.min()) / w.needed)
    at = np.unique(np.concatenate([columns for _, columns in wrong]))
    names = " and ".join(_the(w.text.name) for w, _ in wrong)
    sentence = f"{names[:1].upper()}{names[1:]} cannot be read {said_range(p, at)}."
    worst = float(s.worst.min())
    size = "large" if s.text.large else "small"
    under_it = "its own colour" if s.text.fill else "the worst 5 % of what lies under it"
    why = (
        f"The contrast of {_the(s.text.name)} on {under_it} is {worst:.1f} : 1; {size} text needs"
        f" {s.needed:g} : 1."
    )
    passing = [w for w in seen if w.passes and w.text.fill is None]
    if passing:
        ok = passing[0]
        why += f" {_the(ok.text.name).capitalize()} passes ({float(ok.worst.min()):.1f}, needs"
        why += f" {ok.needed:g})."
    v = values_of(p.spot)
    buttons = [_by_button(p)] if any(w.text.fill for w, _ in wrong) else []
    if all(w.text.fill for w, _ in wrong):
        return _advice("unreadable", sentence, why, buttons)
    if v.shows != "on":
        return _advice("unreadable", sentence, why, [_other_ink(p, pixels), *buttons])
    steps = [_by_scrim(least)]
    if least is not None and least.strength is None and least.scrim.kind == "linear":
        steps.append(_by_scrim(least_scrim(p, pixels, seen, plain_scrim(p))))
    steps += [_other_ink(p, pixels), _by_place(p, pixels, places, "read")]
    steps += [_by_box(p, pixels), _below(p, pixels), *buttons]
    return _advice("unreadable", sentence, why, steps)


def _by_button(p: SpanPlan) -> Remedy:
    """Buttons have a colour of their own: their words in that of dark and light which it takes."""
    look = values_of(p.spot).button
    ink = max((DARK, LIGHT), key=lambda c: ratio_of(c, look.fill))
    word = "Dark" if ink == DARK else "Light"
    found = ratio_of(ink, look.fill)
    if found < ENOUGH:
        return fails("ink", f"Neither dark nor light words can be read on {look.fill}.")
    return lays(
        "ink",
        f"{word} words on the buttons have {found:.1f} : 1.",
        f"{word} words on buttons",
        {"button": look.model_copy(update={"ink": ink}).model_dump(mode="json")},
    )


def _the(name: str) -> str:
    return f"the {name.lower()}"


def _by_scrim(least: LeastScrim | None) -> Remedy:
    if least is None:
        return fails("scrim", "Nothing lies under the words that a scrim could change.")
    if least.strength is None:
        best = f"{number(round(least.best * 100))} % of the contrast needed"
        return fails("scrim", f"No strength of it makes every width readable: at best {best}.")
    plain = "plain " if least.scrim.kind == "plain" else ""
    percent = f"{number(round(least.strength * 100))} %"
    said = least.scrim.model_dump(mode="json")
    return lays(
        "scrim",
        f"A {plain}scrim of {percent} makes every width readable; no less does.",
        f"{plain}scrim {percent}".capitalize(),
        {"scrim": said, "strength": least.strength},
        strength=least.strength,
    )


def _passes(p: SpanPlan, pixels: Pixels, said: dict[str, JsonValue]) -> bool:
    """Whether every text that lies on the picture can be read with other values."""
    try:
        return readable(with_layout(p, said), pixels)
    except InvalidPlan:
        return False


def _other_ink(p: SpanPlan, pixels: Pixels) -> Remedy:
    v = values_of(p.spot)
    dark = luminance_of(v.colour) > EVEN
    ink, word = (DARK, "dark") if dark else (LIGHT, "light")
    bare: dict[str, JsonValue] = {"colour": ink, "scrim": {"kind": "none"}}
    if v.scrim.kind != "none" and _passes(p, pixels, bare):
        return lays(
            "ink",
            f"{word.capitalize()} words can be read without any scrim.",
            f"{word.capitalize()} words, no scrim",
            bare,
        )
    said: dict[str, JsonValue] = {"colour": ink}
    if _passes(p, pixels, said):
        return lays(
            "ink",
            f"{word.capitalize()} words can be read.",
            f"{word.capitalize()} words",
            said,
        )
    return fails("ink", f"{word.capitalize()} words cannot be read at every width either.")


def _by_place(
    p: SpanPlan, pixels: Pixels, places: tuple[PlaceRating, ...], to: Literal["read", "clear"]
) -> Remedy:
    v = values_of(p.spot)
    best = next((r for r in places if r.best), None)
    if best is None or best.place == v.place:
        return fails("place", "None of the other eight places is clear of the areas.")
    said: dict[str, JsonValue] = {"place": best.place}
    if to == "read" and not _passes(p, pixels, said):
        return fails("place", "In none of the nine places can they be read at every width.")
    return lays(
        "place",
        f"{place_word(best.place).capitalize()} they are {best.why}.",
        f"Move them {place_word(best.place)}",
        said,
    )


def place_word(place: str) -> str:
    """Where a place is, in words; start and end as one reads from left to right."""
    row, _, column = place.partition("-")
    if row in ("start", "end"):
        row, column = "middle", row
    down = {"top": "to the top", "middle": "to the middle", "bottom": "to the bottom"}[row]
    side = {"start": "left", "end": "right"}.get(column, "")
    return f"{down} {side}".strip() if row != "middle" or not side else f"to the {side}"


def _by_box(p: SpanPlan, pixels: Pixels) -> Remedy:
    v = values_of(p.spot)
    colour = "#000000" if luminance_of(v.colour) > EVEN else "#ffffff"
    padding = max(v.box.padding_px, 16.0)

    def box(percent: int) -> dict[str, JsonValue]:
        behind: JsonValue = {"colour": colour, "strength": percent / 100, "padding_px": padding}
        return {"box": behind}

    if not _passes(p, pixels, box(100)):
        return fails("box", "Not even a box that hides the picture makes them readable.")
    low, high = 0, 20  # in steps of five per cent
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if _passes(p, pixels, box(5 * middle)) else (middle, high)
    percent = 5 * high
    return lays(
        "box",
        f"A box of {percent} % behind the words makes every width readable.",
        f"Box {percent} %",
        box(percent),
        strength=percent / 100,
    )


def _below(p: SpanPlan, pixels: Pixels) -> Remedy:
    said = p.layout.words_below()
    background = p.effective.background
    ink = DARK if ratio_of(DARK, background) >= ratio_of(LIGHT, background) else LIGHT
    layout: dict[str, JsonValue] = {**said, "colour": ink}
    if not _passes(p, pixels, layout):
        return fails("below", f"Below the picture they cannot be read on {background} either.")
    return lays(
        "below",
        f"Below the picture they stand on its background colour, {background}.",
        "Words below",
        layout,
    )


# -- areas, room, loading -----------------------------------------------------------------


def _covers(p: SpanPlan, pixels: Pixels, places: tuple[PlaceRating, ...]) -> WordsAdvice | None:
    found = covered(p, block_edges(p))
    if not found:
        return None
    name, share = max(found.items(), key=lambda kv: float(kv[1].max()))
    at = np.flatnonzero(share > 0.005)
    worst = int(share.argmax())
    others = [n for n in found if n != name]
    sentence = f"The words cover {' and '.join([name, *others])} {said_range(p, at)}."
    why = f"At {int(p.viewport_w[worst])} px {share[worst] * 100:.0f} % of {name} lies under them."
    return _advice(
        "covers", sentence, why, [_by_place(p, pixels, places, "clear"), _below(p, pixels)]
    )


def _outgrows(p: SpanPlan) -> WordsAdvice | None:
    over = outgrown(p)
    at = np.flatnonzero(over)
    if not at.size:
        return None
    laid = laid_out(p.spot)
    worst = int(over.argmax())
    row = int((laid.asked - laid.own)[:, worst].argmax())
    asked, own = float(laid.asked[row, worst]), float(laid.own[row, worst])
    sentence = f"The words need more room than the banner has {said_range(p, at)}."
    why = (
        f"At {int(p.viewport_w[worst])} px they need {asked:.0f} px with their margins and the"
        f" banner is {own:.0f} px high: it grows by {asked - own:.0f} px."
    )
    return _advice("outgrows", sentence, why, [_smaller(p), _higher(p), _room_below(p)])


def _smaller(p: SpanPlan) -> Remedy:
    v = values_of(p.spot)
    for percent in range(95, 44, -5):
        text = max(LEAST_TEXT_PX, round(v.text_px * percent / 100, 1))
        heading = max(text, round(v.heading_px * percent / 100, 1))
        said: dict[str, JsonValue] = {
            "heading_px": min(heading, v.heading_px),
            "text_px": min(text, v.text_px),
        }
        if not outgrown(with_layout(p, said)).any():
            size = f"{said['heading_px']:g} and {said['text_px']:g} px"
            return lays("smaller", f"At {size} they fit at every width.", f"Smaller, {size}", said)
    return fails("smaller", f"Not even at {LEAST_TEXT_PX:g} px do they fit.")


def _higher(p: SpanPlan) -> Remedy:
    rule = p.effective.height
    least = float(np.ceil(laid_out(p.spot).asked.max()))
    if rule.greatest_px is not None and least > rule.greatest_px:
        return fails(
            "higher",
            f"The banner would have to be {least:g} px high; the greatest height that is set is"
            f" {rule.greatest_px:g} px.",
        )
    return works(
        "higher",
        f"At least {least:g} px high, the banner holds them at every width.",
        f"At least {least:g} px high",
        Treatment(height=rule.model_copy(update={"least_px": least})),
    )


def _room_below(p: SpanPlan) -> Remedy:
    return lays(
        "below",
        "Below the picture they have a row of their own.",
        "Words below",
        p.layout.words_below(),
    )


def _before_loading(p: SpanPlan, pixels: Pixels) -> WordsAdvice | None:
    block = laid_out(p.spot).block
    on_picture = block is not None and values_of(p.spot).shows == "on"
    texts = [t for t in block.texts if t.fill is None] if block and on_picture else []
    bad = [t for t in texts if ratio_before_loading(p, t) < needed(t.large) - 1e-9]
    if not bad:
        return None
    t = bad[-1]
    ratio = ratio_before_loading(p, t)
    sentence = (
        f"Before the picture has loaded {_the(t.name)} cannot be read: {ratio:.1f} : 1 on"
        f" {p.effective.background}, {needed(t.large):g} : 1 needed."
    )
    found = passing_background(p, pixels)
    why = "The background colour lies under everything and has to do alone until then."
    step = (
        fails("background", "No colour of the picture's own does.")
        if found is None
        else works(
            "background",
            f"{found}, the picture's own colour under the words, deep enough for all of them.",
            f"Background {found}",
            Treatment(background=found),
        )
    )
    return _advice("before-loading", sentence, why, [step])


def passing_background(p: SpanPlan, pixels: Pixels) -> str | None:
    """The mean colour of the picture under the words, made darker (or lighter) until every text can
    be read on it alone; None where none does."""
    block = laid_out(p.spot).block
    texts = [t for t in block.texts if t.fill is None] if block else []
    if not texts:
        return None
    n = len(p.viewport_w)
    found = under(p, pixels, texts[-1], at_widths(p, [n // 2]))
    mean = (
        found.below.reshape(-1, 3).mean(axis=0)
        if found is not None
        else np.array(channels(p.effective.background), dtype=np.float64)
    )
    end = 0.0 if luminance_of(texts[-1].ink) > EVEN else 255.0
    for step in range(101):
        r, g, b = (int(c) for c in np.rint(mean + (end - mean) * step / 100))
        colour = f"#{r:02x}{g:02x}{b:02x}"
        if all(ratio_of(t.ink, colour) >= needed(t.large) for t in texts):
            return colour
    return None

"""What to do where words cover what matters, need more room than there is, or cannot be read before
the picture has loaded."""

from __future__ import annotations

import numpy as np
from pydantic import JsonValue

from skypane.advice.advised import WordsAdvice, advised
from skypane.advice.aside import with_layout
from skypane.advice.remedies import Remedy, fails, lays, works
from skypane.advice.unreadable import LEAST_TEXT_PX, below, by_place
from skypane.model import Treatment
from skypane.shown.clear import block_edges, covered, outgrown
from skypane.shown.nouns import SpanPlan
from skypane.shown.places import PlaceRating
from skypane.shown.readable import (
    EVEN,
    before_loading_sentence,
    range_in_words,
    unread_before_loading,
)
from skypane.shown.under import Pixels, at_widths, under
from skypane.words.block import channels
from skypane.words.contrast import luminance_of, needed, ratio_of


def covers(p: SpanPlan, pixels: Pixels, places: tuple[PlaceRating, ...]) -> WordsAdvice | None:
    found = covered(p, block_edges(p))
    if not found:
        return None
    name, share = max(found.items(), key=lambda kv: float(kv[1].max()))
    at = np.flatnonzero(share > 0.005)
    worst = int(share.argmax())
    others = [n for n in found if n != name]
    sentence = f"The words cover {' and '.join([name, *others])} {range_in_words(p, at)}."
    why = f"At {int(p.viewport_w[worst])} px {share[worst] * 100:.0f} % of {name} lies under them."
    return advised(
        "covers", sentence, why, [by_place(p, pixels, places, "clear"), below(p, pixels)]
    )


def outgrows(p: SpanPlan) -> WordsAdvice | None:
    over = outgrown(p)
    at = np.flatnonzero(over)
    if not at.size:
        return None
    laid = p.laid
    worst = int(over.argmax())
    row = int((laid.asked - laid.own)[:, worst].argmax())
    asked, own = float(laid.asked[row, worst]), float(laid.own[row, worst])
    sentence = f"The words need more room than the banner has {range_in_words(p, at)}."
    why = (
        f"At {int(p.viewport_w[worst])} px they need {asked:.0f} px with their margins and the"
        f" banner is {own:.0f} px high: it grows by {asked - own:.0f} px."
    )
    return advised("outgrows", sentence, why, [_smaller(p), _higher(p), _room_below(p)])


def _smaller(p: SpanPlan) -> Remedy:
    v = p.on_picture
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
    least = float(np.ceil(p.laid.asked.max()))
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


def before_loading(p: SpanPlan, pixels: Pixels) -> WordsAdvice | None:
    bad = list(unread_before_loading(p))
    if not bad:
        return None
    text, ratio, least = bad[-1]
    sentence = before_loading_sentence(p, f"The {text.name.lower()}", ratio, least)
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
    return advised("before-loading", sentence, why, [step])


def passing_background(p: SpanPlan, pixels: Pixels) -> str | None:
    """The mean colour of the picture under the words, made darker (or lighter) until every text can
    be read on it alone; None where none does."""
    block = p.laid.block
    texts = [t for t in block.texts if t.fill is None] if block else []
    if not texts:
        return None
    n = len(p.viewport_w)
    found = under(p, pixels, texts[-1], at_widths(p, [n // 2]))
    mean = (
        found.below.reshape(-1, 3).mean(axis=0)
        if found is not None
        else np.array(channels(p.ground), dtype=np.float64)
    )
    end = 0.0 if luminance_of(texts[-1].ink) > EVEN else 255.0
    for step in range(101):
        r, g, b = (int(c) for c in np.rint(mean + (end - mean) * step / 100))
        colour = f"#{r:02x}{g:02x}{b:02x}"
        if all(ratio_of(t.ink, colour) >= needed(t.large) for t in texts):
            return colour
    return None

"""The gentlest steps: another aim, or no crop."""

from __future__ import annotations

from skypane.advice.remedies import Remedy, fails, works
from skypane.advice.trial import (
    holds_all,
    is_within,
    left_out_text,
    names_text,
    need_word,
    tried,
    what_changes,
)
from skypane.geometry import WHOLE
from skypane.model import Following
from skypane.numerals import number, shares_text
from skypane.shown.keeps import hull, too_small
from skypane.shown.nouns import ShownSpan


def by_aim(p: ShownSpan) -> Remedy:
    following = what_changes(p, aim=Following(), fit="cover")
    q = tried(p, following)
    if holds_all(q):
        return works(
            "aim",
            "Some position keeps every area whole at every width; following with keep areas"
            " first finds it.",
            "Follow the keep areas"
            if p.effective.fit == "cover"
            else "Fill the frame, following the keep areas",
            following,
        )
    keeps = p.keeps
    around = hull(keeps)
    across, down = q.shown.x1 - q.shown.x0, q.shown.y1 - q.shown.y0
    parts: list[str] = []
    figures: dict[str, float] = {}
    for need, seen, side in ((around.w, across, "width"), (around.h, down, "height")):
        least = float(seen.min())
        if need > least + 1e-9:
            at = int(q.viewport_w[int(seen.min(axis=0).round(6).argmin())])
            shows, needs = shares_text(least, need)
            parts.append(
                f"{shows} of the {side} shows at {at} px, {names_text(keeps)}"
                f" {need_word(keeps)} {needs}"
            )
            figures |= {f"{side}_needed": round(need, 4), f"{side}_shown": round(least, 4)}
    if beyond := tuple(a for a in keeps if not is_within(a.rect, p.crop)):
        parts.insert(0, left_out_text(beyond, p.crop))
    small = [a for a in keeps if a.least_px is not None and too_small(a, q.shown).any()]
    parts += [
        f"{a.name} is shown {float((a.rect.w * q.shown.drawn_w).min()):.0f} px wide,"
        f" {number(a.least_px or 0)} px are asked for"
        for a in small
    ]
    said = "; ".join(parts)
    return fails("aim", f"{said[:1].upper()}{said[1:]}.", **figures)


def without_crop(p: ShownSpan) -> Remedy:
    treatment = what_changes(p, crop=WHOLE, aim=Following(), fit="cover")
    if not holds_all(tried(p, treatment)):
        return fails("uncrop", "Without the crop they are not whole either.")
    return works(
        "uncrop",
        "The crop is what cuts them: without it every area is whole.",
        "Without the crop",
        treatment,
    )

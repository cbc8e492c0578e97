"""The gentlest steps: another aim, or no crop."""

from __future__ import annotations

from skypane.advice.steps import AdviceStep
from skypane.advice.trial import holds_all, is_within, names_text, need_word, tried, what_changes
from skypane.model import Following, Site
from skypane.numerals import number, share_text
from skypane.shown.keeps import edges, hull, too_small
from skypane.shown.plan import SpanPlan
from skypane.treatments import UNCROPPED


def by_aim(site: Site, p: SpanPlan) -> AdviceStep:
    assert p.original is not None
    following = what_changes(p, aim=Following(), fit="cover")
    q = tried(site, p, following)
    assert q.shown is not None
    if holds_all(q):
        return AdviceStep(
            kind="aim",
            works=True,
            why=(
                "Some position keeps every area whole at every width; following with keep areas"
                " first finds it."
            ),
            label=(
                "Follow the keep areas"
                if p.effective.fit == "cover"
                else "Fill the frame, following the keep areas"
            ),
            treatment=following,
        )
    keeps = p.keeps
    x0, x1, y0, y1 = hull(keeps)
    across, down = q.shown.x1 - q.shown.x0, q.shown.y1 - q.shown.y0
    parts: list[str] = []
    figures: dict[str, float] = {}
    for need, seen, side in ((x1 - x0, across, "width"), (y1 - y0, down, "height")):
        least = float(seen.min())
        if need > least + 1e-9:
            at = int(q.viewport_w[int(seen.min(axis=0).round(6).argmin())])
            parts.append(
                f"{share_text(least)} of the {side} shows at {at} px, {names_text(keeps)}"
                f" {need_word(keeps)} {share_text(need)}"
            )
            figures |= {f"{side}_needed": round(need, 4), f"{side}_shown": round(least, 4)}
    if beyond := tuple(a for a in keeps if not is_within(edges(a), p.crop)):
        parts.insert(0, f"the crop leaves out part of {names_text(beyond)}")
    small = [a for a in keeps if a.least_px is not None and too_small(a, q.shown).any()]
    parts += [
        f"{a.name} is shown {float((a.rect.w * q.shown.drawn_w).min()):.0f} px wide,"
        f" {number(a.least_px or 0)} px are asked for"
        for a in small
    ]
    said = "; ".join(parts)
    return AdviceStep(
        kind="aim", works=False, why=f"{said[:1].upper()}{said[1:]}.", figures=figures
    )


def without_crop(site: Site, p: SpanPlan) -> AdviceStep:
    treatment = what_changes(p, crop=UNCROPPED, aim=Following(), fit="cover")
    if not holds_all(tried(site, p, treatment)):
        return AdviceStep(
            kind="uncrop", works=False, why="Without the crop they are not whole either."
        )
    return AdviceStep(
        kind="uncrop",
        works=True,
        why="The crop is what cuts them: without it every area is whole.",
        label="Without the crop",
        treatment=treatment,
    )

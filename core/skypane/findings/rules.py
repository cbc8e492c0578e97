"""What is wrong or wasteful in a placement."""

from __future__ import annotations

import math
from typing import Literal

from skypane.files.renditions import groups, renditions
from skypane.files.rows import FileRow, file_rows
from skypane.markup.picture import alt_text
from skypane.model import Placement, Site
from skypane.numerals import share_text
from skypane.shown.keeps import AreaFates, failing, summary
from skypane.shown.plan import SpanPlan
from skypane.values import Noun

Step = Literal["frame", "aim", "words", "files", "code", "proof"]


class Finding(Noun):
    """One thing that is wrong or wasteful: where, why and the remedy."""

    step: Step
    spans: tuple[str, ...]
    code: str
    sentence: str
    remedy: str


def findings_of(site: Site, placement: Placement, plans: tuple[SpanPlan, ...]) -> list[Finding]:
    """What is wrong or wasteful in a placement that has been computed."""
    return findings_in(
        placement, plans, file_rows(renditions(site, placement, plans), {}), site.densities
    )


def _soft(
    plans: tuple[SpanPlan, ...], rows: tuple[FileRow, ...], densities: tuple[float, ...]
) -> list[Finding]:
    """Where an original has too few px for a density that is offered; also where that density has
    no file of its own, because it would be the same as a lower one's."""
    found = []
    for group in groups(plans):
        mine = [r for r in rows if r.spans == group.letters]
        for density in densities:
            needed = math.ceil(group.needed * density)
            has = min(group.crop.w, needed)
            if has / needed >= 0.995 or not mine:
                continue
            stem = next((r.stem for r in mine if r.density == density), None)
            said = (
                f"{stem} is soft"
                if stem
                else f"{mine[0].stem} is soft at {density:g}x, which has no file of its own"
            )
            found.append(
                Finding(
                    step="files",
                    spans=group.letters,
                    code="soft",
                    sentence=(
                        f"{said}, {has / needed:.2f}×: {needed} px needed, the original has {has}"
                        f" px there. Sharp up to {mine[0].sharp_to_density:g}x."
                    ),
                    remedy="Bring a larger original, or make the frame smaller.",
                )
            )
    return found


def findings_in(
    placement: Placement,
    plans: tuple[SpanPlan, ...],
    rows: tuple[FileRow, ...],
    densities: tuple[float, ...],
) -> list[Finding]:
    found: list[Finding] = []
    empty = tuple(p.span.letter for p in plans if p.waits)
    if empty:
        found.append(
            Finding(
                step="aim",
                spans=empty,
                code="no-original",
                sentence=(
                    "No picture yet."
                    if len(empty) == len(plans)
                    else f"No picture in span {', '.join(empty)}."
                ),
                remedy="Drop an original on the map or choose one.",
            )
        )
    for p in plans:
        over = p.viewport_w[(p.viewport_w + 0.5 < p.W).any(axis=0)]
        if over.size and p.effective.show != "nothing":
            found.append(
                Finding(
                    step="frame",
                    spans=(p.span.letter,),
                    code="wider-than-page",
                    sentence=(
                        f"The frame is wider than the page from {int(over[0])} to {int(over[-1])}"
                        " px and scrolls it sideways."
                    ),
                    remedy="Use a share of the page there, or give the frame a greatest width.",
                )
            )
    for p in plans:
        found += [_area_finding(p, summary(p, area)) for area in failing(p)]
    found += _soft(plans, rows, densities)
    if not empty and any(p.shown is not None for p in plans) and alt_text(placement, plans) is None:
        found.append(
            Finding(
                step="code",
                spans=(),
                code="no-alt",
                sentence="The picture has no alt text.",
                remedy="Say what it shows, or mark it as decorative on purpose.",
            )
        )
    lettering = list(
        dict.fromkeys(a.name for p in plans if p.shown is not None for a in p.keeps if a.lettering)
    )
    if lettering and alt_text(placement, plans) == "":
        found.append(
            Finding(
                step="code",
                spans=(),
                code="lettering-unsaid",
                sentence=(
                    f"{' and '.join(lettering)}: lettering in a picture that is marked as"
                    " decorative."
                ),
                remedy="Let the alt text say the words, or set them as text on the picture.",
            )
        )
    return found


def _area_finding(p: SpanPlan, fate: AreaFates) -> Finding:
    """The sentence for one area that fails somewhere in a span."""
    at = f"at {fate.worst_at}" + (f" × {fate.worst_height}" if fate.worst_height else "")
    if fate.worst_share >= 1:
        said = f"{fate.name} is shown too small from {fate.first_failing} px."
    else:
        word = "lost" if fate.worst_share < 0.5 else "cut"
        out = share_text(1 - fate.worst_share)
        said = (
            f"{fate.name} is {word} from {fate.first_failing} px: {out} of it is out of view {at}."
        )
    return Finding(
        step="aim",
        spans=(p.span.letter,),
        code="area",
        sentence=said,
        remedy="See the advice for this span.",
    )

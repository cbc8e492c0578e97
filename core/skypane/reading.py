"""The one door for the interface: a placement in, everything that is shown on its desk out.

A reading is compact: bands are runs of widths, curves the few points where their slope changes, so that the cursor can say
its sentence for any width without asking again.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Callable, Mapping
from typing import Literal

import numpy as np

from skypane.advice import Advice, AimCost, ByPercents, advise_all, aim_costs, by_percents, largest_crop
from skypane.brief import Brief, brief
from skypane.errors import InvalidPlan
from skypane.fit import Region, following_offset, overlap, picture_of, safe_area, union
from skypane.frames import Floats, depends_on_viewport_height, number, share_text, sizes_css, viewport_heights
from skypane.keeps import AreaFates, constant, edges, failing, fates, stretches, summary
from skypane.markup.picture import Line, alt_text, css_lines, pane_lines, picture_lines, span_css, text_of
from skypane.model import Following, Format, Noun, Original, Placement, Rect, Rendition, Site, Treatment
from skypane.needs import FIELDS, Group, SpanPlan, crop_of, drawn_cut_width, groups, plan, renditions, whole_px

Step = Literal["frame", "aim", "words", "files", "code", "proof"]
Verdict = Literal["whole", "cut", "lost", "small", "sharp", "soft", "light", "heavy", "unknown"]


class Curve(Noun):
    """A function of the viewport width as (width, value) points, linear in between."""

    points: tuple[tuple[float, float], ...]


class Run(Noun):
    """Consecutive widths with one verdict. `at_first`, `at_last` and `worst` are shares in 0–1 (in view, or of the px needed)."""

    first: int
    last: int
    verdict: Verdict
    at_first: float
    at_last: float
    worst: float
    worst_at: int


class Band(Noun):
    """How one thing fares at every width. `kind` says what: a keep area, sharpness at a density, weight at a density."""

    kind: Literal["area", "sharp", "weight"]
    name: str
    density: float | None = None
    runs: tuple[Run, ...] = ()
    curve: Curve | None = None  # shares in view, shares of the px needed (of spans that are soft somewhere), or bytes
    needed: Curve | None = None  # of a sharpness band: image px that the frame asks for, before rounding up


class Edges(Noun):
    """A part of an original by its edges, in fractions."""

    x0: float
    x1: float
    y0: float
    y1: float


class Hold(Noun):
    """A run of widths at which a keep area moves the picture away from where the rest would have it."""

    name: str
    first: int
    last: int


class SpanReading(Noun):
    """One span: what holds there and what it comes to. Curves are taken at the typical viewport height.

    `keeps` are the areas that matter, the first most. `print` is a fingerprint: equal ones show the same at every width.
    """

    letter: str
    title: str
    first: int
    last: int
    effective: Treatment
    own: tuple[str, ...]
    origin: dict[str, str]
    frame_w: Curve
    frame_h: Curve
    drawn_w: Curve | None = None
    x0: Curve | None = None
    x1: Curve | None = None
    y0: Curve | None = None
    y1: Curve | None = None
    outline: Edges | None = None
    safe: Edges | None = None
    viewport_heights: tuple[int, int] | None = None
    position: str = ""
    held_by: tuple[str, ...] = ()
    holds: tuple[Hold, ...] = ()
    keeps: tuple[str, ...] = ()
    frame_text: str = ""
    print: str = ""


class FileFormat(Noun):
    format: Format
    name: str
    key: str
    size_bytes: int | None = None


class FileRow(Noun):
    """One px size of one group of spans, in all its formats. `share` below 1: soft by that factor."""

    spans: tuple[str, ...]
    density: float
    width_px: int
    height_px: int
    needed_px: int
    share: float
    sharp_to_density: float
    stem: str
    original: int
    formats: tuple[FileFormat, ...]


class Finding(Noun):
    """One thing that is wrong or wasteful: where, why and the remedy."""

    step: Step
    spans: tuple[str, ...]
    code: str
    sentence: str
    remedy: str


class Code(Noun):
    markup: tuple[Line, ...]
    css: tuple[Line, ...]
    sizes: str
    markup_text: str
    css_text: str


class Pane(Noun):
    """What the panes are made of: the delivered CSS for whole originals, and markup that shows previews of them."""

    markup: str
    css: str


class ViewportPoint(Noun):
    to_px: int
    typical_px: int


class PxNeed(Noun):
    """How many image px the crop has to be wide for a density, whatever its size, as long as its ratio stays."""

    density: float
    width_px: int
    height_px: int


class RatioCrop(Noun):
    """The largest crop of one ratio that holds all areas; `rect` None and the reason in `why_not` where they do not fit."""

    name: str
    rect: Rect | None
    why_not: str = ""


class CropFacts(Noun):
    """The crop of a span in image px, beside what its frames need, and crops of usual ratios to start from."""

    x: int
    y: int
    width_px: int
    height_px: int
    needs: tuple[PxNeed, ...]
    largest: tuple[RatioCrop, ...]


class SpanDetail(Noun):
    """More about the one span that is being worked on. `aims` and `percents` only where they are asked for."""

    letter: str
    aims: tuple[AimCost, ...]
    percents: ByPercents | None
    crop: CropFacts | None


class OverallSafe(Noun):
    """What of an original is in view at every width of all the spans that show it; `safe` None where nothing is."""

    original: int
    spans: tuple[str, ...]
    safe: Edges | None


class Reading(Noun):
    narrowest: int
    widest: int
    spans: tuple[SpanReading, ...]
    bands: tuple[Band, ...]
    files: tuple[FileRow, ...]
    findings: tuple[Finding, ...]
    advice: tuple[Advice, ...]
    code: Code
    pane: Pane
    heights: tuple[ViewportPoint, ...]
    budget_bytes: int
    safe: tuple[OverallSafe, ...] = ()
    brief: Brief | None = None  # only where a span waits for a picture
    detail: SpanDetail | None = None


def simplified(v: Floats, y: Floats, tolerance: float) -> Curve:
    """The fewest points, found by splitting at the farthest one, between which straight lines stay within `tolerance`."""
    if constant(y) or y.min() == y.max():
        ends = (float(v[0]),) if len(v) == 1 else (float(v[0]), float(v[-1]))
        return Curve(points=tuple((at, round(float(y[0]), 5)) for at in ends))
    keep = np.array([0, len(v) - 1])
    while True:  # all pieces that are too far off are split at once
        gap = np.abs(np.interp(v, v[keep], y[keep]) - y)
        over = np.flatnonzero(np.maximum.reduceat(gap, keep[:-1]) > tolerance)
        if not over.size:
            break
        split = [a + int(gap[a:b].argmax()) for a, b in zip(keep[over], keep[over + 1], strict=True)]
        keep = np.sort(np.concatenate([keep, split]))
    return Curve(points=tuple(zip(v[keep].tolist(), y[keep].round(5).tolist(), strict=True)))


def runs_of(v: Floats, verdicts: np.ndarray, shares: Floats) -> list[Run]:
    """Consecutive equal verdicts as runs. `verdicts` are words, `shares` the value that each verdict rests on."""
    changes: list[int] = [] if constant(verdicts) else (np.flatnonzero(verdicts[1:] != verdicts[:-1]) + 1).tolist()
    out = []
    for a, b in zip([0, *changes], [*changes, len(v)], strict=True):
        worst = int(a + shares[a:b].argmin())
        out.append(
            Run(
                first=int(v[a]),
                last=int(v[b - 1]),
                verdict=str(verdicts[a]),
                at_first=round(float(shares[a]), 4),
                at_last=round(float(shares[b - 1]), 4),
                worst=round(float(shares[worst]), 4),
                worst_at=int(v[worst]),
            )
        )
    return out


def merged(runs: list[Run]) -> tuple[Run, ...]:
    """Neighbouring runs with one verdict joined, across spans."""
    out: list[Run] = []
    for run in runs:
        last = out[-1] if out else None
        if last and last.verdict == run.verdict and last.last + 1 == run.first:
            worse = run if run.worst < last.worst else last
            out[-1] = last.model_copy(
                update={"last": run.last, "at_last": run.at_last, "worst": worse.worst, "worst_at": worse.worst_at}
            )
        else:
            out.append(run)
    return tuple(out)


def read(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    *,
    preview: Callable[[Original, Rect | None], str] = lambda o, crop: o.name,
    made_bytes: Callable[[list[str]], Mapping[str, int]] = lambda keys: {},
    others: Callable[[], Mapping[int, Original]] = dict,
    chosen: str | None = None,
    costs: bool = False,
) -> Reading:
    """Everything about a placement. `preview` tells where a preview of an original's crop is to be had, `made_bytes` the bytes of
    those renditions that exist already, by key; `others` gives originals of the site that advice may propose, and is asked only
    where something fails; `chosen` is the span that is read in detail, and then the only one that advice is worked out for; with
    `costs` its detail says what each way to aim comes to.

    Raises InvalidPlan where the placement cannot be computed.
    """
    plans = plan(site, placement, originals)
    files = renditions(site, placement, plans)
    made = made_bytes([r.key for _, mine in files for r in mine])
    rows = _file_rows(files, made)
    fails = any(failing(p) for p in plans if chosen is None or p.span.letter == chosen)
    return Reading(
        narrowest=site.narrowest,
        widest=site.widest,
        spans=tuple(_span_reading(site, placement, p) for p in plans),
        bands=(*_area_bands(plans), *_sharp_bands(site, plans, files), *_weight_bands(site, plans, files, made)),
        files=rows,
        findings=tuple(_findings(placement, plans, rows, site.densities)),
        advice=advise_all(site, plans, {**originals, **others()}, chosen) if fails else (),
        code=_code(site, placement, plans, files),
        pane=Pane(
            markup=text_of(pane_lines(site, placement, plans, preview)),
            css=text_of(css_lines(site, placement, plans, whole=True)),
        ),
        heights=tuple(
            ViewportPoint(to_px=h.to_px, typical_px=h.typical_px) for h in sorted(site.heights, key=lambda h: h.to_px)
        ),
        budget_bytes=site.budget_bytes,
        safe=_overall_safe(plans),
        brief=brief(plans, site.densities[-1]) if any(p.waits for p in plans) else None,
        detail=next((_detail(site, p, costs) for p in plans if p.span.letter == chosen), None),
    )


def _overall_safe(plans: tuple[SpanPlan, ...]) -> tuple[OverallSafe, ...]:
    """Per original in use what all its spans have in common."""
    letters: dict[int, list[str]] = {}
    safe: dict[int, Region | None] = {}
    for p in plans:
        if p.original is None or p.shown is None:
            continue
        mine = safe_area(p.shown)
        safe[p.original.id] = overlap(safe[p.original.id], mine) if p.original.id in safe else mine
        letters.setdefault(p.original.id, []).append(p.span.letter)
    return tuple(
        OverallSafe(original=id_, spans=tuple(letters[id_]), safe=Edges(**region._asdict()) if region else None)
        for id_, region in safe.items()
    )


def _detail(site: Site, p: SpanPlan, costs: bool) -> SpanDetail:
    crop = None
    if p.original is not None and p.inside is not None:
        px = crop_of(p.original, p.crop)
        drawn = float(p.inside.drawn_w.max())
        needs = tuple(
            PxNeed(density=d, width_px=whole_px(drawn * d), height_px=whole_px(drawn * d * px.h / px.w)) for d in site.densities
        )
        crop = CropFacts(x=px.x, y=px.y, width_px=px.w, height_px=px.h, needs=needs, largest=_largest_crops(p))
    return SpanDetail(
        letter=p.span.letter,
        aims=aim_costs(site, p) if costs else (),
        percents=by_percents(p) if costs else None,
        crop=crop,
    )


USUAL_RATIOS = {"1:1": 1.0, "4:5": 4 / 5, "3:2": 3 / 2, "16:9": 16 / 9, "2:1": 2.0}


def _largest_crops(p: SpanPlan) -> tuple[RatioCrop, ...]:
    assert p.original is not None
    ratios = p.W / p.H
    asked = {"the frame": float(ratios.mean())} if np.ptp(ratios) < 1e-3 else {}
    picture = picture_of(p.original, Following())
    out = []
    for name, ratio in {**asked, **USUAL_RATIOS}.items():
        try:
            found = largest_crop(picture, ratio, p.keeps)
            out.append(RatioCrop(name=name, rect=found))
        except InvalidPlan as problem:
            said = str(problem)
            out.append(RatioCrop(name=name, rect=None, why_not=f"{said[:1].upper()}{said[1:]}"))
    return tuple(out)


def _holds(p: SpanPlan) -> tuple[Hold, ...]:
    """At which widths each binding area holds the picture: where leaving it out would move it by half a px (typical height)."""
    if p.picture is None or p.inside is None or not isinstance(p.effective.aim, Following):
        return ()
    s, t, out = p.inside, _typical(p), []
    axes = (("x", s.W[t], s.drawn_w[t], p.picture.focal[0]), ("y", s.H[t], s.drawn_h[t], p.picture.focal[1]))
    for axis, room, drawn, focal in axes:
        held = p.held["x" if axis == "x" else "y"]
        result = following_offset(room, drawn, focal, held)
        for area in held:
            without = following_offset(room, drawn, focal, tuple(k for k in held if k is not area))
            moved: np.ndarray = np.abs(without - result) >= 0.5
            out += [Hold(name=area.name, first=first, last=last) for first, last in stretches(p.viewport_w, moved)]
    return tuple(dict.fromkeys(out))


def _print(p: SpanPlan) -> str:
    """Equal prints show the same at every width: frame, window, original, colour, and how its areas fare."""
    hashed = hashlib.blake2b(digest_size=9)
    e = p.effective
    of = p.original.sha256 or str(p.original.id) if p.original else ""
    areas = [(a.name, *edges(a), a.least_px) for a in p.keeps]
    hashed.update(repr((p.span.first, p.span.last, e.show, e.fit, e.background, of, areas)).encode())
    arrays = [p.W, p.H]
    if p.shown is not None:
        arrays += [p.shown.x0, p.shown.x1, p.shown.y0, p.shown.y1]
    for values in arrays:
        hashed.update(values.astype(np.float32).tobytes())
    return hashed.hexdigest()


def _typical(p: SpanPlan) -> int:
    heights: int = p.viewport_h.shape[0]
    return heights // 2


def _span_reading(site: Site, placement: Placement, p: SpanPlan) -> SpanReading:
    t, v, e = _typical(p), p.viewport_w, p.effective
    own = placement.treatments.get(p.span.letter, Treatment())
    out: dict[str, object] = {}
    if p.shown is not None and p.picture is not None:
        region, safe = union(p.shown), safe_area(p.shown)
        css = span_css(site, p, p.cut_inside)
        out = {
            "drawn_w": simplified(v, drawn_cut_width(p)[t], 0.5),
            "x0": simplified(v, p.shown.x0[t], 1e-3),
            "x1": simplified(v, p.shown.x1[t], 1e-3),
            "y0": simplified(v, p.shown.y0[t], 1e-3),
            "y1": simplified(v, p.shown.y1[t], 1e-3),
            "outline": Edges(**region._asdict()),
            "safe": Edges(**safe._asdict()) if safe else None,
            "position": css.position,
            "held_by": css.held_by,
            "holds": _holds(p),
        }
    heights = None
    if depends_on_viewport_height(e.height):
        heights = (int(p.viewport_h.min()), int(p.viewport_h.max()))
    return SpanReading(
        letter=p.span.letter,
        title=p.span.title,
        first=p.span.first,
        last=p.span.last,
        effective=Treatment(**{f: getattr(e, f) for f in FIELDS}),
        own=tuple(f for f in FIELDS if getattr(own, f) is not None),
        origin=e.origin,
        frame_w=simplified(v, p.W[t], 0.5),
        frame_h=simplified(v, p.H[t], 0.5),
        viewport_heights=heights,
        frame_text=_frame_text(p),
        keeps=tuple(a.name for a in p.keeps),
        print=_print(p),
        **out,
    )


def _frame_text(p: SpanPlan) -> str:
    """The frame's shape in a word for the span's tag: `4:5` where it never changes, else `varies`, vh or px as set."""
    if p.effective.show != "picture":
        return "only colour" if p.effective.show == "colour" else "not shown"
    h = p.effective.height
    ratios = p.W / p.H
    match h.kind:
        case "ratio" if np.ptp(ratios) < 0.01:
            return f"{number(h.w)}:{number(h.h)}"
        case "fixed":
            return f"{number(h.height_px)} px high"
        case "vh":
            return f"{number(h.percent)}vh"
        case "natural" if np.ptp(ratios) < 0.01:
            return "natural"
    return "varies"


def _area_bands(plans: tuple[SpanPlan, ...]) -> tuple[Band, ...]:
    """One band per keep area of the originals in use, in the order of importance within each original."""
    shown = [p for p in plans if p.original is not None and p.shown is not None]
    matter = {a.name for p in shown for a in p.keeps}
    runs: dict[str, list[Run]] = {a.name: [] for p in shown if p.original for a in p.original.keeps if a.name in matter}
    points: dict[str, list[tuple[float, float]]] = {}
    for p in shown:
        for area in p.keeps:
            verdicts, share = fates(p, area)
            runs[area.name].extend(runs_of(p.viewport_w, verdicts, share))
            points.setdefault(area.name, []).extend(simplified(p.viewport_w, share, 0.005).points)
    return tuple(
        Band(kind="area", name=name, runs=merged(found), curve=Curve(points=tuple(points[name])))
        for name, found in runs.items()
    )


def _of_group(files: tuple[tuple[Group, tuple[Rendition, ...]], ...], letter: str) -> tuple[Rendition, ...]:
    return next((renditions for g, renditions in files if letter in g.letters), ())


def _picked_width(renditions_: tuple[Rendition, ...], density: float) -> Rendition | None:
    """The rendition of the most modern format that a screen of this density takes: the least that suffices, else the greatest."""
    if not renditions_:
        return None
    mine = sorted((r for r in renditions_ if r.format == renditions_[0].format), key=lambda r: r.density)
    return next((r for r in mine if r.density >= density), mine[-1])


def _sharp_bands(
    site: Site, plans: tuple[SpanPlan, ...], files: tuple[tuple[Group, tuple[Rendition, ...]], ...]
) -> tuple[Band, ...]:
    bands = []
    drawn = {p.span.letter: drawn_cut_width(p).max(axis=0) for p in plans if p.shown is not None}
    thin = {p.span.letter: simplified(p.viewport_w, drawn[p.span.letter], 0.02) for p in plans if p.shown is not None}
    for density in site.densities:
        runs: list[Run] = []
        points: list[tuple[float, float]] = []
        asked: list[tuple[float, float]] = []
        for p in plans:
            file = _picked_width(_of_group(files, p.span.letter), density)
            if file is None or p.shown is None:
                continue
            needed = drawn[p.span.letter] * density
            share = np.minimum(file.width_px / needed, 9.99)
            asked += [(w, round(px * density, 5)) for w, px in thin[p.span.letter].points]
            # a file is sharp when it has the needed px to within a whole px
            sharp = file.width_px >= np.ceil(np.round(needed, 4)) - 1
            if sharp.all():
                runs += runs_of(p.viewport_w, np.broadcast_to("sharp", sharp.shape), share)
                continue
            runs += runs_of(p.viewport_w, np.where(sharp, "sharp", "soft"), share)
            points += simplified(p.viewport_w, share, 0.005).points
        if runs:
            name = f"Sharp at {density:g}x"
            curve, needs = Curve(points=tuple(points)), Curve(points=tuple(asked))
            bands.append(Band(kind="sharp", name=name, density=density, runs=merged(runs), curve=curve, needed=needs))
    return tuple(bands)


def _weight_bands(
    site: Site,
    plans: tuple[SpanPlan, ...],
    files: tuple[tuple[Group, tuple[Rendition, ...]], ...],
    made: Mapping[str, int],
) -> tuple[Band, ...]:
    """Bytes of the pick at the greatest density, as far as files have been made. Shares are bytes over the budget."""
    density = site.densities[-1]
    runs: list[Run] = []
    points: list[tuple[float, float]] = []
    for p in plans:
        file = _picked_width(_of_group(files, p.span.letter), density)
        if file is None:
            continue
        size = made.get(file.key)
        share = round(size / site.budget_bytes, 4) if size is not None else 0.0
        verdict: Verdict = "unknown" if size is None else "heavy" if size > site.budget_bytes else "light"
        runs.append(
            Run(
                first=p.span.first,
                last=p.span.last,
                verdict=verdict,
                at_first=share,
                at_last=share,
                worst=share,
                worst_at=p.span.first,
            )
        )
        points += [(p.span.first, size or 0), (p.span.last, size or 0)]
    if not runs:
        return ()
    return (
        Band(
            kind="weight", name=f"Weight at {density:g}x", density=density, runs=tuple(runs), curve=Curve(points=tuple(points))
        ),
    )


def _file_rows(files: tuple[tuple[Group, tuple[Rendition, ...]], ...], made: Mapping[str, int]) -> tuple[FileRow, ...]:
    rows = []
    for group, mine in files:
        for density in dict.fromkeys(r.density for r in mine):
            same = [r for r in mine if r.density == density]
            first = same[0]
            rows.append(
                FileRow(
                    spans=group.letters,
                    density=density,
                    width_px=first.width_px,
                    height_px=first.height_px,
                    needed_px=first.needed_px,
                    share=round(min(1.0, first.share), 4),
                    sharp_to_density=round(group.crop.w / group.needed, 2),
                    stem=first.name.rpartition(".")[0],
                    original=first.original,
                    formats=tuple(
                        FileFormat(format=r.format, name=r.name, key=r.key, size_bytes=made.get(r.key)) for r in same
                    ),
                )
            )
    return tuple(rows)


def _code(
    site: Site,
    placement: Placement,
    plans: tuple[SpanPlan, ...],
    files: tuple[tuple[Group, tuple[Rendition, ...]], ...],
) -> Code:
    markup = picture_lines(site, placement, plans, files)
    css = css_lines(site, placement, plans)
    sizes = sizes_css([(p.span.first, p.span.last, p.effective.width) for p in plans], site.container, site.media_style)
    return Code(markup=markup, css=css, sizes=sizes, markup_text=text_of(markup), css_text=text_of(css))


def findings_of(site: Site, placement: Placement, plans: tuple[SpanPlan, ...]) -> list[Finding]:
    """What is wrong or wasteful in a placement that has been computed."""
    return _findings(placement, plans, _file_rows(renditions(site, placement, plans), {}), site.densities)


def _soft(plans: tuple[SpanPlan, ...], rows: tuple[FileRow, ...], densities: tuple[float, ...]) -> list[Finding]:
    """Where an original has too few px for a density that is offered; also where that density has no file of its own, because it
    would be the same as a lower one's."""
    found = []
    for group in groups(plans):
        mine = [r for r in rows if r.spans == group.letters]
        for density in densities:
            needed = math.ceil(group.needed * density)
            has = min(group.crop.w, needed)
            if has / needed >= 0.995 or not mine:
                continue
            stem = next((r.stem for r in mine if r.density == density), None)
            said = f"{stem} is soft" if stem else f"{mine[0].stem} is soft at {density:g}x, which has no file of its own"
            found.append(
                Finding(
                    step="files",
                    spans=group.letters,
                    code="soft",
                    sentence=(
                        f"{said}, {has / needed:.2f}×: {needed} px needed, the original has {has} px there. "
                        f"Sharp up to {mine[0].sharp_to_density:g}x."
                    ),
                    remedy="Bring a larger original, or make the frame smaller.",
                )
            )
    return found


def _findings(
    placement: Placement, plans: tuple[SpanPlan, ...], rows: tuple[FileRow, ...], densities: tuple[float, ...]
) -> list[Finding]:
    found: list[Finding] = []
    empty = tuple(p.span.letter for p in plans if p.waits)
    if empty:
        found.append(
            Finding(
                step="aim",
                spans=empty,
                code="no-original",
                sentence="No picture yet." if len(empty) == len(plans) else f"No picture in span {', '.join(empty)}.",
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
                    sentence=f"The frame is wider than the page from {int(over[0])} to {int(over[-1])} px and scrolls it sideways.",
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
    lettering = list(dict.fromkeys(a.name for p in plans if p.shown is not None for a in p.keeps if a.lettering))
    if lettering and alt_text(placement, plans) == "":
        found.append(
            Finding(
                step="code",
                spans=(),
                code="lettering-unsaid",
                sentence=f"{' and '.join(lettering)}: lettering in a picture that is marked as decorative.",
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
        said = f"{fate.name} is {word} from {fate.first_failing} px: {out} of it is out of view {at}."
    return Finding(step="aim", spans=(p.span.letter,), code="area", sentence=said, remedy="See the advice for this span.")


def typical_height(site: Site, width: int) -> int:
    """The viewport height that goes with a viewport width, in CSS px."""
    return int(viewport_heights(site, np.array([float(width)]))[1][0])

"""The pick: which file a browser takes from an `img` or `picture`, with the reason of every step.

HTML Standard, "updating the source set" and "selecting an image source". Which candidate of a
source set is taken is left to the browser there; docs/chromium.md and docs/engines.md tell what was
seen. Densities are compared as 32-bit floats, but in Firefox.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from skypane.errors import InvalidPlan
from skypane.picks.engines import CURRENT, ENGINES, JXL, Policy, device_density
from skypane.picks.markup import Markup, Source, read_markup
from skypane.picks.media import Environment, media_matches
from skypane.picks.sizes import Size, evaluate_sizes, is_auto
from skypane.picks.srcset import Candidate, SourceSet, parse_srcset
from skypane.picks.values import float32
from skypane.values import Noun


@dataclass(frozen=True, slots=True)
class Reason:
    """One reason on the way to a pick: which element, whether it went on, and why."""

    element: str
    taken: bool
    why: str


class Pick(Noun):
    """`url` as the markup writes it, None when nothing is loaded. `density`: what the file counts
    as, None if infinite."""

    url: str | None
    density: float | None
    trace: tuple[Reason, ...]
    warnings: tuple[str, ...] = ()


def pick(markup: str | Markup, env: Environment) -> Pick:
    """What a browser takes from the markup of one `img` or `picture` in this environment.

    Raises InvalidPlan where the markup holds no `img` or the environment has no size.
    """
    if not (env.width >= 0 and env.height >= 0 and env.density > 0) or not math.isfinite(
        env.density
    ):
        raise InvalidPlan(
            "A viewport needs a width, a height and a density above zero.", field="density"
        )
    read = read_markup(markup) if isinstance(markup, str) else markup
    trace: list[Reason] = []
    taken = _taken(read, env, trace)
    if taken is None:
        found = Pick(url=None, density=None, trace=tuple(trace))
    else:
        found = _told(taken, _size_of(taken, read, env), env, trace)
    warnings = [*found.warnings, *read.advice]
    if env.policy == "least-sufficient":
        warnings += _otherwise(read, env, taken, found.url)
    return (
        found.model_copy(update={"warnings": tuple(dict.fromkeys(warnings))}) if warnings else found
    )


def _otherwise(
    read: Markup, env: Environment, taken: _Taken | None, url: str | None
) -> Iterator[str]:
    """Sentences about the engines that take another file than the standard's `url` of `taken`."""
    anywhere = read.parts or _rounds_density(env)
    if not anywhere and (taken is None or not _size_parts(taken, read, env)):
        return
    for policy in CURRENT:
        theirs = env.in_engine(policy, _types_in(policy, env))
        trace: list[Reason] = []
        mine = _taken(read, theirs, trace) if anywhere else taken
        other = None
        if mine is not None:
            size = _size_of(mine, read, theirs)
            other = _chosen(mine.candidates, size, theirs).url
            if other != url:
                _told(mine, size, theirs, trace)
        if other == url:
            continue
        why = trace[-1].why if trace else "nothing is left"
        yield f"{ENGINES[policy].name} takes {_shortened(other)} here: {why}."


def _size_parts(taken: _Taken, read: Markup, env: Environment) -> bool:
    """Whether engines can measure `w` against different widths."""
    part = read.sizes_part if taken.source is None else taken.source.sizes_part
    return part or env.width % 1 != 0


def _rounds_density(env: Environment) -> bool:
    return any(device_density(ENGINES[p], env.density) != env.density for p in CURRENT)


def _types_in(policy: Policy, env: Environment) -> frozenset[str] | None:
    """The types of an engine, less those that the environment leaves out."""
    return None if env.types is None else ENGINES[policy].types & (env.types | JXL)


def _shortened(url: str | None) -> str:
    return "nothing" if url is None else url if len(url) <= 60 else f"{url[:59]}…"


class _Taken(NamedTuple):
    """The source set that one engine chooses from; `source` is None for the img's own."""

    label: str
    candidates: Sequence[Candidate]
    source: Source | None


def _taken(read: Markup, env: Environment, trace: list[Reason]) -> _Taken | None:
    """The source set of an engine, or None where nothing is loaded; why goes into the trace."""
    if read.lazy and read.hidden:
        trace.append(Reason(element="img", taken=False, why="hidden and lazy: it is never loaded"))
        return None
    for source in read.sources:
        found = _from_source(source, env, trace)
        if found is not None:
            return _Taken(source.label, found, source)
    parsed = parse_srcset(read.srcset or "", env.engine)
    _note_dropped("img", parsed, trace)
    candidates = list(parsed.candidates)
    if (
        read.src
        and not any(c.width is not None for c in candidates)
        and not any(map(_is_plain, candidates))
    ):
        candidates.append(Candidate(read.src, 1.0))
    if not candidates:
        trace.append(Reason(element="img", taken=False, why="no candidate and no src"))
        return None
    return _Taken("img", candidates, None)


def _size_of(taken: _Taken, read: Markup, env: Environment) -> Size:
    """The width that a source set is measured against."""
    if taken.source is None:
        return _size_for(read.sizes, read.sizes is not None, read, env, True)
    return _size_for(taken.source.sizes, taken.source.has_sizes, read, env, False)


def _is_plain(candidate: Candidate) -> bool:
    """Whether it is of density 1, said or not."""
    return candidate.width is None and candidate.density in (None, 1)


def _from_source(
    source: Source, env: Environment, trace: list[Reason]
) -> tuple[Candidate, ...] | None:
    """The candidates of a source that is taken, or None with the reason in the trace."""

    def passed(why: str) -> None:
        trace.append(Reason(element=source.label, taken=False, why=why))

    if source.srcset is None:
        passed("it has no srcset")
        return None
    parsed = parse_srcset(source.srcset, env.engine)
    _note_dropped(source.label, parsed, trace)
    if not parsed.candidates:
        passed("its srcset has no valid candidate")
        return None
    if source.media is not None and not media_matches(source.media, env):
        passed(f"{source.media} does not hold at {env.width:g} × {env.height:g}")
        return None
    if source.type is not None:
        essence = source.type.partition(";")[0].strip("\t\n\f\r ").lower()
        if essence and essence not in env.taken_types:
            passed(f"{essence} is not supported")
            return None
    why = " and ".join(
        [
            (
                f"{source.media} holds"
                if source.media and source.media.strip()
                else "it has no condition"
            )
        ]
        + ([f"{source.type} is supported"] if source.type and source.type.strip() else [])
    )
    trace.append(Reason(element=source.label, taken=True, why=why))
    return parsed.candidates


def _note_dropped(label: str, parsed: SourceSet, trace: list[Reason]) -> None:
    for d in parsed.dropped:
        trace.append(
            Reason(element=label, taken=False, why=f"{d.url or 'a candidate'} is dropped: {d.why}")
        )


def _size_for(
    text: str | None, present: bool, read: Markup, env: Environment, is_img: bool
) -> Size:
    """The width that stands for `w`. `auto` is the layout width of a lazy image (HTML Standard,
    "sizes attributes")."""
    engine = env.engine
    by_img = is_auto(read.sizes)
    if engine.auto == "unknown":
        auto = False
    elif engine.auto_by_img:
        auto = by_img
    else:
        auto = is_auto(text) or (not is_img and not present and by_img)
    if auto and read.lazy:
        if env.layout_width is not None:
            width = env.layout_width
        else:
            width = read.width_attribute if read.width_attribute is not None else 300.0
        return Size(
            width if engine.auto == "layout" else float(math.floor(width + 0.5)),
            "auto, the layout width",
        )
    if not is_auto(text):
        return evaluate_sizes(text, env)
    if engine.auto_eager_is_100vw:
        return Size(env.width, "100vw: auto counts for lazy images only")
    return evaluate_sizes((text or "").partition(",")[2], env)


class _Chosen(NamedTuple):
    """`ranked`: densities in ascending order, the first of equal ones, and `at` which it is taken.
    `asked`: the device's density as the engine counts it. `by_data`: taken only because it is a
    data: URL."""

    ranked: list[tuple[float, Candidate]]
    asked: float
    at: int
    by_data: bool

    @property
    def url(self) -> str:
        return self.ranked[self.at][1].url


def _chosen(candidates: Sequence[Candidate], size: Size, env: Environment) -> _Chosen:
    """The densities of a source set, and which one an engine takes."""
    engine = env.engine
    number = float32 if engine.single else float
    width = size.width
    if engine.size_grid_px is not None:
        width = math.floor(width / engine.size_grid_px + 0.5) * engine.size_grid_px
    width = number(width)
    first: dict[float, Candidate] = {}
    for c in candidates:
        if c.width is None:
            density = 1.0 if c.density is None else number(c.density)
        else:
            density = number(number(c.width) / width) if width > 0 else math.inf
        first.setdefault(density, c)
    ranked = sorted(first.items(), key=lambda m: m[0])
    asked = number(device_density(engine, env.density))
    index = (_geometric if engine.geometric else _least_sufficient)(ranked, asked)
    by_data = False
    if engine.prefers_data:
        for i in range(index + 1, len(ranked)):
            if ranked[i][1].url[:5].lower() == "data:":
                index, by_data = i, True
    return _Chosen(ranked, asked, index, by_data)


def _least_sufficient(ranked: list[tuple[float, Candidate]], dpr: float) -> int:
    return least_sufficient([density for density, _ in ranked], dpr)


def least_sufficient(densities: Sequence[float], asked: float) -> int:
    """The place of the least density that suffices, else of the greatest, in ascending ones; what
    Chromium was seen to take, see docs/chromium.md."""
    return min(bisect_left(densities, asked), len(densities) - 1)


def chosen_by_width(widths: Sequence[int], drawn: NDArray[Any], asked: float) -> NDArray[np.int64]:
    """Which of several files, of ascending `widths` in px, a screen of density `asked` takes where
    `sizes` gives the width `drawn` in CSS px, (n,): `least_sufficient` for each of these."""
    by_px = np.array(widths, dtype=np.float32)
    densities = by_px / np.round(drawn, 4).astype(np.float32)[:, None]
    at: NDArray[np.int64] = (densities < asked).sum(axis=1)
    return np.minimum(at, len(widths) - 1)


def _geometric(ranked: list[tuple[float, Candidate]], dpr: float) -> int:
    i = 0
    while i + 1 < len(ranked):
        current, following = ranked[i][0], ranked[i + 1][0]
        if following >= dpr:
            beyond = dpr >= float32(math.sqrt(max(0.0, current * following)))
            return i + 1 if beyond or (dpr <= 1 and dpr > current) else i
        i += 1
    return i


def _why(chosen: _Chosen, env: Environment) -> str:
    density = chosen.ranked[chosen.at][0]
    if chosen.by_data:
        return "a denser data: URL is at hand without loading, Chromium takes it"
    if env.engine.geometric:
        return f"{density:.4g}x by the geometric mean"
    if density >= chosen.asked:
        return f"{density:.4g}x is the least that suffices"
    return f"none suffices, {density:.4g}x is the most"


def _told(taken: _Taken, size: Size, env: Environment, trace: list[Reason]) -> Pick:
    """What is taken of a source set, with the reasons."""
    label, candidates = taken.label, taken.candidates
    chosen = _chosen(candidates, size, env)
    if any(c.width is not None for c in candidates):
        trace.append(
            Reason(
                element=label,
                taken=True,
                why=f"its widths are measured against {size.width:g} px ({size.why})",
            )
        )
    number = float32 if env.engine.single else float
    listed = ", ".join(f"{d:.4g}x" for d, _ in chosen.ranked)
    asked = (
        f"{env.density:g}x"
        if chosen.asked == number(env.density)
        else f"{env.density:g}x, which is {chosen.asked:.4g}x here,"
    )
    why = f"{asked} asked of {listed}: {_why(chosen, env)}"
    trace.append(Reason(element=label, taken=True, why=why))
    density = chosen.ranked[chosen.at][0]
    warning = (
        "A data: URL is taken although a less dense file would do; only Chromium was seen to do so."
    )
    return Pick(
        url=chosen.url,
        density=density if math.isfinite(density) else None,
        trace=tuple(trace),
        warnings=(warning,) if chosen.by_data else (),
    )


class Win(Noun):
    """Where one source (or the img) is the one that is taken; no runs means never."""

    element: str
    runs: tuple[tuple[int, int], ...]


def wins(markup: str, env: Environment, widths: range) -> tuple[Win, ...]:
    """For every source and the img, the runs of viewport widths at which it wins."""
    read = read_markup(markup)
    runs: dict[str, list[tuple[int, int]]] = {
        label: [] for label in (*(s.label for s in read.sources), "img")
    }
    for width in widths:
        taken = [s.element for s in pick(read, replace(env, width=width)).trace if s.taken]
        if not taken:
            continue
        found = runs[taken[-1]]
        if found and found[-1][1] == width - 1:
            found[-1] = (found[-1][0], width)
        else:
            found.append((width, width))
    return tuple(Win(element=element, runs=tuple(r)) for element, r in runs.items())

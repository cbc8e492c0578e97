"""The pick: which file a browser takes from an `img` or `picture`, with the reason of every step.

HTML Standard, "updating the source set" and "selecting an image source". Which candidate of a source set is taken is left to
the browser there; docs/chromium.md tells what was seen. Densities are compared as 32-bit floats, as browsers do.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from selectolax.lexbor import LexborHTMLParser

from skypane.errors import InvalidPlan
from skypane.model import Noun
from skypane.picks.media import Environment, media_matches
from skypane.picks.sizes import Size, evaluate_sizes, is_auto
from skypane.picks.srcset import Candidate, SourceSet, parse_srcset
from skypane.picks.values import float32


class Step(Noun):
    """One step on the way to a pick: which element, whether it went on, and why."""

    element: str
    taken: bool
    why: str


class Pick(Noun):
    """`url` as the markup writes it, None when nothing is loaded. `density`: what the file counts as, None if infinite."""

    url: str | None
    density: float | None
    trace: tuple[Step, ...]
    warnings: tuple[str, ...] = ()


@dataclass(frozen=True)
class _Source:
    label: str
    srcset: str | None
    media: str | None
    type: str | None
    sizes: str | None
    has_sizes: bool


@dataclass(frozen=True)
class Markup:
    """An `img` with the sources before it, read once and picked from many times."""

    sources: tuple[_Source, ...]
    srcset: str | None
    src: str
    sizes: str | None
    lazy: bool
    hidden: bool
    width_attribute: float | None


_HIDING = re.compile(r"(^|;)\s*display\s*:\s*none\s*(!important\s*)?(;|$)", re.I)
_DIGITS = re.compile(r"\s*\+?(\d+(?:\.\d+)?)")


@lru_cache(maxsize=512)
def read_markup(markup: str) -> Markup:
    """Read a fragment of HTML. The first `img` that a browser would load counts. Raises InvalidPlan where there is none."""
    # inside a body, where a noscript at the very start is not taken for one in the head
    tree = LexborHTMLParser(f"<!DOCTYPE html><body>{markup}")
    img = next((n for n in tree.css("img") if not _inert(n)), None)
    if img is None:
        raise InvalidPlan("There is no img in this markup. Paste an img, or a picture with an img in it.", field="markup")
    attributes = _attributes(img)
    sources: list[_Source] = []
    parent = img.parent
    if parent is not None and parent.tag == "picture":
        for child in parent.iter():
            if child.mem_id == img.mem_id:
                break
            if child.tag == "source":
                a = _attributes(child)
                label = f"source {len(sources) + 1}"
                sources.append(_Source(label, a.get("srcset"), a.get("media"), a.get("type"), a.get("sizes"), "sizes" in a))
    width = _DIGITS.match(attributes.get("width", ""))
    return Markup(
        sources=tuple(sources),
        srcset=attributes.get("srcset"),
        src=attributes.get("src", "").strip("\t\n\f\r "),
        sizes=attributes.get("sizes"),
        lazy=attributes.get("loading", "").lower() == "lazy",
        hidden=_hidden(img),
        width_attribute=float(width[1]) if width else None,
    )


def _attributes(node: Any) -> dict[str, str]:
    return {name: value or "" for name, value in node.attributes.items()}


def _inert(node: Any) -> bool:
    parent = node.parent
    while parent is not None:
        if parent.tag in ("noscript", "template"):
            return True
        parent = parent.parent
    return False


def _hidden(node: Any) -> bool:
    while node is not None and node.tag not in ("-undef", "html", "body"):
        a = _attributes(node)
        if "hidden" in a or _HIDING.search(a.get("style", "")):
            return True
        node = node.parent
    return False


def pick(markup: str | Markup, env: Environment) -> Pick:
    """What a browser takes from the markup of one `img` or `picture` in this environment.

    Raises InvalidPlan where the markup holds no `img` or the environment has no size.
    """
    if not (env.width >= 0 and env.height >= 0 and env.density > 0) or not math.isfinite(env.density):
        raise InvalidPlan("A viewport needs a width, a height and a density above zero.", field="density")
    read = read_markup(markup) if isinstance(markup, str) else markup
    trace: list[Step] = []
    warnings: list[str] = []
    if read.lazy and read.hidden:
        return Pick(
            url=None, density=None, trace=(Step(element="img", taken=False, why="hidden and lazy: it is never loaded"),)
        )
    for source in read.sources:
        found = _from_source(source, read, env, trace, warnings)
        if found is not None:
            return _choose(source.label, *found, env, trace, warnings)
    parsed = parse_srcset(read.srcset or "", chromium=env.chromium)
    _note_dropped("img", parsed, trace)
    candidates = list(parsed.candidates)
    if read.src and not any(c.width is not None for c in candidates) and not any(_density_of(c) == 1 for c in candidates):
        candidates.append(Candidate(read.src, 1.0))
    if not candidates:
        trace.append(Step(element="img", taken=False, why="no candidate and no src"))
        return Pick(url=None, density=None, trace=tuple(trace), warnings=tuple(warnings))
    return _choose(
        "img", candidates, _size_for(read.sizes, read.sizes is not None, read, env, True, warnings), env, trace, warnings
    )


def _density_of(candidate: Candidate) -> float | None:
    return None if candidate.width is not None else 1.0 if candidate.density is None else candidate.density


def _from_source(
    source: _Source, read: Markup, env: Environment, trace: list[Step], warnings: list[str]
) -> tuple[list[Candidate], Size] | None:
    """The candidates of a source that is taken, or None with the reason in the trace."""

    def passed(why: str) -> None:
        trace.append(Step(element=source.label, taken=False, why=why))

    if source.srcset is None:
        passed("it has no srcset")
        return None
    parsed = parse_srcset(source.srcset, chromium=env.chromium)
    _note_dropped(source.label, parsed, trace)
    if not parsed.candidates:
        passed("its srcset has no valid candidate")
        return None
    if source.media is not None and not media_matches(source.media, env):
        passed(f"{source.media} does not hold at {env.width:g} × {env.height:g}")
        return None
    if source.type is not None:
        essence = source.type.partition(";")[0].strip("\t\n\f\r ").lower()
        if essence and essence not in env.types:
            passed(f"{essence} is not supported")
            return None
    why = " and ".join(
        [f"{source.media} holds" if source.media and source.media.strip() else "it has no condition"]
        + ([f"{source.type} is supported"] if source.type and source.type.strip() else [])
    )
    trace.append(Step(element=source.label, taken=True, why=why))
    return parsed.candidates, _size_for(source.sizes, source.has_sizes, read, env, False, warnings)


def _note_dropped(label: str, parsed: SourceSet, trace: list[Step]) -> None:
    for d in parsed.dropped:
        trace.append(Step(element=label, taken=False, why=f"{d.url or 'a candidate'} is dropped: {d.why}"))


def _size_for(text: str | None, present: bool, read: Markup, env: Environment, is_img: bool, warnings: list[str]) -> Size:
    """The width that stands for `w`. `auto` is the layout width of a lazy image (HTML Standard, "sizes attributes")."""
    auto = is_auto(text) or (not is_img and not present and is_auto(read.sizes))
    if auto and read.lazy:
        if env.layout_width is not None:
            width = env.layout_width
        else:
            width = read.width_attribute if read.width_attribute is not None else 300.0
        return Size(float(math.floor(width + 0.5)), "auto, the layout width")
    if auto and is_auto(text):
        if env.chromium:
            return Size(env.width, "100vw: auto counts for lazy images only")
        rest = (text or "").partition(",")[2]
        standard = evaluate_sizes(rest, env)
        if standard.width != env.width:
            warnings.append(
                "sizes begins with auto but the image is not lazy: "
                f"the standard goes on to {standard.why}, Chromium takes 100vw."
            )
        return standard
    size = evaluate_sizes(text, env)
    if not env.chromium and text is not None:
        seen = evaluate_sizes(text, _as_chromium(env))
        if seen.width != size.width:
            warnings.append(f"Chromium reads this sizes as {seen.width:g} px, the standard as {size.width:g} px.")
    return size


def _as_chromium(env: Environment) -> Environment:
    return replace(env, policy="chromium")


def _choose(
    label: str, candidates: list[Candidate], size: Size, env: Environment, trace: list[Step], warnings: list[str]
) -> Pick:
    """Densities in ascending order, the first of equal ones; then the policy."""
    measured: list[tuple[float, Candidate]] = []
    for c in candidates:
        density = _density_of(c)
        if density is None:
            assert c.width is not None
            density = float32(float32(c.width) / float32(size.width)) if size.width > 0 else math.inf
        measured.append((float32(density), c))
    if any(c.width is not None for c in candidates):
        trace.append(Step(element=label, taken=True, why=f"its widths are measured against {size.width:g} px ({size.why})"))
    ranked: list[tuple[float, Candidate]] = []
    for density, c in sorted(measured, key=lambda m: m[0]):
        if not ranked or ranked[-1][0] != density:
            ranked.append((density, c))
    dpr = float32(env.density)
    index, why = _geometric(ranked, dpr) if env.policy == "geometric" else _least_sufficient(ranked, dpr)
    denser_data = [i for i in range(index + 1, len(ranked)) if ranked[i][1].url[:5].lower() == "data:"]
    if denser_data:
        index, why = denser_data[-1], "a denser data: URL is at hand without loading, Chromium takes it"
        warnings.append("A data: URL is taken although a less dense file would do; only Chromium was seen to do so.")
    density, chosen = ranked[index]
    listed = ", ".join(f"{d:.4g}x" for d, _ in ranked)
    trace.append(Step(element=label, taken=True, why=f"{env.density:g}x asked of {listed}: {why}"))
    return Pick(
        url=chosen.url,
        density=density if math.isfinite(density) else None,
        trace=tuple(trace),
        warnings=tuple(warnings),
    )


def _least_sufficient(ranked: list[tuple[float, Candidate]], dpr: float) -> tuple[int, str]:
    for i, (density, _) in enumerate(ranked):
        if density >= dpr:
            return i, f"{density:.4g}x is the least that suffices"
    return len(ranked) - 1, f"none suffices, {ranked[-1][0]:.4g}x is the most"


def _geometric(ranked: list[tuple[float, Candidate]], dpr: float) -> tuple[int, str]:
    i = 0
    while i + 1 < len(ranked):
        current, following = ranked[i][0], ranked[i + 1][0]
        if following >= dpr:
            beyond = dpr >= float32(math.sqrt(max(0.0, current * following)))
            if not (beyond or (dpr <= 1 and dpr > current)):
                break
            i += 1
            break
        i += 1
    return i, f"{ranked[i][0]:.4g}x by the geometric mean"


class Win(Noun):
    """Where one source (or the img) is the one that is taken; no runs means never."""

    element: str
    runs: tuple[tuple[int, int], ...]


def wins(markup: str, env: Environment, widths: range) -> tuple[Win, ...]:
    """For every source and the img, the runs of viewport widths at which it wins."""
    read = read_markup(markup)
    runs: dict[str, list[tuple[int, int]]] = {label: [] for label in (*(s.label for s in read.sources), "img")}
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

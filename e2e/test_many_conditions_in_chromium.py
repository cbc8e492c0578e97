"""Forty made-up placements of every kind that shows one picture, each under all eight combinations
of conditions, at two densities and twelve widths: which file Chromium fetches, that it fetches no
other, how large the frame is, and what of the picture shows in it (rules §4 and §14)."""

from __future__ import annotations

import itertools
import os
import random
from collections.abc import Iterator, Mapping, Sequence

import pytest
from noted import Noted
from playwright.sync_api import Browser
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.layouts import begun
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.picks import Environment, pick
from skypane.picks.background import ImageRule, pick_background, read_background
from skypane.shown.nouns import Plan, ShownSpan, SpanPlan
from skypane.shown.plan import plan

ORIGINALS = {
    i: m.Original(
        id=i,
        name=f"{i}.jpg",
        width_px=w,
        height_px=h,
        sha256=str(i),
        alt="",
        focal=(0.2 * i, 0.9 - 0.2 * i),
        areas=(m.Area(name="Mast", rect=m.Rect(x=0.6, y=0.1 * i, w=0.15, h=0.4)),),
    )
    for i, (w, h) in enumerate(((6000, 4000), (4032, 3024), (3000, 4500)), 1)
}
KINDS = ("picture", "background", "banner", "grid", "beside")
SETS = [
    tuple(f for f, holds in zip(m.FEATURES, said, strict=True) if holds)
    for said in itertools.product((False, True), repeat=3)
]
#: What shows the picture, of whatever kind.
SHOWS = ".quay-picture, .quay:not(section):not(ul):not(div:has(*)), picture"
#: Both ends of every span, and widths between.
WIDTHS = (320, 411, 599, 600, 768, 1023, 1024, 1280, 1599, 1600, 1920, 2560)
#: Each placement is opened at so many of them under one set of conditions, at others under the
#: next; SKYPANE_EVERY_WIDTH=1 opens it at all of them, which takes six times as long.
AT_ONCE = 12 if os.environ.get("SKYPANE_EVERY_WIDTH") else 2


def shown(found: Plan, features: set[str], width: int) -> SpanPlan:
    """What shows of the only picture at a width where these features hold."""
    usual = found.parts[0]
    at = next(i for i, p in enumerate(usual.spans) if p.span.first <= width <= p.span.last)
    letter = usual.spans[at].span.letter
    holding = (o for o in found.alternatives(usual) if set(o.part.when) <= features)
    return next((o for o in holding if letter not in o.usual), usual).spans[at]


def made(n: int) -> Plan:
    """The placement of a number: the same in every run."""
    draw = random.Random(n)
    kind = KINDS[n % len(KINDS)]

    def treatment(*, first: bool = False) -> m.Treatment:
        ratio = draw.choice(((3, 2), (2, 1), (4, 5), (16, 9)))
        return m.Treatment(
            original=draw.choice((1, 2, 3)) if first or draw.random() < 0.6 else None,
            show=None if first else draw.choice((None, None, None, "colour", "nothing")),
            height=m.RatioHeight(w=ratio[0], h=ratio[1]) if first or draw.random() < 0.5 else None,
            width=m.ShareWidth(percent=draw.choice((40, 75))) if draw.random() < 0.3 else None,
            aim=m.FixedAim(x=draw.random(), y=draw.random()) if draw.random() < 0.3 else None,
        )

    usual = {"D": treatment(first=True)}
    usual |= {x: treatment() for x in "ABC" if draw.random() < 0.4}
    whens = draw.sample(SETS[1:], draw.choice((1, 2, 3)))
    others = [
        m.Part(of="quay", when=when, treatments={draw.choice("ABCD"): treatment()})
        for when in whens
    ]
    way = "background" if kind == "background" else None
    placement = m.Placement(
        name="Quay", parts=(m.Part(key="quay", treatments=usual, way=way), *others)
    )
    site = m.Site(
        media_style=draw.choice(("max-width", "min-width", "range")),
        lists=draw.choice(("widths", "densities", "fitting")),
    )
    if kind not in ("picture", "background"):
        placement = begun(kind, site, placement)
    return plan(site, placement, ORIGINALS)


@pytest.fixture
def noted() -> Iterator[Noted]:
    server = Noted()
    yield server
    server.server.shutdown()


@pytest.mark.parametrize(("dark", "still"), list(itertools.product((False, True), repeat=2)))
@pytest.mark.parametrize("density", [1, 2])
def test_each_fetches_what_is_predicted_and_nothing_else(
    browser: Browser, noted: Noted, dark: bool, still: bool, density: int
):
    scheme, motion = "dark" if dark else "light", "reduce" if still else "no-preference"
    expected: dict[tuple[str, int], tuple[int, SpanPlan, str | None]] = {}
    cases: list[dict[str, object]] = []
    for n in range(40):
        found = made(n)
        files = renditions(found)
        markup, css = text_of(placement_lines(found, files)), text_of(css_lines(found, files))
        rules = read_background(css, ".quay::before")
        html = page_html("Quay", [markup], dark=True)
        for upright in (False, True):
            case = f"{n}-{upright}"
            noted.pages[case] = {"page.html": html, "picture.css": css}
            features = {
                f for f, holds in zip(m.FEATURES, (dark, upright, still), strict=True) if holds
            }
            begin = (n + 5 * upright + 3 * dark + 7 * still + density) % len(WIDTHS)
            widths = [WIDTHS[(begin + 5 * i) % len(WIDTHS)] for i in range(AT_ONCE)]
            steps = [(w, w + 60 if upright else max(200, w - 60)) for w in widths]
            for i, (width, height) in enumerate(steps):
                env = Environment(width, height, density, scheme, motion)
                url = _taken(rules, markup, env)
                expected[case, i] = (width, shown(found, features, width), url)
            fetches = [expected[case, i][2] is not None for i in range(len(steps))]
            cases.append({"name": case, "shows": SHOWS, "steps": steps, "fetches": fetches})
    noted.opens(cases)
    context = browser.new_context(
        color_scheme=scheme, reduced_motion=motion, device_scale_factor=density
    )
    page = context.new_page()
    page.goto(noted.address)
    assert noted.done.wait(180), len(noted.fetched)
    context.close()
    apart = list(itertools.islice(_apart(noted, expected), 5))
    assert not apart, apart
    showing = [p for _, p, _ in expected.values() if isinstance(p, ShownSpan)]
    assert len(showing) > 75 and sum(url is not None for *_, url in expected.values()) > 50


def _taken(rules: Sequence[ImageRule], markup: str, env: Environment) -> str | None:
    """The file that is fetched; none where nothing shows."""
    if rules:
        return pick_background(rules, env).url
    url = pick(markup, env).url if markup else None
    return None if url is None or url.startswith("data:") else url


def _apart(
    noted: Noted, expected: Mapping[tuple[str, int], tuple[int, SpanPlan, str | None]]
) -> Iterator[tuple[object, ...]]:
    """What shows otherwise than is predicted, at some width."""
    for (case, n), (width, p, url) in expected.items():
        w, h, at = noted.steps[case][n]
        fetched = noted.fetched.get(f"{case}.{n}", [])
        if fetched != ([url] if url else []):
            yield case, width, "fetched", fetched, url
        if p.effective.show == "nothing":
            continue
        i = width - p.span.first
        if abs(w - p.W[0, i]) > 1 or abs(h - p.H[0, i]) > 1:
            yield case, width, "frame", (w, h), (p.W[0, i], p.H[0, i])
        if isinstance(p, ShownSpan):
            yield from ((case, width, *told) for told in _window(p, i, at))


def _window(p: ShownSpan, i: int, at: str) -> Iterator[tuple[object, ...]]:
    """Whether what shows lies where the file is placed in the frame (CSS Images 3 §5.6): its left
    and top edge, in CSS px, from a length, or from a share of the room that is left."""
    s, cut = p.shown, p.cut
    axes = zip(
        at.split(" "),
        ((s.x0, s.drawn_w, p.W, cut.x, cut.w), (s.y0, s.drawn_h, p.H, cut.y, cut.h)),
        strict=True,
    )
    for said, (first, drawn, room, start, size) in axes:
        # to where the file's edge has to be pushed so that what is wanted begins the frame
        want = -(first[0, i] - start) * drawn[0, i]
        amount = float(said.rstrip("%px"))
        got = amount / 100 * (room[0, i] - size * drawn[0, i]) if said.endswith("%") else amount
        if abs(got - want) > 1.5:
            yield "place", said, got, want

"""Forty made-up placements of every kind that shows one picture, each under all eight combinations
of conditions, at two densities and widths that change from one to the next: which file Chromium
fetches, that it fetches no other, and how large the frame is (rules §14)."""

from __future__ import annotations

import itertools
import random
from collections.abc import Iterator

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
from skypane.picks.background import pick_background, read_background
from skypane.shown.nouns import Plan, SpanPlan
from skypane.shown.plan import plan

ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=w, height_px=h, sha256=str(i), alt="")
    for i, (w, h) in enumerate(((6000, 4000), (4032, 3024), (3000, 4500)), 1)
}
KINDS = ("picture", "background", "banner", "grid", "beside")
SETS = [
    tuple(f for f, holds in zip(m.FEATURES, said, strict=True) if holds)
    for said in itertools.product((False, True), repeat=3)
]
#: Both ends of every span, and widths between.
WIDTHS = (320, 411, 599, 600, 768, 1023, 1024, 1280, 1599, 1600, 1920, 2560)


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
    wanted: dict[str, str | None] = {}
    frames: dict[str, float] = {}
    cases: list[dict[str, object]] = []
    for n in range(40):
        found = made(n)
        files = renditions(found)
        markup, css = text_of(placement_lines(found, files)), text_of(css_lines(found, files))
        rules = read_background(css, ".quay::before")
        html = page_html("Quay", [markup], dark=True)
        for upright in (False, True):
            width = WIDTHS[(n + 5 * upright + 3 * dark + 7 * still + density) % len(WIDTHS)]
            height = width + 60 if upright else max(200, width - 60)
            case = f"{n}-{upright}"
            shows = ".quay-picture, .quay:not(section):not(ul):not(div:has(*)), picture"
            noted.pages[case] = {"page.html": html, "picture.css": css}
            size = {"width": width, "height": height}
            env = Environment(width, height, density, scheme, motion)
            taken = (
                pick_background(rules, env).url
                if rules
                else pick(markup, env).url
                if markup
                else None
            )
            wanted[case] = None if taken is None or taken.startswith("data:") else taken
            waits = {"fetches": wanted[case] is not None, "shows": shows}
            cases.append({"name": case, **size, **waits})
            features = {
                f for f, holds in zip(m.FEATURES, (dark, upright, still), strict=True) if holds
            }
            p = shown(found, features, width)
            if p.effective.show != "nothing":
                frames[case] = float(p.W[0, width - p.span.first])
    noted.opens(cases)
    context = browser.new_context(
        color_scheme=scheme, reduced_motion=motion, device_scale_factor=density
    )
    page = context.new_page()
    page.goto(noted.address)
    assert noted.done.wait(120), len(noted.fetched)
    context.close()
    wrong = {
        case: (noted.fetched.get(case, []), taken)
        for case, taken in wanted.items()
        if noted.fetched.get(case, []) != ([taken] if taken else [])
    }
    assert not wrong, dict(itertools.islice(wrong.items(), 5))
    apart = {
        case: (noted.boxes[case], w)
        for case, w in frames.items()
        if abs(noted.boxes[case][0] - w) > 1
    }
    assert not apart, dict(itertools.islice(apart.items(), 5))
    assert len(frames) > 40 and sum(w is not None for w in wanted.values()) > 25

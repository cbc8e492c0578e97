"""`sizes` as Chromium evaluates it, rows of percentage columns as it lays them out, and files by
width as it takes them."""

from __future__ import annotations

import base64
import html
import random
import re

import numpy as np
import pytest
from playwright.sync_api import Browser, Page
from skypane import Original, Site, Treatment, asked_for, blueprint, picture
from skypane.files.groups import drawn_widths
from skypane.files.renditions import groups_of, sizes_of
from skypane.markup.sizes import drawn_sizes, sizes_css
from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FullWidth,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    ViewportHeight,
    WidthRule,
)
from skypane.shown.plan import plan
from skypane.widths.frames import frame_widths, width_pieces
from skypane.widths.sums import row_of

#: A PNG of one px.
DOT = (
    "data:image/png;base64,"
    + base64.b64encode(
        bytes.fromhex(
            "89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000d49444154789c63606060"
            "600000000500017a5eab3f0000000049454e44ae426082"
        )
    ).decode()
)
VIEWPORTS = (320, 359, 360, 390, 412, 480, 599, 600, 700, 768, 820, 1023, 1024, 1120, 1121, 1280)
VIEWPORTS = (*VIEWPORTS, 1440, 1599, 1600, 2560)


def rules(count: int) -> list[tuple[WidthRule, Container]]:
    """Width rules of every kind, the same ones in every run."""
    r = random.Random(7)
    found = []
    for i in range(count):
        bounds = {
            "least_px": r.choice([None, None, r.randint(50, 400)]),
            "greatest_px": r.choice([None, None, r.randint(400, 1500)]),
        }
        of = r.choice(["page", "container"])
        columns = r.randint(2, 6)
        rule: WidthRule = [
            FullWidth(**bounds),
            FixedWidth(width_px=r.randint(20, 900), **bounds),
            ShareWidth(percent=round(r.uniform(5, 100), 2), of=of, **bounds),
            ColumnsWidth(
                columns=columns, take=r.randint(1, columns), gutter_px=r.randint(0, 30), of=of
            ),
            PercentColumnsWidth(columns=columns, padding_percent=round(r.uniform(0, 4), 2), of=of),
        ][i % 5]
        container = Container(max_width_px=r.choice([960, 1080, 1200]), margin_px=r.randint(0, 40))
        found.append((rule, container))
    return found


def evaluated(page: Page, sizes: list[str], width: int) -> list[float]:
    """What Chromium makes of each `sizes` at a viewport width: a picture of one px that is said to
    be one px wide is drawn as wide as `sizes` says."""
    page.set_viewport_size({"width": width, "height": 800})
    page.set_content(
        "<style>img { display: block }</style>"
        + "".join(f'<img srcset="{DOT} 1w" sizes="{html.escape(s)}">' for s in sizes)
    )
    found: list[float] = page.evaluate(
        "Promise.all([...document.images].map(i => i.decode()"
        ".then(() => i.getBoundingClientRect().width)))"
    )
    return found


def test_sizes_are_the_frame_in_chromium(browser: Browser):
    """50 frames at 20 viewports, within 1 px; only lengths and calc() (docs/engines.md)."""
    cases = rules(50)
    sizes = [sizes_css([(320, 2560, width_pieces(r, c))]) for r, c in cases]
    assert not any(re.search(r"min\(|max\(|clamp\(", s) for s in sizes)
    page = browser.new_page()
    for width in VIEWPORTS:
        for (rule, container), said, got in zip(
            cases, sizes, evaluated(page, sizes, width), strict=True
        ):
            expected = float(frame_widths(rule, np.array([float(width)]), container)[0])
            assert got == pytest.approx(expected, abs=1), (rule, width, said)
            assert got <= expected + 1 / 64, (rule, width, said)
    page.close()


PICTURE = Original(id=1, name="p.jpg", width_px=4800, height_px=3200, sha256="p", alt="")
DRAWN = [
    Treatment(width=FullWidth(), height=FixedHeight(height_px=700)),
    Treatment(width=ShareWidth(percent=40), height=FixedHeight(height_px=500), whole=True),
    Treatment(width=FullWidth(greatest_px=1200), height=ViewportHeight(percent=80)),
    Treatment(width=FullWidth(), height=RatioHeight(w=2, h=1, greatest_px=500, least_px=300)),
]


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_sizes_are_the_drawn_width_where_the_picture_is_cut(browser: Browser, style):
    site = Site(media_style=style, lists="widths")
    parts = []
    for t in DRAWN:
        own = t.model_copy(update={"original": 1})
        placement = picture("p", {"D": own, "B": Treatment(width=FullWidth())})
        parts.append(plan(site, placement, {1: PICTURE}).parts[0])
    sizes = [drawn_sizes(part.spans, style) for part in parts]
    page = browser.new_page()
    for width in VIEWPORTS:
        for part, got in zip(parts, evaluated(page, sizes, width), strict=True):
            p = next(p for p in part.shown if p.span.first <= width <= p.span.last)
            drawn = float(drawn_widths(p)[width - p.span.first])
            assert drawn - 1 <= got <= drawn + 1 / 64, (width, part.spans[0].effective)
    page.close()


@pytest.mark.parametrize("density", [1, 2, 3])
def test_every_screen_takes_the_rung_that_was_predicted(browser: Browser, shelf, density):
    site = Site(formats=("webp", "jpeg"))
    own = Treatment(original=1, width=ShareWidth(percent=60), height=RatioHeight(w=3, h=2))
    placement = picture("p", {"D": own, "A": Treatment(width=FullWidth())})
    found = blueprint(asked_for(site, placement, [PICTURE]))
    shelf.fallback = (base64.b64decode(DOT.partition(",")[2]), "image/png")
    computed = found.planned[0][0]
    (group,) = groups_of(computed)
    rungs = [s.width for s in sizes_of(computed, group)]
    address = shelf.put("/page.html", f"<!doctype html>{found.texts['snippet.html']}", "text/html")
    for width in (320, 390, 599, 600, 768, 1023, 1024, 1440, 1600, 1920, 2560):
        context = browser.new_context(
            viewport={"width": width, "height": 800}, device_scale_factor=density
        )
        page = context.new_page()
        page.goto(address)
        took = page.evaluate(
            "document.images[0].decode().catch(() => 0).then(() => document.images[0].currentSrc)"
        )
        p = next(p for p in group.spans if p.span.first <= width <= p.span.last)
        need = np.ceil(round(float(drawn_widths(p)[width - p.span.first]) * density, 4))
        expected = next((r for r in rungs if r >= need), rungs[-1])
        assert f"@{expected}w." in took, (width, density, took)
        context.close()


ROWS = [
    (PercentColumnsWidth(columns=6, percent=16.6667, of="page"), False),
    (PercentColumnsWidth(columns=3, percent=33.3, padding_percent=1, of="page"), True),
    (
        PercentColumnsWidth(
            columns=3, percent=33.3, padding_percent=1, box="border-box", of="page"
        ),
        False,
    ),
    (PercentColumnsWidth(columns=3, padding_percent=1, of="page"), False),
    (PercentColumnsWidth(columns=7, padding_percent=0.37, of="page"), False),
    (PercentColumnsWidth(columns=3, percent=24, of="page"), False),
    (PercentColumnsWidth(columns=3, percent=33.34, of="page"), True),
]


@pytest.mark.parametrize(("rule", "wraps"), ROWS)
@pytest.mark.parametrize("flow", ["float", "flex"])
def test_a_row_wraps_where_the_sum_says_so(browser: Browser, rule, wraps, flow):
    """Cells that flow, at 12 widths: whether the last of a row stands in the next one, and whether
    another would stand in this one."""
    holder = "display: flex; flex-wrap: wrap" if flow == "flex" else "overflow: auto"
    cell = (
        f"width: {rule.css_percent}%; padding: 0 {rule.padding_percent}%; box-sizing: {rule.box};"
        f" height: 9px; {'float: left' if flow == 'float' else 'flex: none'}"
    )
    cells = f'<div style="{cell}"></div>' * (rule.columns + 1)
    page = browser.new_page()
    page.set_content(f'<style>body {{ margin: 0 }}</style><div style="{holder}">{cells}</div>')
    for width in (320, 375, 411, 599, 768, 1000, 1023, 1111, 1366, 1537, 1920, 2560):
        page.set_viewport_size({"width": width, "height": 600})
        tops = page.evaluate("[...document.querySelectorAll('div > div')].map(d => d.offsetTop)")
        row = row_of(rule, np.array([float(width)]), Container())
        in_first = sum(top == tops[0] for top in tops)
        assert (in_first < rule.columns) == bool(row.wraps.size) == wraps, width
        assert (in_first > rule.columns) == bool(row.one_more.size), width
    page.close()

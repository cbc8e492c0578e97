"""The core's picks against what Chromium takes (`currentSrc`), each markup in several windows."""

from __future__ import annotations

import io
import subprocess

import pytest
from PIL import Image
from skypane.files.renditions import renditions
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.model import FixedHeight, Original, RatioHeight, Site, Treatment, picture
from skypane.picks import Environment, pick
from skypane.shown.plan import plan

WINDOWS = [(375, 700, 1.0), (600, 900, 1.5), (1000, 800, 2.0), (1600, 900, 3.0)]


def ours() -> list[str]:
    """Markup that the product itself hands over, in all three styles."""
    originals = {
        1: Original(id=1, name="a", width_px=5200, height_px=2900),
        2: Original(id=2, name="b", width_px=900, height_px=600),
    }
    p = picture(
        name="p",
        treatments={
            "D": Treatment(original=1, height=RatioHeight(w=2, h=1)),
            "B": Treatment(height=FixedHeight(height_px=400)),
            "A": Treatment(original=2),
        },
    )
    out = []
    for style in ("max-width", "min-width", "range"):
        site = Site(media_style=style)
        plans = plan(site, p, originals)
        out.append(text_of(placement_lines(plans, renditions(plans), "")))
    return out


IMGS = [
    '<img src="s">',
    '<img src="s" srcset="a 2x">',
    '<img src="s" srcset="a 1x, b 2x, c 3x">',
    '<img srcset="a 1.5x, b 4x">',
    '<img srcset="c 3x, a 1x, b 2x">',
    '<img srcset="a 1x, b 1x, c 2x, d 2x">',
    '<img srcset="a, b 2x">',
    '<img srcset="a.png,b.png 2x">',
    '<img srcset="a 1x,b 2x">',
    '<img srcset=",,a 1x,,">',
    '<img srcset="a 1.x, b 2x" src="s">',
    '<img srcset="a +1x, b 1X, c 2x" src="s">',
    '<img srcset="a 100w, b 500w, c 1000w, d 2000w">',
    '<img srcset="a 100w, b 500w, c 1000w, d 2000w" sizes="50vw">',
    '<img srcset="a 100w, b 500w, c 1000w, d 2000w" sizes="(max-width: 600px) 100vw, 400px">',
    (
        '<img srcset="a 100w, b 500w, c 1000w, d 2000w" sizes="(max-width: 600px) 100vw,'
        ' (max-width: 1200px) calc(50vw - 20px), 300px">'
    ),
    '<img srcset="a 100w, b 500w, c 1000w" sizes="300px 400px, 200px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="foo, 200px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="(foo) 200px, 500px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="not (foo) 200px, 500px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="(foo) or (min-width: 1px) 200px, 500px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="screen 200px, 500px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="50%, 100px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="-100px, 500px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="calc(-100px)">',
    '<img srcset="c 1000w, a 100w" sizes="0px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="calc(100px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="((min-width: 1px) 100px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="100px !important">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="clamp(100px, 40vw, 300px)">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="min(50vw, 200px)">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="max(10vw, 20em)">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="round(305px, 10px)">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="auto, 100px">',
    '<img srcset="a 100w, b 500w, c 1000w" sizes="30vmin">',
    '<img srcset="a 100w 50h, b 500w, c 0w, d 60W" sizes="200px">',
    '<img srcset="a 2x, b 1000w" sizes="500px" src="s">',
    '<img srcset="a 30h, b 2x 2x" src="s">',
    '<img srcset="a (1x), b 2x" src="s">',
    '<img src="s" media="print" type="image/heic">',
    "<img>",
]
INSIDE = [
    (
        '<source media="(max-width: 599px)" srcset="a, a2 2x"><source media="(max-width: 1023px)"'
        ' srcset="b, b2 2x"><img src="c">'
    ),
    (
        '<source media="(max-width: 1023px)" srcset="b"><source media="(max-width: 599px)"'
        ' srcset="a"><img src="c">'
    ),
    (
        '<source media="(min-width: 1024px)" srcset="c"><source media="(min-width: 600px)"'
        ' srcset="b"><img src="a">'
    ),
    (
        '<source media="(min-width: 600px)" srcset="b"><source media="(min-width: 1024px)"'
        ' srcset="c"><img src="a">'
    ),
    (
        '<source media="(width < 600px)" srcset="a"><source media="(600px <= width < 1024px)"'
        ' srcset="b"><img src="c">'
    ),
    '<source media="(400px <= width > 900px)" srcset="a"><img src="c">',
    '<source media="(min-width: 600)" srcset="a"><img src="c">',
    '<source media="not print" srcset="a"><img src="c">',
    '<source media="print, (min-width: 900px)" srcset="a"><img src="c">',
    '<source media="(orientation: portrait)" srcset="a"><img src="c">',
    '<source media="(min-resolution: 1.5dppx)" srcset="a"><img src="c">',
    '<source media="(min-resolution: 192dpi)" srcset="a"><img src="c">',
    '<source media="(-webkit-min-device-pixel-ratio: 2)" srcset="a"><img src="c">',
    '<source media="(min-aspect-ratio: 1/1)" srcset="a"><img src="c">',
    '<source media="(prefers-color-scheme: dark)" srcset="a"><img src="c">',
    '<source media="(prefers-reduced-motion)" srcset="a"><img src="c">',
    '<source media="(foo) or (min-width: 1px)" srcset="a"><img src="c">',
    '<source media="not (foo)" srcset="a"><img src="c">',
    '<source media="" srcset="a"><img src="c">',
    '<source media="(min-width: 37.5em)" srcset="a"><img src="c">',
    '<source media="(min-width: calc(300px * 2))" srcset="a"><img src="c">',
    '<source type="image/avif" srcset="a"><img src="c">',
    '<source type="image/webp; x=y" srcset="a"><img src="c">',
    '<source type=" IMAGE/PNG " srcset="a"><img src="c">',
    '<source type="image/heic" srcset="a"><img src="c">',
    '<source type="image/*" srcset="a"><img src="c">',
    '<source type="" srcset="a"><img src="c">',
    '<source srcset="a 2x"><img src="c">',
    '<source srcset=""><img src="c">',
    '<source srcset="a 5"><img src="c">',
    '<source src="a"><img src="c">',
    '<img src="c"><source srcset="a">',
    '<div><source srcset="a"></div><img src="c">',
    '<source srcset="a"><div><img src="c"></div>',
    '<template><source srcset="a"></template><img src="c">',
    (
        '<source srcset="a 100w, b 500w, d 1000w" sizes="(max-width: 700px) 100px, 500px"><img'
        ' src="c" sizes="1px">'
    ),
    '<source srcset="a 100w, b 500w, d 1000w"><img src="c" sizes="100px">',
]
MARKUPS = [*ours(), *IMGS, *(f"<picture>{inside}</picture>" for inside in INSIDE)]


@pytest.fixture(scope="module")
def pixel() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (1, 1)).save(out, "PNG")
    return out.getvalue()


@pytest.mark.parametrize("window", WINDOWS, ids=str)
def test_chromium_takes_what_the_core_picks(browser, shelf, pixel, window):
    width, height, density = window
    assert len(MARKUPS) >= 60
    shelf.fallback = (pixel, "image/png")
    context = browser.new_context(
        viewport={"width": width, "height": height}, device_scale_factor=density
    )
    page = context.new_page()
    wrong = []
    for n, markup in enumerate(MARKUPS):
        base = f"/{n}-{width}-{density}/"  # of its own, so that no earlier file is at hand
        url = shelf.put(
            f"{base}page", f'<!doctype html><base href="{base}"><body>{markup}', "text/html"
        )
        page.goto(url)
        taken = (
            page.evaluate("document.querySelector('img').currentSrc").replace(
                shelf.address + base, ""
            )
            or None
        )
        predicted = pick(markup, Environment(width, height, density, policy="chromium")).url
        if taken != predicted:
            wrong.append((markup, taken, predicted))
    context.close()
    assert wrong == []


def test_older_chromium_takes_by_the_geometric_mean(shelf, pixel):
    shelf.fallback = (pixel, "image/png")
    for density, srcset in [
        (1.2, "a 1x, b 2x"),
        (1.5, "a 1x, b 2x"),
        (2, "a 1.5x, b 4x"),
        (2.5, "a 1.5x, b 4x"),
    ]:
        base = f"/geo-{density}-{len(srcset)}/"
        markup = f'<img srcset="{srcset}">'
        url = shelf.put(
            f"{base}page",
            f'<!doctype html><base href="{base}"><body>{markup}<p'
            " id=o></p><script>onload=()=>{o.textContent=document.images[0].currentSrc}</script>",
            "text/html",
        )
        out = subprocess.run(
            [
                "/usr/bin/chromium",
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-background-networking",
                "--disable-blink-features=SrcsetSelectionMatchesImageSet",
                f"--force-device-scale-factor={density}",
                "--virtual-time-budget=3000",
                "--dump-dom",
                url,
            ],
            capture_output=True,
            text=True,
            timeout=60,
            check=True,
        ).stdout
        taken = out.split('<p id="o">')[1].split("<")[0].replace(shelf.address + base, "")
        assert taken == pick(markup, Environment(800, 600, density, policy="geometric")).url

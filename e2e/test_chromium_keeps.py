"""Keep areas in Chromium: the window of following with areas in random frames, and bands against
counted px of colour."""

from __future__ import annotations

import random
from pathlib import Path

import numpy as np
import pytest
from ramps import both_ways, captured, coordinate_ramp, pixels_of, png, seen_window
from skypane.files.renditions import renditions
from skypane.geometry import WHOLE, Rect
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.pane import pane_lines
from skypane.markup.picture import placement_lines
from skypane.model import (
    Area,
    FixedAim,
    FixedHeight,
    FixedWidth,
    Following,
    HeightRange,
    Original,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.pixels.encode import make
from skypane.shown.keeps import fates
from skypane.shown.plan import plan
from test_chromium_shows import MIRROR

W, H = 1200, 800


def random_area(rng: random.Random, name: str, least: float = 0.05) -> Area:
    w, h = rng.uniform(least, 0.4), rng.uniform(least, 0.4)
    return Area(name=name, rect=Rect(x=rng.uniform(0, 1 - w), y=rng.uniform(0, 1 - h), w=w, h=h))


def random_frame(rng: random.Random, viewport: int) -> dict:
    """A width and a height rule; ratios come to whole px of height at this viewport, so that
    Chromium has none to round."""
    fixed, percent = rng.randint(280, 340), rng.randint(60, 100)
    width, px = rng.choice(
        [
            (None, viewport),
            (FixedWidth(width_px=fixed), fixed),
            (ShareWidth(percent=percent), viewport * percent / 100),
        ]
    )
    height = rng.choice(
        [
            FixedHeight(height_px=rng.randint(180, 600)),
            ViewportHeight(percent=rng.randint(30, 95)),
            RatioHeight(w=px, h=round(px / rng.uniform(0.5, 3))),
            RatioHeight(w=rng.uniform(0.5, 3), h=1, least_px=260, greatest_px=260),
        ]
    )
    return {"height": height, **({"width": width} if width else {})}


def site_around(width: int, height: int) -> Site:
    """A site of one narrow span around a width, whose screens have one height."""
    row = HeightRange(to_px=7680, least_px=height, typical_px=height, greatest_px=height)
    return Site(
        narrowest=width - 25,
        widest=width + 25,
        breakpoints=(),
        heights=(row,),
        formats=("webp", "jpeg"),
        densities=(1,),
    )


@pytest.mark.parametrize("batch", range(4))
def test_following_with_areas_in_a_hundred_random_frames(browser, shelf, batch):
    """25 frames a batch, a third of them with a crop: the visible part within what one device px
    covers."""
    rng = random.Random(100 + batch)
    page = browser.new_page()
    for n in range(25):
        width, height = rng.randint(345, 1500), rng.randint(420, 1000)
        areas = tuple(random_area(rng, f"K{i}") for i in range(rng.randint(1, 4)))
        original = Original(
            id=1,
            name="ramp.png",
            width_px=W,
            height_px=H,
            focal=(rng.random(), rng.random()),
            areas=areas,
        )
        crop = Rect(x=0.25, y=0.125, w=0.5, h=0.75) if n % 3 == 0 else None
        treatment = Treatment(
            original=1, aim=Following(), crop=crop, stands="start", **random_frame(rng, width)
        )
        site, placement = (
            site_around(width, height),
            picture(name="Spot", treatments={"A": treatment}),
        )
        plans = plan(site, placement, {1: original})
        (p,) = plans.parts[0].shown
        # the crop's own ramp, as the preview of a crop is a picture of its own
        w, h = (W, H) if crop is None else (W // 2, H * 3 // 4)
        shelf.put("/mirror.png", coordinate_ramp(w, h, mirrored=True), "image/png")
        shelf.put("/ramp.png", coordinate_ramp(w, h), "image/png")
        style = text_of(css_lines(plans, whole=True))
        markup = text_of(pane_lines(plans, lambda *_: "/ramp.png"))
        url = shelf.put(
            "/keeps", f"<!doctype html><style>body{{margin:0}}{style}</style>{markup}", "text/html"
        )
        page.set_viewport_size({"width": width, "height": height})
        page.goto(url)
        at = width - site.narrowest
        clip = {"x": 0, "y": 0, "width": int(p.W[0, at]), "height": int(p.H[0, at])}
        rising = pixels_of(captured(page, clip=clip, full_page=True))
        page.evaluate(MIRROR)
        seen = seen_window(both_ways(rising, pixels_of(captured(page, clip=clip, full_page=True))))
        s = p.inside
        x0, y0 = float(s.x0[0, at]), float(s.y0[0, at])
        expected = (
            x0,
            x0 + clip["width"] / s.drawn_w[0, at],
            y0,
            y0 + clip["height"] / s.drawn_h[0, at],
        )
        tolerance = 1 / min(s.drawn_w[0, at], s.drawn_h[0, at])  # one device px, of the picture
        assert seen == pytest.approx(expected, abs=tolerance), (batch, n, treatment)
        assert (p.crop is WHOLE) is (crop is None)
    page.close()


COLOURS = [(220, 30, 30), (30, 190, 50), (40, 60, 220), (230, 210, 40)]


def coloured(areas: tuple[Area, ...]) -> np.ndarray:
    pixels = np.full((H, W, 3), 128)
    for area, colour in zip(areas, COLOURS, strict=False):
        r = area.rect
        pixels[round(r.y * H) : round((r.y + r.h) * H), round(r.x * W) : round((r.x + r.w) * W)] = (
            colour
        )
    return pixels


def on_px(area: Area) -> Area:
    r = area.rect
    x, y, w, h = round(r.x * W), round(r.y * H), round(r.w * W), round(r.h * H)
    return area.model_copy(
        update={"rect": Rect(x=x / W, y=y / H, w=min(w, W - x) / W, h=min(h, H - y) / H)}
    )


def apart(areas: list[Area]) -> bool:
    rects = [a.rect for a in areas]
    return all(
        a.x + a.w <= b.x or b.x + b.w <= a.x or a.y + a.h <= b.y or b.y + b.h <= a.y
        for i, a in enumerate(rects)
        for b in rects[i + 1 :]
    )


def random_treatment(rng: random.Random, names: list[str], viewport: int) -> Treatment:
    cw, ch = rng.uniform(0.5, 0.9), rng.uniform(0.5, 0.9)
    return Treatment(
        stands="start",
        original=1,
        crop=rng.choice(
            [None, Rect(x=rng.uniform(0, 1 - cw), y=rng.uniform(0, 1 - ch), w=cw, h=ch)]
        ),
        keeps=rng.choice([None, tuple(rng.sample(names, len(names)))]),
        fit=rng.choice(["cover", "cover", "cover", "contain"]),
        aim=rng.choice(
            [Following(), Following(areas=False), FixedAim(x=rng.random(), y=rng.random())]
        ),
        whole=rng.choice([None, True]),
        **random_frame(rng, viewport),
    )


def test_bands_agree_with_the_coloured_px_of_thirty_delivered_treatments(
    browser, shelf, tmp_path: Path
):
    """The share of each area's px that Chromium paints, from the exported files and CSS, within 1 %
    of the band."""
    rng = random.Random(7)
    page = browser.new_page()
    compared = partly = 0
    for n in range(30):
        while True:
            found = [on_px(random_area(rng, f"K{i}", least=0.15)) for i in range(3)]
            if apart(found):
                break
        areas = tuple(found)
        original = Original(
            id=1,
            name="c.png",
            width_px=W,
            height_px=H,
            sha256=f"c{n}",
            focal=(rng.random(), rng.random()),
            areas=areas,
        )
        width, height = rng.randint(420, 1100), rng.randint(500, 900)
        site, treatment = (
            site_around(width, height),
            random_treatment(rng, [a.name for a in areas], width),
        )
        placement = picture(name="Spot", treatments={"A": treatment})
        plans = plan(site, placement, {1: original})
        files = renditions(plans)
        source = tmp_path / f"{n}.png"
        source.write_bytes(png(coloured(areas)))
        folder = tmp_path / str(n)
        folder.mkdir()
        wanted = [r.model_copy(update={"likeness": 0.9999}) for _, mine in files for r in mine]
        for r, path, _ in make(source, wanted, folder):
            shelf.put(f"/images/{r.name}", path.read_bytes(), f"image/{r.format}")
        markup = text_of(placement_lines(plans, files))
        shelf.put("/picture.css", text_of(css_lines(plans)), "text/css")
        page.set_viewport_size({"width": width, "height": height})
        page.goto(shelf.put("/page.html", page_html(placement.name, [markup]), "text/html"))
        (p,) = plans.parts[0].shown
        at = width - site.narrowest
        clip = {"x": 0, "y": 0, "width": round(p.W[0, at]), "height": round(p.H[0, at])}
        shot = pixels_of(captured(page, clip=clip, full_page=True))
        known = np.array([*COLOURS[: len(areas)], (128, 128, 128), (0xD5, 0xD9, 0xDA)])
        nearest = ((shot[:, :, None, :] - known) ** 2).sum(axis=-1).argmin(axis=-1)
        for i, area in enumerate(areas):
            full = area.rect.w * p.shown.drawn_w[0, at] * area.rect.h * p.shown.drawn_h[0, at]
            share = (nearest == i).sum() / full
            band = fates(p, area)[1][at]
            # Chromium puts the drawn picture's edges on whole px, which moves a side of the area by
            # up to half a px
            wide, high = area.rect.w * p.shown.drawn_w[0, at], area.rect.h * p.shown.drawn_h[0, at]
            assert share == pytest.approx(band, abs=0.01 + 0.5 / wide + 0.5 / high), (
                n,
                area.name,
                treatment,
            )
            compared += 1
            partly += 0.01 < band < 0.99
    page.close()
    # many of them are cut, so that the shares mean something
    assert compared == 90 and partly >= 20

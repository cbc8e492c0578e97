"""What a picture has to look like that is not there yet, overlays, and names of what changed."""

import xml.etree.ElementTree as ET

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from planned import own, span_plans, treated
from skypane.changes import Look, Version, differences, named
from skypane.geometry import Rect
from skypane.markup.overlay import overlay_svg
from skypane.model import Area, FixedWidth, Original, RatioHeight, Site, Treatment, picture
from skypane.shown.brief import brief
from skypane.shown.fit import safe_area, shows

SITE = Site()


def frames(*boxes):
    """One fixed frame per span, the narrowest span first."""
    treatments = {
        letter: Treatment(width=FixedWidth(width_px=w), height=RatioHeight(w=w, h=h))
        for letter, (w, h) in zip("ABCD", boxes, strict=True)
    }
    return span_plans(SITE, picture(name="x", treatments=treatments), {})


def test_check_value_3_4_and_3_1_share_the_middle_of_a_16_9_picture():
    """rules §4: 1920×1080 centred in 3:4 and 3:1 has the safe area x 555…1365, y 220…860."""
    found = brief(frames((300, 400), (300, 400), (300, 100), (300, 100)), ratio=16 / 9)
    x0, x1, y0, y1 = found.safe.edges
    assert [round(v) for v in (x0 * 1920, x1 * 1920, y0 * 1080, y1 * 1080)] == [555, 1365, 220, 860]


def test_the_px_are_those_of_the_drawn_width():
    """rules §4, *Drawn width*: 16:9 covering 375×500 is drawn 888.9 wide and needs 1778 px at
    2x."""
    found = brief(frames(*[(375, 500)] * 4), ratio=16 / 9)
    assert (found.width_px, found.height_px) == (1778, 1001)


def test_without_a_wish_one_ratio_of_frames_is_the_ratio_of_the_picture():
    found = brief(frames(*[(800, 400)] * 4))
    assert (found.ratio, found.width_px, found.height_px, found.safe.edges) == (
        2,
        1600,
        800,
        (0, 1, 0, 1),
    )


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.tuples(st.floats(100, 2000), st.floats(100, 1500)), min_size=4, max_size=4),
    st.floats(0.4, 3),
)
def test_the_safe_area_is_what_every_frame_shows_of_such_a_picture(boxes, ratio):
    found = brief(frames(*boxes), density=1, ratio=ratio)
    size = (1000 * ratio, 1000)
    parts = [shows(size, box, "cover", (0.5, 0.5)).visible for box in boxes]
    x0, x1 = max(p.x for p in parts) / size[0], min(p.x + p.w for p in parts) / size[0]
    y0, y1 = max(p.y for p in parts) / size[1], min(p.y + p.h for p in parts) / size[1]
    assert found.safe.edges == pytest.approx((x0, x1, y0, y1), abs=1e-4)
    assert found.width_px >= max(max(w, h * ratio) for w, h in boxes) - 1e-3


def test_no_ratio_asks_for_fewer_px_than_the_one_chosen():
    plans = frames((375, 500), (800, 400), (1000, 400), (1600, 500))
    chosen = brief(plans)
    for ratio in np.linspace(0.75, 3.2, 40):
        other = brief(plans, ratio=float(ratio))
        # between the ratios it looks at
        assert chosen.width_px * chosen.height_px <= other.width_px * other.height_px * 1.03


def test_spans_that_show_no_picture_ask_for_none():
    placement = picture(name="x", treatments={"D": Treatment(show="colour")})
    assert brief(span_plans(SITE, placement, {})) is None


def test_the_overlay_is_an_svg_of_the_pictures_size_with_a_hole_where_it_is_safe():
    svg = overlay_svg(1920, 1080, Rect(x=0.25, y=0.1, w=0.5, h=0.8), 'Boats & "co"')
    root = ET.fromstring(svg)
    assert (root.get("width"), root.get("height"), root.get("viewBox")) == (
        "1920",
        "1080",
        "0 0 1920 1080",
    )
    shade = root.find("{http://www.w3.org/2000/svg}path")
    assert "M480 108V972H1440V108Z" in shade.get("d") and shade.get("fill-rule") == "evenodd"
    assert root.find("{http://www.w3.org/2000/svg}title").text == 'Boats & "co"'
    assert (
        len(
            ET.fromstring(overlay_svg(10, 10, None, "x")).findall(
                "{http://www.w3.org/2000/svg}path"
            )
        )
        == 1
    )


def test_the_safe_area_of_a_placed_picture_agrees_with_the_brief_of_its_frames():
    boxes = ((300, 400), (600, 400), (900, 400), (1200, 400))
    placement = picture(
        name="x",
        treatments={
            letter: Treatment(
                original=1, width=FixedWidth(width_px=w), height=RatioHeight(w=w, h=h)
            )
            for letter, (w, h) in zip("ABCD", boxes, strict=True)
        },
    )
    plans = span_plans(
        SITE, placement, {1: Original(id=1, name="o", width_px=1800, height_px=1000)}
    )
    regions = [safe_area(p.shown) for p in plans]
    both = (
        max(r.x for r in regions),
        min(r.x1 for r in regions),
        max(r.y for r in regions),
        min(r.y1 for r in regions),
    )
    assert brief(plans, ratio=1.8).safe.edges == pytest.approx(both, abs=1e-4)


# -- names of what changed --

BOAT, MAST = (
    Area(name=n, rect=Rect(x=x, y=0.2, w=0.2, h=0.2)) for n, x in (("Boat", 0.1), ("Mast", 0.5))
)
BASE = picture(name="Boats", treatments={"D": Treatment(original=1), "A": Treatment(fit="cover")})


def version(placement=BASE, focal=(0.5, 0.5), areas=(BOAT, MAST)):
    return Version(placement, {1: Look("boats.jpg", focal, areas)})


def with_a(**values):
    return treated(BASE, {**own(BASE), "A": Treatment(fit="cover", **values)})


@pytest.mark.parametrize(
    ("after", "said"),
    [
        (version(), ()),
        (version(picture("Quay", own(BASE), alt="Boats")), ("Name", "Alt text")),
        (version(BASE.model_copy(update={"lead": False})), ("Loading",)),
        (version(with_a(crop=Rect(x=0, y=0, w=0.5, h=1))), ("Crop of span A",)),
        (
            version(with_a(show="colour", whole=True, keeps=("Boat",))),
            ("What shows, areas that matter and 1 more of span A",),
        ),
        (version(focal=(0.4, 0.5)), ("Focal point of boats.jpg",)),
        (version(areas=(BOAT,)), ("Mast removed",)),
        (version(areas=(BOAT, MAST, BOAT.model_copy(update={"name": "Buoy"}))), ("Buoy drawn",)),
        (version(areas=(MAST, BOAT)), ("Order of areas of boats.jpg",)),
        (version(areas=(BOAT.model_copy(update={"name": "Ship"}), MAST)), ("Boat is called Ship",)),
        (version(areas=(BOAT, MAST.model_copy(update={"lettering": True}))), ("Area Mast",)),
    ],
)
def test_what_changed_is_said_in_a_few_words(after, said):
    assert differences(version(), after) == said


def test_a_step_bears_the_first_change_and_how_many_more():
    after = version(with_a(crop=Rect(x=0, y=0, w=0.5, h=1)), focal=(0.1, 0.1))
    assert (
        named(version(), after) == "Crop of span A and 1 more"
        and named(version(), version()) == "No change"
    )
    long = version(
        areas=(
            BOAT.model_copy(update={"name": "x" * 80}),
            MAST,
            *(MAST.model_copy(update={"name": f"{i}" * 60}) for i in (1, 2)),
        )
    )
    assert len(named(version(), long)) <= 120

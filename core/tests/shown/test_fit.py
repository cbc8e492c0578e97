"""What shows, and the aim that holds it (rules §4; CSS Images 3 §5.5, §5.6)."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from skypane.errors import InvalidPlan
from skypane.geometry import Rectangle
from skypane.model import FixedAim, Following
from skypane.shown.fit import (
    Interval,
    Picture,
    binding,
    following_offset,
    is_whole,
    safe_area,
    share_in_view,
    shows,
    union,
    windows,
)

lengths = st.floats(10, 6000)
fractions = st.floats(0, 1)


def one(values):
    return np.array([float(values)])


def window(picture, W, H, aim=Following(), fit="cover"):
    return windows(picture, fit, aim, one(W), one(H))


# -- check values, worked from the rule (rules §4) --


def test_16_9_in_3_4_shows_42_percent_of_its_width():
    shown = shows((1600, 900), (300, 400), "cover", (0.5, 0.5))
    assert shown.visible.w / 1600 == pytest.approx(0.4219, abs=5e-5)


@pytest.mark.parametrize(("ratio", "share"), [(2, 0.6667), (1.5, 0.5), (1, 0.3333)])
def test_3_1_in_flatter_frames(ratio, share):
    shown = shows((3000, 1000), (600 * ratio, 600), "cover", (0.5, 0.5))
    assert shown.visible.w / 3000 == pytest.approx(share, abs=5e-5)


@pytest.mark.parametrize(("focal", "percent"), [(0.25, 6.757), (0.30, 15.405), (0.80, 100)])
def test_the_percentage_that_follows_a_focal_point(focal, percent):
    shown = window(Picture(1600, 900, (focal, 0.5)), 300, 400)
    share = float(shown.x1[0] - shown.x0[0])
    assert float(shown.x0[0]) / (1 - share) * 100 == pytest.approx(percent, abs=5e-4)


def test_the_safe_area_of_a_portrait_and_a_flat_frame():
    shown = windows(
        Picture(1920, 1080), "cover", FixedAim(), np.array([300.0, 900.0]), np.array([400.0, 300.0])
    )
    safe = safe_area(shown)
    assert safe is not None
    assert [round(v) for v in (safe.x * 1920, safe.x1 * 1920, safe.y * 1080, safe.y1 * 1080)] == [
        555,
        1365,
        220,
        860,
    ]


def test_a_wide_keep_area_in_a_frame_of_fixed_height_fails_below_809():
    picture = Picture(
        1600, 900, (0.5, 0.5), (Interval("all", 0.045, 0.955),), (Interval("all", 0.2, 0.8),)
    )
    rect = (0.045, 0.955, 0.2, 0.8)
    W = np.arange(600.0, 1000.0, 0.1)
    whole = is_whole(windows(picture, "cover", Following(), W, np.full_like(W, 500)), rect, picture)
    # half an image px of tolerance on both sides
    assert W[whole].min() == pytest.approx(808.9, abs=0.55)


def test_the_drawn_width_exceeds_a_frame_that_is_taller_than_the_picture():
    assert shows((1600, 900), (375, 500), "cover", (0.5, 0.5)).drawn.w == pytest.approx(
        888.9, abs=0.05
    )


# -- the five fits --


def box(x, y, w, h):
    return Rectangle(x=x, y=y, w=w, h=h)


def test_contain_shows_all_and_leaves_room():
    shown = shows((1600, 900), (400, 400), "contain", (0.5, 1))
    assert shown.visible == box(0, 0, 1600, 900)
    assert shown.drawn == box(0, 175, 400, 225)


def test_none_draws_px_for_px():
    shown = shows((1000, 500), (400, 200), "none", (1, 0))
    assert shown.visible == box(600, 0, 400, 200) and shown.drawn == box(-600, 0, 1000, 500)


def test_scale_down_is_the_smaller_of_none_and_contain():
    assert shows((100, 50), (400, 200), "scale-down", (0, 0)).drawn == box(0, 0, 100, 50)
    assert shows((1000, 500), (400, 200), "scale-down", (0, 0)).drawn == box(0, 0, 400, 200)


def test_fill_stretches():
    assert shows((100, 50), (300, 300), "fill", (0.3, 0.9)).drawn == box(0, 0, 300, 300)


@given(
    lengths,
    lengths,
    lengths,
    lengths,
    st.sampled_from(["cover", "contain", "fill", "none", "scale-down"]),
    fractions,
    fractions,
)
def test_the_visible_part_lies_inside_the_picture(w, h, W, H, fit, px, py):
    v = shows((w, h), (W, H), fit, (px, py)).visible
    assert v.x >= 0 and v.y >= 0 and v.w >= 0 and v.h >= 0
    assert v.x + v.w <= w * (1 + 1e-9) and v.y + v.h <= h * (1 + 1e-9)


@pytest.mark.parametrize(
    ("image", "frame"),
    [((0, 9), (3, 4)), ((16, 9), (0, 4)), ((16, 9), (3, -4)), ((float("nan"), 9), (3, 4))],
)
def test_nothing_of_no_size_is_computed(image, frame):
    with pytest.raises(InvalidPlan, match="has no size"):
        shows(image, frame, "cover", (0.5, 0.5))


# -- following --

intervals = (
    st.tuples(fractions, fractions)
    .map(sorted)
    .filter(lambda k: k[1] - k[0] > 0.001)
    .map(lambda k: Interval("k", *k))
)
room_and_drawn = st.tuples(st.floats(50, 2000), st.floats(1, 5)).map(lambda t: (t[0], t[0] * t[1]))


@given(room_and_drawn, fractions, st.lists(intervals, max_size=4))
def test_the_picture_always_covers_its_frame(sizes, focal, keeps):
    room, drawn = sizes
    offset = following_offset(one(room), one(drawn), focal, tuple(keeps))[0]
    assert room - drawn - 1e-9 <= offset <= 1e-9


@st.composite
def keepable(draw):
    """A frame, a picture and areas that all lie inside one window of it, so that some position
    keeps them whole."""
    room, drawn = draw(room_and_drawn)
    share = room / drawn
    start = draw(st.floats(0, 1)) * (1 - share)
    ends = draw(st.lists(st.tuples(fractions, fractions).map(sorted), min_size=1, max_size=4))
    return room, drawn, [Interval("k", start + a * share, start + b * share) for a, b in ends]


@given(keepable(), fractions)
def test_whenever_some_position_keeps_all_areas_whole_this_one_does(case, focal):
    room, drawn, keeps = case
    offset = following_offset(one(room), one(drawn), focal, tuple(keeps))[0]
    for k in keeps:
        assert -offset <= k.first * drawn + 1e-6
        assert room - offset >= k.last * drawn - 1e-6


@given(room_and_drawn, fractions, st.lists(intervals, min_size=2, max_size=4))
def test_where_areas_compete_the_most_important_is_whole(sizes, focal, keeps):
    room, drawn = sizes
    first = keeps[0]
    assume((first.last - first.first) * drawn <= room)
    offset = following_offset(one(room), one(drawn), focal, tuple(keeps))[0]
    assert -offset <= first.first * drawn + 1e-6 and room - offset >= first.last * drawn - 1e-6


@given(room_and_drawn, fractions, intervals)
def test_an_area_wider_than_the_frame_fills_it(sizes, focal, area):
    room, drawn = sizes
    assume((area.last - area.first) * drawn > room)
    offset = following_offset(one(room), one(drawn), focal, (area,))[0]
    assert area.first * drawn <= -offset + 1e-6 and room - offset <= area.last * drawn + 1e-6


def test_without_areas_the_focal_point_is_in_the_middle_as_far_as_the_picture_reaches():
    offsets = following_offset(np.full(3, 100.0), np.full(3, 400.0), 0.5, ())
    assert list(offsets) == [-150, -150, -150]
    assert following_offset(one(100), one(400), 0.0, ())[0] == 0
    assert following_offset(one(100), one(400), 1.0, ())[0] == -300


def test_only_areas_that_move_the_picture_count_as_binding():
    near, far = Interval("near", 0.45, 0.55), Interval("far", 0.8, 0.9)
    held = binding(one(0.5), 400, 0.5, (far, near))
    assert [k.name for k in held] == ["far"]


# -- the cut --


@given(
    st.floats(0.4, 3),
    st.lists(st.tuples(st.floats(100, 2000), st.floats(100, 2000)), min_size=1, max_size=8),
    st.booleans(),
    fractions,
    fractions,
)
def test_a_cut_shows_the_same_as_the_whole(ratio, frames, following, x, y):
    """Drawn at the cut's own cover scale and moved by c0·D (or at the same percentage), every
    window is what it was."""
    picture = Picture(3000, 3000 / ratio, (x, y))
    W, H = np.array([f[0] for f in frames]), np.array([f[1] for f in frames])
    aim = Following() if following else FixedAim(x=x, y=y)
    shown = windows(picture, "cover", aim, W, H)
    cut = union(shown)
    cut_w, cut_h = cut.w * picture.w, cut.h * picture.h
    scale = np.maximum(W / cut_w, H / cut_h)
    assert scale == pytest.approx(shown.drawn_w / picture.w, rel=1e-6)  # drawn as large as before
    if not following:  # left edge px·(w − W/s) = c0 + px·(c − W/s)
        assert cut.x * picture.w + x * (cut_w - W / scale) == pytest.approx(
            shown.x0 * picture.w, abs=1e-3
        )
        assert cut.y * picture.h + y * (cut_h - H / scale) == pytest.approx(
            shown.y0 * picture.h, abs=1e-3
        )
    assert (shown.x0 >= cut.x - 1e-9).all() and (shown.x1 <= cut.x1 + 1e-9).all()


def test_a_span_of_one_ratio_is_cut_to_that_ratio():
    W = np.arange(320.0, 600.0)
    cut = union(windows(Picture(5200, 2900, (0.7, 0.5)), "cover", Following(), W, W * 5 / 4))
    assert cut.w * 5200 / (cut.h * 2900) == pytest.approx(0.8)


# -- shares --


def test_share_in_view_is_the_area_that_shows():
    # left half
    shown = windows(Picture(1000, 1000), "cover", FixedAim(x=0, y=0), one(500), one(1000))
    assert share_in_view(shown, (0.4, 0.6, 0.2, 0.4))[0] == pytest.approx(0.5)
    assert share_in_view(shown, (0.6, 0.9, 0.2, 0.4))[0] == 0
    assert share_in_view(shown, (0.1, 0.2, 0.2, 0.4))[0] == 1


def test_frames_that_share_nothing_have_no_safe_area():
    shown = windows(
        Picture(4000, 1000, (0.5, 0.5)), "cover", Following(), np.array([100.0]), np.array([100.0])
    )
    other = windows(
        Picture(4000, 1000, (0.5, 0.5)),
        "cover",
        FixedAim(x=0, y=0.5),
        np.array([100.0]),
        np.array([100.0]),
    )
    both = type(shown)(
        *(
            np.concatenate([getattr(shown, f), getattr(other, f)])
            for f in shown.__dataclass_fields__
        )
    )
    assert safe_area(shown) is not None and safe_area(both) is None

"""What users really have: camera sizes and ratios, areas anywhere, heights that follow the screen,
names of every kind.

No placement of such values is ever unreadable: what can be had is had, what cannot says why.
"""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from planned import effective, read_part, span_plans
from skypane.advice.costs import aim_costs
from skypane.advice.crops import largest_crop
from skypane.advice.trial import tried
from skypane.advice.walk import advise
from skypane.carried import respan
from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.model import (
    Area,
    FixedHeight,
    FixedWidth,
    FullWidth,
    NaturalHeight,
    Original,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    Viewers,
    ViewportHeight,
    picture,
)
from skypane.numerals import share_text
from skypane.shown.brief import brief
from skypane.shown.fit import Picture, following_offset
from skypane.shown.keeps import failing
from skypane.treatments import effective_crop
from skypane.widths.spans import retitled, spans_of

#: Px sizes of pictures as cameras, phones, drones, scanners and screens make them (common practice;
#: makers' data sheets from memory).
CAMERAS = [
    *(
        (6000, 4000),
        (6720, 4480),
        (8256, 5504),
        (9504, 6336),
        (8192, 5464),
        (5472, 3648),
        (7952, 5304),
        (4928, 3264),
    ),
    *(
        (6048, 4024),
        (5184, 3456),
        (11648, 8736),
        (14204, 10652),
        (8272, 6200),
        (4608, 3456),
        (5184, 3888),
        (4032, 3024),
    ),
    *(
        (4000, 3000),
        (3264, 2448),
        (9248, 6936),
        (8064, 6048),
        (4080, 3072),
        (5312, 2988),
        (3840, 2160),
        (1920, 1080),
    ),
    *(
        (5120, 2880),
        (2592, 1944),
        (4000, 2250),
        (5280, 3956),
        (3024, 4032),
        (4000, 6000),
        (2160, 3840),
        (1080, 1920),
    ),
    *(
        (3000, 3000),
        (1080, 1350),
        (12000, 3000),
        (16384, 4096),
        (10, 20000),
        (20000, 10),
        (4961, 7016),
        (2481, 3507),
    ),
]
RATIOS = [(4, 5), (1, 1), (3, 2), (16, 9), (2, 1), (3, 1), (9, 16), (2.39, 1)]

shares = st.tuples(st.floats(0, 0.99), st.floats(0.001, 1)).map(
    lambda t: (t[0], max(1e-3, min(t[1], 1 - t[0])))
)
areas = st.lists(
    st.tuples(shares, shares, st.none() | st.floats(1, 3000)), min_size=1, max_size=4
).map(
    lambda found: tuple(
        Area(name=f"K{i}", rect=Rect(x=x, y=y, w=w, h=h), least_px=least)
        for i, ((x, w), (y, h), least) in enumerate(found)
    )
)
heights = st.sampled_from(
    [RatioHeight(w=w, h=h) for w, h in RATIOS]
    + [
        NaturalHeight(),
        NaturalHeight(greatest_px=500),
        FixedHeight(height_px=500),
        ViewportHeight(percent=60, least_px=200),
        RatioHeight(w=3, h=1, least_px=300),
        RatioHeight(w=4, h=5, greatest_vh=70),
    ]
)
SITE = Site(breakpoints=(599,), widest=1600)


@pytest.mark.slow
@settings(max_examples=150, deadline=None)
@given(st.sampled_from(CAMERAS), heights, areas, st.tuples(st.floats(0, 1), st.floats(0, 1)))
def test_a_camera_picture_can_always_be_read(size, height, keeps, focal):
    o = Original(
        id=1, name="camera.jpg", width_px=size[0], height_px=size[1], areas=keeps, focal=focal
    )
    placement = picture(name="Camera", treatments={"B": Treatment(original=1, height=height)})
    try:
        span_plans(SITE, placement, {1: o})
    except InvalidPlan:
        return  # a frame less than a px high is refused when it is set, with a sentence
    for chosen in "AB":
        found = read_part(SITE, placement, {1: o}, chosen=chosen, costs=True)
        for advice in found.advice:
            for step in advice.steps:
                assert step.works == bool(step.treatment) and step.why.endswith(".")
                if step.works:  # what is offered can be computed
                    p = next(
                        p for p in span_plans(SITE, placement, {1: o}) if p.span.letter == chosen
                    )
                    if step.kind != "colour":
                        assert not failing(tried(p, step.treatment))


@pytest.mark.parametrize("size", CAMERAS)
@pytest.mark.parametrize("ratio", RATIOS)
def test_the_largest_crop_is_a_crop_or_says_why_not(size, ratio):
    for i in range(40):
        rng = np.random.default_rng(i)
        x, y = sorted(rng.random(2)), sorted(rng.random(2))
        keep = Area(
            name="K", rect=Rect(x=x[0], y=y[0], w=max(1e-3, x[1] - x[0]), h=max(1e-3, y[1] - y[0]))
        )
        try:
            found = largest_crop(
                Picture(*map(float, size), tuple(rng.random(2))), ratio[0] / ratio[1], (keep,)
            )
        except InvalidPlan as problem:
            assert str(problem).endswith(".")
            continue
        assert found.w * size[0] / (found.h * size[1]) == pytest.approx(ratio[0] / ratio[1])
        assert (
            found.x <= keep.rect.x + 1e-9 and found.x + found.w >= keep.rect.x + keep.rect.w - 1e-9
        )


def test_a_rectangle_forgives_only_what_arithmetic_adds():
    assert Rect(x=-2e-16, y=0, w=1, h=1.0000000000000002) == WHOLE
    for wrong in ({"x": -1e-6}, {"w": 1.00001}, {"h": 1.01}, {"w": -1e-3}):
        with pytest.raises(ValueError):
            Rect(**{"x": 0, "y": 0, "w": 1, "h": 1, **wrong})


@pytest.mark.parametrize("hairline", [{"h": 1e-7}, {"w": 1e-320}])
def test_nobody_draws_a_hairline(hairline):
    with pytest.raises(ValueError, match="marks nothing"):
        Area(name="K", rect={"x": 0, "y": 0, "w": 1, "h": 1, **hairline})
    with pytest.raises(ValueError, match="marks nothing"):
        Treatment(crop={"x": 0, "y": 0, "w": 1, "h": 1, **hairline})


# -- what binds, between the heights that are computed --


@settings(max_examples=150, deadline=None)
@given(st.integers(0, 10**6))
def test_what_binds_serves_every_viewport_height(seed):
    """The CSS says only the areas that bind; at every height between the least and the greatest it
    puts the picture where all of them would (rules §4)."""
    rng = np.random.default_rng(seed)
    keeps = tuple(
        Area(name=f"K{i}", rect=Rect(x=x, y=y, w=w * (1 - x), h=h * (1 - y)))
        for i, (x, y, w, h) in enumerate(rng.uniform(0.02, 0.98, (int(rng.integers(2, 6)), 4)))
    )
    o = Original(
        id=1,
        name="o",
        width_px=int(rng.integers(800, 6000)),
        height_px=int(rng.integers(800, 6000)),
        areas=keeps,
        focal=tuple(rng.random(2)),
    )
    site = Site(narrowest=int(rng.integers(320, 700)), widest=900, breakpoints=())
    t = Treatment(
        original=1,
        width=ShareWidth(percent=float(rng.uniform(30, 100))),
        height=ViewportHeight(percent=float(rng.uniform(20, 100))),
    )
    (p,) = span_plans(site, picture(name="x", treatments={"A": t}), {1: o})
    for width in (site.narrowest, 800, 900):
        i = int(width - p.viewport_w[0])
        vh = np.arange(p.viewport_h[0, i], p.viewport_h[-1, i] + 1)
        W, H = np.full_like(vh, p.W[0, i]), vh * t.height.percent / 100
        D, E = np.maximum(W, H * p.picture.ratio), np.maximum(H, W / p.picture.ratio)
        for axis, room, drawn, focal, all_ in (
            ("x", W, D, p.picture.focal[0], p.picture.keeps_x),
            ("y", H, E, p.picture.focal[1], p.picture.keeps_y),
        ):
            asked = following_offset(room, drawn, focal, all_)
            assert np.abs(following_offset(room, drawn, focal, p.binding[axis]) - asked).max() < 0.1
            # and the file carries all that shows at any of them
            first, last = (p.cut.x, p.cut.x1) if axis == "x" else (p.cut.y, p.cut.y1)
            assert (-asked / drawn).min() >= first - 1e-9 and (
                (room - asked) / drawn
            ).max() <= last + 1e-9


# -- posts that come and go --

CROPPED = Rect(x=0.2, y=0.1, w=0.5, h=0.8)


def test_a_removed_post_hands_no_crop_to_a_span_that_had_none():
    p = picture(
        name="x",
        treatments={
            "D": Treatment(original=1, crop=CROPPED, keeps=("Sail",)),
            "C": Treatment(original=2),
            "B": Treatment(original=1),
        },
    )
    before, after = Site(), Site(breakpoints=(599, 1599))  # C goes into D
    before, after = Site(), Site(breakpoints=(599, 1023))
    carried = effective(after, respan(before, after, p, {1: ("Sail", "Red"), 2: ()}))
    assert carried["C"].crop == CROPPED and carried["C"].keeps == ("Sail",)
    assert carried["B"].original == 1 and effective_crop(carried["B"].crop) is WHOLE
    assert carried["B"].keeps == ("Sail", "Red")


@settings(max_examples=100)
@given(st.data())
def test_every_width_keeps_what_it_did_when_posts_go_or_come(data):
    letters = "ABCD"
    treatment = st.builds(
        Treatment,
        original=st.sampled_from([None, 1, 2]),
        crop=st.sampled_from([None, CROPPED, WHOLE]),
        keeps=st.sampled_from([None, ("Sail",), ("Red", "Sail")]),
        fit=st.sampled_from([None, "cover", "contain"]),
    )
    p = picture(name="x", treatments={letter: data.draw(treatment) for letter in letters})
    before = Site()
    posts = data.draw(
        st.sets(st.sampled_from([400, 599, 800, 1023, 1300, 1599, 2000]), min_size=1, max_size=7)
    )
    after = Site(breakpoints=tuple(sorted(posts)))
    if len(after.breakpoints) == 3:
        return
    names = {1: ("Red", "Sail"), 2: ("Red", "Sail")}
    held, carried = effective(before, p), effective(after, respan(before, after, p, names))
    old, new = spans_of(before), spans_of(after)
    for span in new:
        was = held[next(s for s in old if s.last >= span.last).letter]
        now = carried[span.letter]
        assert (now.original, now.fit) == (was.original, was.fit)
        assert effective_crop(now.crop) == effective_crop(was.crop)
        assert (now.keeps or names.get(now.original or 0, ())) == (
            was.keeps or names.get(was.original or 0, ())
        )


def test_titles_move_with_their_widths():
    before = Site(titles={"A": "phone", "C": "laptop", "D": "desk"})
    added = retitled(before, before.model_copy(update={"breakpoints": (400, 599, 1023, 1599)}))
    assert added.titles == {"B": "phone", "D": "laptop", "E": "desk"}
    removed = retitled(before, before.model_copy(update={"breakpoints": (1023, 1599)}))
    assert removed.titles == {"A": "phone", "B": "laptop", "C": "desk"}
    moved = before.model_copy(update={"breakpoints": (500, 1023, 1599)})
    assert retitled(before, moved) is moved


# -- advice --


def advice_of(o, site=SITE, letter="B", others=(), **treatment):
    placement = picture(name="x", treatments={letter: Treatment(original=o.id, **treatment)})
    p = next(p for p in span_plans(site, placement, {o.id: o}) if p.span.letter == letter)
    return p, {
        s.kind: s
        for s in reversed(advise(p, {x.id: x for x in (o, *others)}, site.budget_bytes).steps)
    }


def boats(*keeps, size=(1600, 900), **kw):
    named = tuple(
        Area(name=n, rect=Rect(x=a, y=0.4, w=b - a, h=0.2), least_px=least)
        for n, a, b, least in keeps
    )
    return Original(id=1, name="boats.jpg", width_px=size[0], height_px=size[1], areas=named, **kw)


def test_a_px_height_bounds_the_new_ratio_so_that_wide_frames_stay_as_they_are():
    """Check value of rules §4: 0.045…0.955 of 16:9 in a 500 px high frame fails below 808.9
    px."""
    o = boats(("Wide", 0.045, 0.955, None))
    p, steps = advice_of(o, height=FixedHeight(height_px=500))
    ratio = steps["ratio"]
    assert (
        ratio.works
        and ratio.treatment.height == RatioHeight(w=1.618, h=1, greatest_px=500)
        and "at most 500 px" in ratio.label
    )
    q = tried(p, ratio.treatment)
    well = p.viewport_w >= 810
    assert (
        (q.H[:, well] == 500).all() and q.H[0, 0] == pytest.approx(600 / 1.618) and not failing(q)
    )


def test_a_share_of_the_viewport_bounds_it_likewise():
    o = boats(("Wide", 0.045, 0.955, None))
    p, steps = advice_of(o, height=ViewportHeight(percent=80))
    height = steps["ratio"].treatment.height
    assert (height.greatest_vh, height.greatest_px) == (
        80,
        None,
    ) and "at most 80 % of the viewport" in steps["ratio"].label
    q = tried(p, steps["ratio"].treatment)
    assert (q.H <= p.H + 1e-9).all() and (q.H == p.H).any() and not failing(q)


def test_no_step_breaks_a_bound_that_was_set():
    o = boats(("Wide", 0.02, 0.98, None), size=(900, 1600))  # whole, it would be higher than 400 px
    _, steps = advice_of(o, height=RatioHeight(w=1, h=2, greatest_px=400, least_px=390))
    for step in steps.values():
        if (
            step.treatment is not None
            and step.treatment.height is not None
            and step.kind != "colour"
        ):
            assert (
                step.treatment.height.greatest_px == 400 and step.treatment.height.least_px == 390
            )


def test_a_stand_in_below_a_least_size_says_so_in_sentence_and_button():
    o = boats(("Red", 0.02, 0.2, None), ("Green", 0.9, 0.98, None))
    placement = picture(
        name="x",
        treatments={"B": Treatment(original=1, height=RatioHeight(w=1, h=2, least_px=400))},
    )
    p = span_plans(SITE, placement, {1: o})[1]
    stand_in = next(
        s for s in advise(p, {1: o}, SITE.budget_bytes).steps if s.label.startswith("Only Red")
    )
    assert (
        stand_in.works
        and "below the least height of 400 px" in stand_in.label
        and "below the least height" in stand_in.why
    )


def test_the_shortest_and_the_tallest_frame_are_said():
    _, steps = advice_of(boats(("Wide", 0.02, 0.98, None)), height=RatioHeight(w=1, h=1))
    assert "from 600 × 338 at 600 px to 1600 × 900 at 1600 px" in steps["whole"].why


def test_tighter_and_taller_are_for_what_is_small_where_it_is_seen():
    cut = boats(("Wide", 0.02, 0.98, 5000))  # asks for a width, but is cut everywhere
    _, steps = advice_of(cut, height=RatioHeight(w=1, h=1))
    assert not {"crop", "taller"} & set(steps)
    small = boats(("Face", 0.4, 0.5, 100))
    _, steps = advice_of(small, height=RatioHeight(w=16, h=9))
    assert {"crop", "taller"} <= set(steps) and "ratio" not in steps
    assert steps["taller"].treatment.height.least_px == pytest.approx(100 / 0.1 * 900 / 1600, abs=1)


def test_a_tighter_crop_is_smaller_than_the_one_that_is_there():
    small = boats(("Face", 0.42, 0.48, 100))
    _, steps = advice_of(
        small, height=RatioHeight(w=16, h=9), crop=Rect(x=0.3, y=0.2, w=0.5, h=0.5)
    )
    crop = steps["crop"]
    assert not crop.works or crop.treatment.crop.w < 0.5


def test_small_has_no_leeway():
    at_least = boats(("Face", 0.4, 0.5, 60))
    _, fine = advice_or_none(at_least, height=RatioHeight(w=16, h=9))
    assert fine is None  # 10 % of 600 px is 60 px
    assert (
        advice_or_none(boats(("Face", 0.4, 0.5, 60.1)), height=RatioHeight(w=16, h=9))[1]
        is not None
    )


def advice_or_none(o, **treatment):
    placement = picture(name="x", treatments={"B": Treatment(original=1, **treatment)})
    p = span_plans(SITE, placement, {1: o})[1]
    return p, advise(p, {1: o}, SITE.budget_bytes)


def test_one_area_needs_and_two_need():
    _, steps = advice_of(boats(("Wide", 0.02, 0.98, None)), height=RatioHeight(w=1, h=1))
    assert "Wide needs 96 %" in steps["aim"].why
    _, steps = advice_of(
        boats(("Red", 0.02, 0.1, None), ("Green", 0.9, 0.98, None)), height=RatioHeight(w=1, h=1)
    )
    assert "Red and Green need 96 %" in steps["aim"].why


def test_ways_to_aim_are_compared_in_frames_that_are_filled():
    o = boats(("Wide", 0.02, 0.98, None))
    placement = picture(
        name="x",
        treatments={"B": Treatment(original=1, fit="contain", height=RatioHeight(w=1, h=1))},
    )
    costs = aim_costs(span_plans(SITE, placement, {1: o})[1])
    # contained all would be whole, which is no way to aim
    assert [c.whole_widths for c in costs] == [
        0,
        0,
        0,
    ]


# -- findings, brief, files --


def test_what_is_soft_at_a_density_without_a_file_of_its_own_is_found():
    """For whoever of the audience sees it so: nobody does where all screens are plain."""
    o = Original(id=1, name="o.jpg", width_px=1600, height_px=900, alt="")
    placement = picture(
        name="Exact",
        treatments={"B": Treatment(original=1, width=FixedWidth(width_px=1600, greatest_px=1600))},
    )
    wide = {"narrowest": 1600, "widest": 1700, "breakpoints": (1650,)}
    plain = Site(**wide, audience=(Viewers(width=1660, height=900),))
    assert not [f for f in read_part(plain, placement, {1: o}).findings if f.rule == "soft"]
    fine = (Viewers(width=1610, height=900, density=3), Viewers(width=1690, height=900, density=2))
    site = Site(**wide, audience=fine)
    found = read_part(site, placement, {1: o})
    assert [f.density for f in found.files] == [1]
    (soft,) = (f for f in found.findings if f.rule == "soft")
    # once for the picture, however many spans and densities it is soft in
    assert soft.sentence == (
        "o.jpg is soft at 1610 px and at 1690 px: 3200 px are needed at 1610 px and 2x, 1600 are"
        " there, 1600 too few. Sharp up to 1.00x."
    )


def test_hardly_anything_is_not_said_as_nothing():
    assert (
        share_text(0.0004),
        share_text(0.0044),
        share_text(0.9996),
        share_text(0.5),
        share_text(1),
    ) == (
        "less than 0.1 %",
        "0.4 %",
        "99.9 %",
        "50 %",
        "100 %",
    )


def test_alt_text_is_asked_for_only_where_a_picture_shows():
    o = Original(id=1, name="o.jpg", width_px=1600, height_px=900)
    colour = picture(
        name="x",
        treatments={"B": Treatment(original=1, show="colour", height=RatioHeight(w=2, h=1))},
    )
    assert [f.rule for f in read_part(SITE, colour, {1: o}).findings] == []


def test_the_brief_is_for_the_spans_that_wait():
    o = Original(id=1, name="o.jpg", width_px=1600, height_px=900)
    waiting = picture(
        name="x",
        treatments={
            "B": Treatment(height=RatioHeight(w=2, h=1)),
            "A": Treatment(original=1, height=RatioHeight(w=1, h=2)),
        },
    )
    plans = span_plans(SITE, waiting, {1: o})
    assert brief(plans).spans == ("B",) == read_part(SITE, waiting, {1: o}).brief.spans


def test_spans_alike_with_another_between_share_their_files():
    narrow = Treatment(width=FixedWidth(width_px=300), height=RatioHeight(w=1, h=1))
    o = Original(id=1, name="o.jpg", width_px=1600, height_px=900, alt="")
    site = Site(breakpoints=(599, 1023))
    between = Treatment(width=FixedWidth(width_px=400), height=RatioHeight(w=2, h=1))
    p = picture(
        name="x",
        treatments={"C": narrow.model_copy(update={"original": 1}), "B": between, "A": narrow},
    )
    from planned import delivered

    made = delivered(site, p, {1: o})
    assert {(r.spans, r.name) for r in made.files if r.format == "jpeg"} == {
        (("A", "C"), "x.jpg"),
        (("A", "C"), "x@2x.jpg"),
        (("B",), "x--b.jpg"),
        (("B",), "x--b@2x.jpg"),
    }
    lines = made.texts["snippet.html"].split("\n")
    assert [
        ("max-width: 599px" in line, "images/x.jpg" in line)
        for line in lines
        if "jpeg" in line or "<img" in line
    ] == [
        (True, True),
        (False, False),
        (False, True),
    ]


def test_files_that_are_equal_because_the_original_ends_are_one_file():
    o = Original(id=1, name="o.jpg", width_px=500, height_px=500, alt="")
    p = picture(
        name="x",
        treatments={"B": Treatment(original=1, width=FullWidth(), height=RatioHeight(w=1, h=1))},
    )
    from planned import delivered

    assert [r.name for r in delivered(SITE, p, {1: o}).files] == [
        "x@500w.avif",
        "x@500w.webp",
        "x@500w.jpg",
    ]
    by_density = SITE.model_copy(update={"lists": "densities"})
    assert [r.name for r in delivered(by_density, p, {1: o}).files] == ["x.avif", "x.webp", "x.jpg"]

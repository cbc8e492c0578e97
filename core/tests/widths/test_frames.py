"""Frames at every width, and the same as CSS (rules §2)."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane.markup.sizes import sizes_css
from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FullWidth,
    NaturalHeight,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    Site,
    ViewportHeight,
)
from skypane.numerals import number
from skypane.picks import Environment
from skypane.picks.sizes import evaluate_sizes
from skypane.widths.frame_css import height_css, width_css
from skypane.widths.frames import (
    frame_heights,
    frame_widths,
    viewport_heights,
    width_pieces,
)

V = np.arange(320, 2561, dtype=float)


def sizes(spans, container, style="max-width"):
    pieces = [(first, last, width_pieces(rule, container)) for first, last, rule in spans]
    return sizes_css(pieces, style)


bounds = st.tuples(st.none() | st.integers(10, 800), st.none() | st.integers(800, 2000))
holders = st.sampled_from(["page", "container"])
rules = st.one_of(
    st.builds(
        lambda w, b: FixedWidth(width_px=w, least_px=b[0], greatest_px=b[1]),
        st.integers(1, 2000),
        bounds,
    ),
    st.builds(
        lambda b, m: FullWidth(least_px=b[0], greatest_px=b[1], margin_px=m),
        bounds,
        st.sampled_from([0, 16, 22.5]),
    ),
    st.builds(
        lambda p, of, b: ShareWidth(percent=p, of=of, least_px=b[0], greatest_px=b[1]),
        st.floats(1, 100).map(lambda p: round(p, 2)),
        holders,
        bounds,
    ),
    st.builds(
        lambda n, g, of, k: ColumnsWidth(columns=n, take=min(k, n), gutter_px=g, of=of),
        st.integers(1, 6),
        st.integers(0, 30),
        holders,
        st.integers(1, 6),
    ),
    st.builds(
        lambda n, p, box, of: PercentColumnsWidth(columns=n, padding_percent=p, box=box, of=of),
        st.integers(1, 6),
        st.floats(0, 4).map(lambda p: round(p, 2)),
        st.sampled_from(["content-box", "border-box"]),
        holders,
    ),
)
containers = st.builds(Container, max_width_px=st.integers(300, 1600), margin_px=st.integers(0, 60))


# common practice: container 1080, gutter 60 → one, two, three columns
@pytest.mark.parametrize(("columns", "width"), [(1, 1080), (2, 510), (3, 320), (4, 225)])
def test_columns_of_a_container_with_gutters(columns, width):
    rule = ColumnsWidth(columns=columns, gutter_px=60)
    assert (
        frame_widths(rule, np.array([1600.0]), Container(max_width_px=1080, margin_px=0))[0]
        == width
    )


def test_several_columns_keep_the_gutters_between_them():
    rule = ColumnsWidth(columns=3, take=2, gutter_px=60)
    assert (
        frame_widths(rule, np.array([1600.0]), Container(max_width_px=1080, margin_px=0))[0] == 700
    )


# common practice: three across with 1 % padding, two across with 1 %, four across with 1 %
@pytest.mark.parametrize(("columns", "percent"), [(3, 31.33), (2, 48), (4, 23)])
def test_columns_by_percentage_padding(columns, percent):
    rule = PercentColumnsWidth(columns=columns, padding_percent=1)
    assert rule.frame_percent == pytest.approx(percent, abs=0.005)


def test_the_container_is_the_page_without_margins_up_to_its_greatest_width():
    rule = ShareWidth(percent=100, of="container")
    assert list(
        frame_widths(
            rule, np.array([400.0, 1120.0, 2000.0]), Container(max_width_px=1080, margin_px=20)
        )
    ) == [
        360,
        1080,
        1080,
    ]


def test_one_column_on_a_narrow_screen_is_wider_than_three_on_a_wide_one():
    # the needed file follows from the greatest frame, which is often on the narrow side (rules
    # §2)
    container = Container(max_width_px=1080, margin_px=0)
    three = frame_widths(ColumnsWidth(columns=3, gutter_px=60), V, container).max()
    one = frame_widths(FullWidth(), np.arange(320, 768, dtype=float), container).max()
    assert (three, one) == (320, 767)


@given(
    rules,
    containers,
    st.sampled_from(["max-width", "min-width", "range"]),
    st.sampled_from(["chromium", "firefox", "webkit"]),
)
def test_sizes_evaluates_to_the_frame_at_every_width_in_every_engine(
    rule, container, style, policy
):
    """Within 1 px (rules §2), with a rule of another shape in the span beside it; and nothing in
    it that an engine drops."""
    text = sizes([(320, 899, rule), (900, 2560, ShareWidth(percent=40))], container, style)
    assert "min(" not in text and "max(" not in text and "clamp(" not in text and "*" not in text
    widths = np.concatenate([V[::37], [899.0, 900.0]])
    expected = np.where(widths < 900, frame_widths(rule, widths, container), widths * 0.4)
    got = np.array(
        [evaluate_sizes(text, Environment(float(v), 800, policy=policy)).width for v in widths]
    )
    assert np.abs(got - expected).max() <= 1


def test_sizes_of_several_spans_joins_equal_neighbours():
    full, half = FullWidth(), ShareWidth(percent=50)
    spans = [(320, 599, full), (600, 1023, half), (1024, 2560, half)]
    assert sizes(spans, Container()) == "(max-width: 599px) 100vw, 50vw"
    assert sizes(spans, Container(), "min-width") == "(min-width: 600px) 50vw, 100vw"
    assert sizes(spans, Container(), "range") == "(width < 600px) 100vw, 50vw"


def test_sizes_of_a_container_are_written_as_the_engines_take_them():
    """docs/engines.md: `(max-width: 1120px) calc(100vw - 40px), 1080px`, never `min(100vw - 40px,
    1080px)`."""
    whole = ShareWidth(percent=100, of="container")
    assert (
        sizes([(320, 2560, whole)], Container()) == "(max-width: 1120px) calc(100vw - 40px), 1080px"
    )
    three = ColumnsWidth(columns=3, gutter_px=60)
    assert (
        sizes([(320, 2560, three)], Container())
        == "(max-width: 1120px) calc(33.33333vw - 53.33334px), 320px"
    )


def test_layout_uses_the_page():
    # 100vw is wider than the page by a classic scrollbar (rules §2)
    assert width_css(FullWidth(), Container()) == "100%"
    assert (
        width_css(ShareWidth(percent=50, of="container"), Container())
        == "calc(min(1080px, 100% - 40px) * 0.5)"
    )


@given(st.floats(1, 3000), st.floats(0.2, 5))
def test_a_ratio_frame_keeps_its_ratio(width, ratio):
    heights = frame_heights(RatioHeight(w=ratio, h=1), np.array([width]), np.array([800.0]), 1)
    assert heights[0] == pytest.approx(width / ratio)


def test_heights_of_the_four_rules():
    W, vh = np.array([300.0, 900.0]), np.array([600.0, 800.0])
    assert list(frame_heights(FixedHeight(height_px=500), W, vh, 2)) == [500, 500]
    assert list(frame_heights(ViewportHeight(percent=50), W, vh, 2)) == [300, 400]
    assert list(frame_heights(NaturalHeight(), W, vh, 1.5)) == [200, 600]
    assert list(frame_heights(RatioHeight(w=3, h=1, least_px=150, greatest_px=250), W, vh, 2)) == [
        150,
        250,
    ]


def test_css_of_heights_says_the_bounds():
    assert height_css(RatioHeight(w=4, h=5, least_px=200), (16, 9)) == {
        "aspect-ratio": "4 / 5",
        "height": "auto",
        "min-height": "200px",
        "max-height": "none",
    }
    assert height_css(ViewportHeight(percent=62.5), (16, 9))["height"] == "62.5vh"
    assert height_css(NaturalHeight(), (3000, 2000))["aspect-ratio"] == "3000 / 2000"


def test_viewport_heights_follow_the_site_s_rows():
    least, typical, greatest = viewport_heights(
        Site().heights, np.array([360.0, 599.0, 600.0, 1280.0, 1920.0])
    )
    assert list(typical) == [640, 640, 1024, 800, 1080]
    assert (least <= typical).all() and (typical <= greatest).all()


@pytest.mark.parametrize(
    ("value", "text"),
    [(0, "0"), (-0.0000001, "0"), (1.5, "1.5"), (1e-9, "0"), (33.333333333, "33.33333")],
)
def test_numbers_are_written_as_css_reads_them(value, text):
    assert number(value) == text


@pytest.mark.parametrize(
    "bad",
    [{"width_px": 0}, {"width_px": -5}, {"width_px": 100, "least_px": 300, "greatest_px": 200}],
)
def test_frames_of_no_size_are_refused(bad):
    with pytest.raises(ValueError):
        FixedWidth(**bad)

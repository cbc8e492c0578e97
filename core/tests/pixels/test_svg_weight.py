"""Filters are weighed before they are drawn: those that take minutes are refused at once, those
that designers use are drawn."""

import time

import pytest
import pyvips
from skypane.errors import UnreadablePicture
from skypane.pixels.inspect import inspect
from skypane.pixels.load import DRAWING_SECONDS
from skypane.pixels.svg_weight import filter_seconds

pytestmark = pytest.mark.slow

NS = 'xmlns="http://www.w3.org/2000/svg"'
WIDEN = '<feMorphology operator="dilate" radius="8"/>'


def svg(inside, size=(1000, 1000), box=None):
    viewed = f' viewBox="{box}"' if box else ""
    return f'<svg {NS} width="{size[0]}" height="{size[1]}"{viewed}>{inside}</svg>'


def of(inside, drawn_px=1000, **kw):
    return filter_seconds(svg(inside, **kw).encode(), drawn_px)


def filtered(primitives, on='<rect width="1000" height="1000" {}/>', **said):
    attributes = " ".join(f'{name}="{value}"' for name, value in said.items())
    return f'<filter id="f" {attributes}>{primitives}</filter>' + on.format('filter="url(#f)"')


@pytest.mark.parametrize(
    "primitive",
    [
        '<feGaussianBlur stdDeviation="5"/>',
        '<feMorphology radius="2"/>',
        '<feMorphology radius="8"/>',
        '<feTurbulence baseFrequency=".1" numOctaves="1"/>',
        '<feTurbulence baseFrequency=".1" numOctaves="8"/>',
        '<feDisplacementMap in2="SourceGraphic" scale="50"/>',
        '<feConvolveMatrix order="3" kernelMatrix="1 0 0 0 1 0 0 0 1"/>',
    ],
)
def test_it_is_a_lower_bound_of_what_librsvg_takes(primitive):
    """Held against librsvg itself, in CPU seconds of this process."""
    text = svg(filtered(primitive))
    weighed = filter_seconds(text.encode(), 1000)
    assert weighed > 0
    before = time.process_time()
    pyvips.Image.svgload_buffer(text.encode()).copy_memory()
    # half as much again for a machine that is faster than the one this was measured on
    assert weighed < 1.5 * (time.process_time() - before)


def test_it_grows_with_area_and_radius():
    assert of(filtered(WIDEN), 2000) > 4 * of(filtered(WIDEN), 1000)
    assert of(filtered(WIDEN)) > of(filtered(WIDEN.replace("8", "4")))
    twice = (
        filtered(WIDEN) + '<rect width="1000" height="1000" style="fill:red; filter: URL(\'#f\')"/>'
    )
    assert of(twice) == pytest.approx(2 * of(filtered(WIDEN)))


def test_the_region_is_that_of_the_specification():
    """Filter Effects Module Level 1, §8: a tenth around the shape, or as it says; what lies outside
    the drawing is not filtered."""
    whole = of(filtered(WIDEN))
    small = '<rect x="400" y="400" width="100" height="100" {}/>'
    assert of(filtered(WIDEN, small)) == pytest.approx(whole * 0.12 * 0.12)
    circle = '<circle cx="500" cy="500" r="50" {}/>'
    assert of(filtered(WIDEN, circle)) == pytest.approx(whole * 0.12 * 0.12)
    own = {"filterUnits": "userSpaceOnUse", "x": 0, "y": 0, "width": "50%", "height": 100}
    path = '<path d="M0 0h9v9z" {}/>'
    assert of(filtered(WIDEN, path, **own)) == pytest.approx(whole * 0.5 * 0.1)
    assert of(filtered(WIDEN, path)) == 0  # a shape that is not looked at
    # user units are those of the view box
    assert of(filtered(WIDEN), size=(100, 100), box="0 0 1000 1000") == pytest.approx(whole)


@pytest.mark.parametrize(
    "inside",
    [
        "",
        filtered("<feOffset/>"),
        filtered(WIDEN, '<rect width="1e999" height="-5" {}/>'),
        filtered(WIDEN, '<rect width="wide" height="nan" {}/>'),
        '<rect width="9" height="9" filter="url(#gone)"/>',
        "<not closed",
    ],
)
def test_what_costs_nothing_or_cannot_be_read_weighs_nothing(inside):
    assert of(inside) == 0


def test_a_heavy_drawing_is_refused_at_once_with_what_to_do(tmp_path):
    """A file of some 300 bytes that would be drawn for more than a minute."""
    path = tmp_path / "star.svg"
    path.write_text(svg(filtered(WIDEN * 2), (4000, 4000)).replace('width="1000"', 'width="4000"'))
    began = time.process_time()
    with pytest.raises(
        UnreadablePicture, match=r"star\.svg has filters that take at least .* export it as PNG"
    ):
        inspect(path, "star.svg")
    assert time.process_time() - began < DRAWING_SECONDS / 4


def test_the_shadow_of_an_icon_is_drawn(tmp_path):
    """As drawing programs write shadows: a region of its own, a blur, an offset (common
    practice)."""
    path = tmp_path / "icon.svg"
    shadow = filtered(
        '<feGaussianBlur in="SourceAlpha" stdDeviation="4"/><feOffset dy="4"/>'
        '<feBlend in="SourceGraphic"/>',
        '<g {}><path d="M20 20h60v60h-60z"/></g>',
        filterUnits="userSpaceOnUse",
        x=12,
        y=16,
        width=76,
        height=76,
    )
    path.write_text(svg(shadow, (100, 100)))
    assert inspect(path, "icon.svg").format == "svg"

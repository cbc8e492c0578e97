"""What is seen of a picture until its file is there: a PNG in the style sheet (read by libvips, PNG
third edition)."""

import base64

import numpy as np
import pytest
import pyvips
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from skypane.files.blurred import MOST_BYTES, blurred_url, part_of
from skypane.geometry import WHOLE, Rect
from skypane.model import Original
from skypane.model.tiny import MOST_TINY_PX, Tiny


def px_of(url):
    """What the address holds, as (rows, columns, 3)."""
    data = base64.b64decode(url.removeprefix("data:image/png;base64,"))
    image = pyvips.Image.new_from_buffer(data, "")
    assert image.interpretation == "srgb" and image.bands == 3
    return image.numpy()


def original(width_px, height_px, tiny, **values):
    values = {"name": "quay.jpg", "sha256": "q", **values}
    return Original(id=1, width_px=width_px, height_px=height_px, tiny=tiny, **values)


def ramp(w, h):
    """Red grows to the right, green downwards."""
    x, y = np.meshgrid(np.linspace(0, 255, w), np.linspace(0, 255, h))
    px = np.stack([x, y, np.zeros_like(x)], axis=-1).round().astype(np.uint8)
    return Tiny.of(w, px.tobytes())


@given(
    noise=st.binary(min_size=3 * MOST_TINY_PX, max_size=3 * MOST_TINY_PX),
    wide=st.sampled_from([1, 2, 12, 16, 96, 192]),
    size=st.sampled_from([(5200, 2900), (4032, 3024), (3024, 4032), (30_000, 40), (40, 30_000)]),
    left=st.floats(0, 0.9),
    top=st.floats(0, 0.9),
)
def test_of_whatever_picture_and_crop_it_takes_600_bytes_at_most(noise, wide, size, left, top):
    made = original(*size, Tiny.of(wide, noise))
    rect = Rect.between(left, min(1, left + 0.1), top, 1)
    url = blurred_url(made, rect)
    assert len(url) <= MOST_BYTES == 600
    rows, columns, _ = px_of(url).shape
    ratio = rect.w * size[0] / (rect.h * size[1])
    # no wider than the crop by more than the px that it has allow
    if rows > 3 and columns > 3:
        assert columns / rows == pytest.approx(ratio, rel=0.25)


def test_it_shows_the_crop():
    made = original(1600, 1200, ramp(16, 12))
    whole = px_of(blurred_url(made, WHOLE))
    assert whole[0, 0, 0] < 30 and whole[-1, -1, 0] > 225 and whole[-1, 0, 1] > 225
    corner = px_of(blurred_url(made, Rect(x=0.75, y=0.5, w=0.25, h=0.5)))
    # a quarter of the width on the right is red from 3/4 on, and the lower half green from 1/2 on
    assert corner[..., 0].min() > 0.7 * 255 and 0.45 * 255 < corner[..., 1].min() < 0.6 * 255


def test_a_part_of_a_crop_is_a_part_of_the_original():
    crop, cut = Rect(x=0.5, y=0, w=0.5, h=1), Rect(x=0.5, y=0.25, w=0.5, h=0.5)
    assert part_of(crop, cut) == Rect(x=0.75, y=0.25, w=0.25, h=0.5)


def test_what_can_be_seen_through_has_none_nor_a_drawing():
    tiny = ramp(16, 12)
    assert blurred_url(original(1600, 1200, tiny, alpha=True), WHOLE) is None
    assert blurred_url(original(1600, 1200, tiny, medium="drawing"), WHOLE) is None
    assert blurred_url(original(1600, 1200, None), WHOLE) is None


@pytest.mark.parametrize(
    ("width_px", "px"), [(16, "AAAA"), (1, "no base64"), (2, "AAAA"), (1, "é==="), (200, "AAAA")]
)
def test_px_that_fill_no_rows_are_refused(width_px, px):
    with pytest.raises(ValidationError):
        Tiny(width_px=width_px, px=px)

"""A picture in a few px: upright, in sRGB, and as light as it is."""

import numpy as np
import pytest
import pyvips
from skypane.errors import UnreadablePicture
from skypane.model.tiny import MOST_TINY_PX
from skypane.pixels.inspect import inspect
from skypane.pixels.tiny import tiny_of


def px_of(tiny):
    return np.frombuffer(tiny.rgb, np.uint8).reshape(tiny.height_px, tiny.width_px, 3)


def half_and_half(width, height):
    """Red on the left, blue on the right."""
    left = pyvips.Image.black(width // 2, height, bands=3) + [200, 20, 20]
    right = pyvips.Image.black(width - width // 2, height, bands=3) + [20, 20, 200]
    return left.join(right, "horizontal").cast("uchar").copy(interpretation="srgb")


@pytest.mark.parametrize("size", [(5200, 2900), (3024, 4032), (40, 30), (9000, 12), (12, 9000)])
def test_it_has_few_px_and_the_ratio(tmp_path, size):
    path = tmp_path / "a.png"
    half_and_half(*size).write_to_file(str(path))
    tiny = tiny_of(path)
    assert tiny.width_px * tiny.height_px <= MOST_TINY_PX
    px = px_of(tiny)
    if tiny.width_px > 3:
        assert np.abs(px[:, 0] - [200, 20, 20]).max() <= 2
        assert np.abs(px[:, -1] - [20, 20, 200]).max() <= 2
    assert np.abs(px.reshape(-1, 3).mean(axis=0) - [110, 20, 110]).max() <= 6


def test_it_stands_upright(tmp_path):
    """Orientation 6: the camera was turned; its left edge is the top (Exif 2.32, tag 274)."""
    path = tmp_path / "a.jpg"
    image = half_and_half(400, 300).copy()
    image.set_type(pyvips.GValue.gint_type, "orientation", 6)
    image.write_to_file(str(path), Q=95)
    px = px_of(tiny_of(path))
    assert px.shape[0] > px.shape[1]
    assert px[0, :, 0].min() > 150 and px[-1, :, 2].min() > 150


def test_grey_and_cmyk_come_as_rgb(tmp_path):
    grey = tmp_path / "grey.jpg"
    (pyvips.Image.black(300, 200) + 128).cast("uchar").write_to_file(str(grey))
    assert np.abs(px_of(tiny_of(grey)).astype(int) - 128).max() <= 2
    cmyk = tmp_path / "cmyk.tif"
    (pyvips.Image.black(300, 200, bands=4) + [0, 0, 0, 255]).cast("uchar").copy(
        interpretation="cmyk"
    ).write_to_file(str(cmyk))
    assert px_of(tiny_of(cmyk)).max() < 80  # black ink


def test_it_comes_with_what_is_known_of_a_picture(tmp_path):
    path = tmp_path / "a.jpg"
    half_and_half(400, 300).write_to_file(str(path))
    assert inspect(path).tiny == tiny_of(path).model_dump()
    clear = tmp_path / "clear.png"
    half_and_half(40, 30).bandjoin(128).write_to_file(str(clear))
    assert inspect(clear).tiny is None


def test_what_is_no_picture_is_refused(tmp_path):
    path = tmp_path / "a.jpg"
    path.write_bytes(b"\xff\xd8\xff\xe0 nothing")
    with pytest.raises(UnreadablePicture):
        tiny_of(path)

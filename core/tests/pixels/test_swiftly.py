"""Files for somebody who waits for them, made in one encode from a JPEG that is decoded smaller."""

from pathlib import Path

import numpy as np
import pytest
import pyvips
from PIL import Image
from skimage import data
from skypane.geometry import Crop
from skypane.model import Rendition
from skypane.pixels.cut import cut, open_upright
from skypane.pixels.encode import Cutting, make, make_swiftly, seen_luma
from skypane.pixels.guarded import Guard
from skypane.pixels.search import linear

#: Open photographs that scikit-image carries (licences in its `data/README.txt`).
PHOTOS = {"astronaut": data.astronaut(), "coffee": data.coffee(), "cat": data.chelsea()}


def wanted(format_, crop, width, likeness=0.97, **more):
    return Rendition(
        original=1,
        crop=crop,
        width_px=width,
        height_px=round(width * crop.h / crop.w),
        format=format_,
        density=None,
        likeness=likeness,
        spans=("A",),
        name="x",
        needed_px=width,
        key=f"k{format_}",
        **more,
    )


def enlarged(folder: Path, name: str) -> tuple[Path, Crop]:
    """A photograph with as many px as cameras give, as a JPEG."""
    path = folder / f"{name}.jpg"
    Image.fromarray(PHOTOS[name]).resize((3600, 2400)).save(path, quality=92)
    return path, Crop(x=0, y=0, w=3600, h=2400)


@pytest.mark.parametrize("likeness", [0.95, 0.97])
@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
@pytest.mark.parametrize("name", PHOTOS)
def test_what_is_foretold_is_about_what_is_reached(tmp_path, name, format_, likeness):
    """Against the resample of the whole original; pictures so smooth or so fine that the encoder's
    scale ends are as good as it has them."""
    source, whole = enlarged(tmp_path, name)
    r = wanted(format_, whole, 480, likeness)
    path, fact = make_swiftly(source, r, tmp_path)
    pixels = cut(open_upright(source), whole, (r.width_px, r.height_px))
    reached = Cutting(pixels).likeness.to(seen_luma(path.read_bytes()))
    assert fact.encodes == 1 and fact.size_bytes == path.stat().st_size
    assert linear(reached) > linear(likeness) - 0.25
    searched = next(iter(make(source, [r], tmp_path)))[2]
    assert abs(linear(reached) - linear(searched.ssim)) < 0.3


@pytest.mark.parametrize("x", [0, 1, 3, 1003, 1595])
def test_the_cut_is_true_to_a_quarter_of_a_px(tmp_path, x):
    """A bright bar lies where the resample of the whole original has it, whatever the crop's edge
    is beside the blocks that are decoded smaller."""
    px = np.zeros((2003, 3601, 3), np.uint8)
    px[:, 1700:1780] = 255
    source = tmp_path / "bar.jpg"
    Image.fromarray(px).save(source, quality=95)
    r = wanted("jpeg", Crop(x=x, y=7, w=2001, h=1500), 200)
    path, _ = make_swiftly(source, r, tmp_path)
    got = np.asarray(Image.open(path).convert("L"), float)
    exact = cut(open_upright(source), r.crop, (r.width_px, r.height_px)).numpy()[..., 1]

    def middle(picture):
        row = picture[picture.shape[0] // 2].astype(float)
        row[row < 40] = 0
        return (row * np.arange(len(row))).sum() / row.sum()

    assert got.shape == exact.shape
    assert abs(middle(got) - middle(exact)) < 0.25


@pytest.mark.parametrize("orientation", [1, 3, 6, 8])
def test_cuts_are_of_the_upright_picture(tmp_path, orientation):
    exif = Image.Exif()
    exif[0x0112] = orientation
    source = tmp_path / "turned.jpg"
    Image.fromarray(PHOTOS["coffee"]).resize((2400, 1600)).save(source, quality=92, exif=exif)
    whole = open_upright(source)
    r = wanted("jpeg", Crop(x=401, y=203, w=whole.width - 700, h=whole.height - 700), 160, 0.97)
    path, _ = make_swiftly(source, r, tmp_path)
    exact = cut(whole, r.crop, (r.width_px, r.height_px))
    assert np.abs(np.asarray(Image.open(path), float) - exact.numpy()).mean() < 6


def test_what_is_no_jpeg_or_hardly_larger_is_decoded_whole(tmp_path):
    px = np.random.default_rng(5).integers(0, 255, (600, 900, 3), dtype=np.uint8)
    for suffix, width in (("png", 100), ("webp", 100), ("jpg", 600)):
        source = tmp_path / f"noise.{suffix}"
        Image.fromarray(px).save(source)
        r = wanted("webp", Crop(x=0, y=0, w=900, h=600), width)
        path, _ = make_swiftly(source, r, tmp_path)
        assert Image.open(path).size == (width, round(width * 2 / 3))


def test_transparency_and_frames_are_kept(tmp_path):
    clear = tmp_path / "clear.png"
    Image.new("RGBA", (800, 600), (200, 40, 40, 90)).save(clear)
    whole = Crop(x=0, y=0, w=800, h=600)
    path, fact = make_swiftly(clear, wanted("webp", whole, 80), tmp_path)
    assert Image.open(path).convert("RGBA").getpixel((40, 30))[3] == pytest.approx(90, abs=2)
    path, fact = make_swiftly(clear, wanted("png", whole, 80), tmp_path)
    assert fact.ssim == 1 and Image.open(path).mode in ("RGBA", "P")
    moving = tmp_path / "moving.gif"
    frames = [Image.new("RGB", (800, 600), (n * 60, 90, 20)) for n in range(3)]
    frames[0].save(moving, save_all=True, append_images=frames[1:], duration=100)
    path, _ = make_swiftly(moving, wanted("webp", whole, 80, animated=True), tmp_path)
    assert pyvips.Image.new_from_file(str(path), n=-1).get("n-pages") == 3


def test_it_is_made_in_a_child_as_everything_is(tmp_path):
    source, whole = enlarged(tmp_path, "cat")
    guard = Guard()
    path, fact = guard.make_swiftly(source, wanted("webp", whole, 300), tmp_path, "cat.jpg")
    guard.close()
    assert path.stat().st_size == fact.size_bytes and Image.open(path).size == (300, 200)

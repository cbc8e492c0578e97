"""Every kind of picture that is taken, read by us and by another reader: Pillow and littleCMS,
heif-convert, rsvg-convert."""

import io
import subprocess
from pathlib import Path

import numpy as np
import pillow_heif
import pytest
import pyvips
from PIL import Image, ImageCms, ImageOps
from skimage import data
from skypane.errors import InvalidPlan, UnreadablePicture
from skypane.pixels.cut import open_upright
from skypane.pixels.inspect import inspect
from skypane.pixels.load import DRAWN_PX, format_of
from skypane.pixels.previews import preview
from skypane.pixels.saliency import saliency_map, suggest
from skypane.pixels.trim import visible_box, write_trimmed
from test_pixels import ramp, save

SVG = """<?xml version="1.0"?>
<!-- drawn for this test -->
<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100" viewBox="0 0 200 100">
  <rect x="50" y="25" width="100" height="50" fill="#c02020"/>
</svg>
"""


def difference(got: np.ndarray, expected: np.ndarray) -> int:
    assert got.shape == expected.shape
    return int(np.abs(got.astype(int) - expected.astype(int)).max())


def heic(path: Path, image=None, **kw) -> Path:
    pillow_heif.from_pillow(image or ramp()).save(path, quality=100, **kw)
    return path


@pytest.mark.parametrize("suffix", ["tif", "gif"])
def test_tiff_and_gif_read_as_pillow_reads_them(tmp_path, suffix):
    path = save(tmp_path / f"a.{suffix}", ramp().quantize(64) if suffix == "gif" else None)
    found = inspect(path)
    assert (found.width_px, found.height_px, found.notes) == (400, 300, ())
    assert (
        difference(open_upright(path).numpy()[..., :3], np.asarray(Image.open(path).convert("RGB")))
        <= 1
    )


def test_a_heic_reads_as_heif_convert_reads_it(tmp_path):
    path = heic(tmp_path / "a.heic")
    found = inspect(path)
    assert (found.format, found.width_px, found.height_px) == ("heic", 400, 300)
    subprocess.run(
        ["heif-convert", str(path), str(tmp_path / "b.png")], check=True, capture_output=True
    )
    other = np.asarray(Image.open(tmp_path / "b.png").convert("RGB"))
    assert difference(open_upright(path).numpy(), other) <= 3  # two ways from YCbCr to RGB
    preview(path, tmp_path / "p.webp", 100)
    assert Image.open(tmp_path / "p.webp").size == (100, 75)


def test_a_turned_heic_stands_upright(tmp_path):
    """The turn is told by EXIF when Pillow writes it; libheif turns by itself, and it must not be
    turned twice."""
    exif = Image.Exif()
    exif[0x0112] = 6
    path = heic(tmp_path / "a.heic", exif=exif.tobytes())
    assert pillow_heif.open_heif(path).size == (300, 400)
    assert (inspect(path).width_px, inspect(path).height_px) == (300, 400)


def test_a_heic_that_ends_early_is_refused(tmp_path):
    path = heic(tmp_path / "a.heic")
    path.write_bytes(path.read_bytes()[:-2000])
    with pytest.raises(UnreadablePicture, match="damaged"):
        inspect(path)


def test_an_svg_is_drawn_large_and_as_another_renderer_draws_it(tmp_path):
    path = tmp_path / "mark.svg"
    path.write_text(SVG)
    found = inspect(path)
    assert (found.format, found.width_px, found.height_px, found.alpha) == (
        "svg",
        DRAWN_PX,
        DRAWN_PX // 2,
        True,
    )
    assert "drawn at 4096 × 2048 px" in found.notes[0]
    subprocess.run(
        ["rsvg-convert", "-w", str(DRAWN_PX), str(path), "-o", str(tmp_path / "b.png")], check=True
    )
    other = np.asarray(Image.open(tmp_path / "b.png").convert("RGBA"))
    assert difference(open_upright(path).numpy(), other) <= 1


def test_an_svg_cannot_reach_for_another_file(tmp_path):
    save(tmp_path / "secret.png")
    path = tmp_path / "mark.svg"
    path.write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" xmlns:x="http://www.w3.org/1999/xlink" width="40"'
        ' height="30"><image x:href="secret.png" width="40" height="30"/></svg>'
    )
    assert open_upright(path).numpy()[..., 3].max() == 0


@pytest.mark.parametrize(
    "text", ["<html><svg></svg></html>", "a letter about <svg", "<?xml version='1.0'?><rss/>"]
)
def test_text_that_only_mentions_svg_is_no_svg(text):
    assert format_of(text.encode()) is None


def test_several_frames_or_pages_are_noted_and_the_first_is_used(tmp_path):
    frames = [ramp(), Image.new("RGB", (400, 300), "red")]
    for name in ("a.gif", "a.webp", "a.tif"):
        path = tmp_path / name
        frames[0].save(path, save_all=True, append_images=frames[1:])
        assert "has 2 " in inspect(path).notes[0] and inspect(path).height_px == 300
        first = np.asarray(frames[0]).astype(int)
        # 256 colours in a GIF
        assert np.abs(open_upright(path).numpy()[..., :3].astype(int) - first).mean() < 12


def cmyk_profile() -> bytes:
    """A CMYK press profile that libvips carries."""
    return bytes(pyvips.Operation.call("profile_load", "cmyk"))


@pytest.mark.parametrize("suffix", ["jpg", "tif"])
def test_cmyk_becomes_srgb_as_littlecms_converts_it(tmp_path, suffix):
    profile = cmyk_profile()
    press = ImageCms.ImageCmsProfile(io.BytesIO(profile))
    to_press = ImageCms.buildTransform(ImageCms.createProfile("sRGB"), press, "RGB", "CMYK")
    inks = ImageCms.applyTransform(ramp(), to_press)
    path = save(
        tmp_path / f"c.{suffix}",
        inks,
        icc_profile=profile,
        **({"quality": 98, "subsampling": 0} if suffix == "jpg" else {}),
    )
    assert "CMYK" in inspect(path).notes[0]
    back = ImageCms.buildTransform(
        press,
        ImageCms.createProfile("sRGB"),
        "CMYK",
        "RGB",
        renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC,
        flags=ImageCms.Flags.BLACKPOINTCOMPENSATION,
    )
    expected = np.asarray(ImageCms.applyTransform(Image.open(path), back)).astype(int)
    got = open_upright(path).numpy().astype(int)
    assert np.abs(got - expected).mean() < 1.5 and np.percentile(np.abs(got - expected), 99) <= 4


def test_a_wide_gamut_profile_is_converted_as_littlecms_converts_it(tmp_path):
    profile = bytes(pyvips.Operation.call("profile_load", "p3"))
    path = save(tmp_path / "p3.png", icc_profile=profile)
    transform = ImageCms.buildTransform(
        ImageCms.ImageCmsProfile(io.BytesIO(profile)),
        ImageCms.createProfile("sRGB"),
        "RGB",
        "RGB",
        renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC,
        flags=ImageCms.Flags.BLACKPOINTCOMPENSATION,
    )
    expected = np.asarray(ImageCms.applyTransform(Image.open(path), transform)).astype(int)
    got = open_upright(path).numpy().astype(int)
    assert (
        np.abs(got - expected).mean() < 1
        and np.abs(expected - np.asarray(ramp()).astype(int)).max() > 20
    )


@pytest.mark.parametrize("alpha", [False, True])
def test_sixteen_bits_become_eight_with_their_alpha(tmp_path, alpha):
    y, x = np.mgrid[0:60, 0:80]
    bands = [x * 800, y * 1000, 30000 + 0 * x] + ([x * 800] if alpha else [])
    wide = np.stack(bands, axis=-1).astype(np.uint16)
    path = tmp_path / "w.png"
    pyvips.Image.new_from_array(wide).copy(interpretation="rgb16").pngsave(str(path))
    assert "16 bits" in inspect(path).notes[0] and inspect(path).alpha is alpha
    assert difference(open_upright(path).numpy(), wide >> 8) <= 1


@pytest.mark.parametrize("orientation", range(1, 9))
def test_a_tiff_is_turned_as_pillow_turns_it(tmp_path, orientation):
    exif = Image.Exif()
    exif[0x0112] = orientation
    path = save(tmp_path / "o.tif", exif=exif)
    expected = np.asarray(ImageOps.exif_transpose(Image.open(path)))
    assert difference(open_upright(path).numpy(), expected) == 0


def test_transparent_edges_are_trimmed_to_an_even_size(tmp_path):
    image = Image.new("RGBA", (100, 80), (0, 0, 0, 0))
    image.paste((200, 30, 30, 255), (11, 21, 42, 50))  # 31 × 29 px
    path = save(tmp_path / "mark.png", image)
    box = visible_box(path)
    assert (box.x, box.y, box.w, box.h) == (11, 21, 32, 30)
    write_trimmed(path, box, tmp_path / "t.png")
    trimmed = np.asarray(Image.open(tmp_path / "t.png"))
    assert difference(trimmed, np.asarray(image)[21:51, 11:43]) == 0
    assert image.getbbox() == (11, 21, 42, 50)  # Pillow finds the same box


def test_a_full_odd_side_is_made_even_by_a_transparent_px(tmp_path):
    image = Image.new("RGBA", (31, 40), (0, 0, 0, 0))
    image.paste((200, 30, 30, 255), (0, 10, 31, 20))
    path = save(tmp_path / "mark.png", image)
    write_trimmed(path, visible_box(path), tmp_path / "t.png")
    assert Image.open(tmp_path / "t.png").size == (32, 10)


@pytest.mark.parametrize(
    ("image", "said"),
    [
        (Image.new("RGB", (20, 20)), "no transparency"),
        (Image.new("RGBA", (20, 20), (0, 0, 0, 0)), "wholly|whole picture is transparent"),
        (Image.new("RGBA", (20, 20), (9, 9, 9, 255)), "no transparent edges"),
    ],
)
def test_what_cannot_be_trimmed_is_said(tmp_path, image, said):
    with pytest.raises(InvalidPlan, match=said):
        visible_box(save(tmp_path / "m.png", image))


def test_the_suggestion_finds_the_eyes_of_a_cat(tmp_path):
    """scikit-image's Chelsea (CC0): the left eye is about (0.37, 0.43), the right about (0.70,
    0.50), read by eye."""
    path = save(tmp_path / "cat.png", Image.fromarray(data.chelsea()))
    found = suggest(path)
    assert abs(found.focal[0] - 0.37) < 0.08 and abs(found.focal[1] - 0.43) < 0.08
    centres = [(a.x + a.w / 2, a.y + a.h / 2) for a in found.areas]
    assert any(abs(x - 0.70) < 0.08 and abs(y - 0.50) < 0.08 for x, y in centres)


def test_a_thing_that_stands_out_is_found_wherever_it_is(tmp_path):
    rng = np.random.default_rng(3)
    for at in ((0.2, 0.3), (0.7, 0.25), (0.5, 0.8)):
        pixels = (120 + 6 * rng.standard_normal((300, 400, 3))).clip(0, 255)
        x, y = int(at[0] * 400), int(at[1] * 300)
        pixels[y - 15 : y + 15, x - 15 : x + 15] = (240, 90, 40)
        found = suggest(save(tmp_path / "a.png", Image.fromarray(pixels.astype("uint8"))))
        assert abs(found.focal[0] - at[0]) < 0.06 and abs(found.focal[1] - at[1]) < 0.06


def test_nothing_is_suggested_where_nothing_stands_out(tmp_path):
    found = suggest(save(tmp_path / "a.png", Image.new("RGB", (200, 100), (90, 120, 140))))
    assert found.focal == (0.5, 0.5) and found.areas == ()
    assert saliency_map(np.random.default_rng(1).normal(size=(64, 64))).mean() == pytest.approx(1)

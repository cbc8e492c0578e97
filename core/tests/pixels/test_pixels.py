"""Pixel work, read back by other readers than the writer: Pillow, dwebp, avifdec, littleCMS
(through Pillow)."""

import io
import subprocess
from pathlib import Path

import numpy as np
import pytest
from PIL import Image, ImageCms
from skypane.errors import UnreadablePicture
from skypane.geometry import Crop
from skypane.model import Rendition
from skypane.pixels.cut import cut, open_upright
from skypane.pixels.encode import make
from skypane.pixels.inspect import icc_description, inspect
from skypane.pixels.load import open_any
from skypane.pixels.previews import preview


def ramp(width=400, height=300, mode="RGB"):
    x, y = np.meshgrid(np.linspace(0, 255, width), np.linspace(0, 255, height))
    return Image.fromarray(np.stack([x, y, 128 + 0 * x], axis=-1).astype("uint8")).convert(mode)


def save(path: Path, image=None, **kw) -> Path:
    (image or ramp()).save(path, **kw)
    return path


def rendition(format_, crop=None, size=(200, 150), likeness=0.97):
    return Rendition(
        original=1,
        crop=crop or Crop(x=0, y=0, w=400, h=300),
        width_px=size[0],
        height_px=size[1],
        format=format_,
        density=1,
        likeness=likeness,
        spans=("A",),
        name="x",
        needed_px=size[0],
        key=f"k{format_}",
    )


@pytest.mark.parametrize(
    ("suffix", "kind"), [("jpg", "jpeg"), ("png", "png"), ("webp", "webp"), ("avif", "avif")]
)
def test_the_four_kinds_are_known_by_their_bytes(tmp_path, suffix, kind):
    found = inspect(save(tmp_path / f"a.{suffix}"))
    assert (found.format, found.width_px, found.height_px, found.alpha, found.notes) == (
        kind,
        400,
        300,
        False,
        (),
    )


def test_a_name_that_says_another_kind_is_noted(tmp_path):
    path = save(tmp_path / "really.png")
    assert inspect(path, "called.jpg").notes == ("called.jpg is a PNG inside, and is kept as one.",)


@pytest.mark.parametrize("orientation", range(1, 9))
def test_all_eight_orientations_are_applied_as_pillow_applies_them(tmp_path, orientation):
    image = ramp(400, 300)
    exif = Image.Exif()
    exif[0x0112] = orientation
    path = save(tmp_path / "o.jpg", image, exif=exif, quality=95)
    from PIL import ImageOps

    expected = np.asarray(ImageOps.exif_transpose(Image.open(path))).astype(int)
    got = open_upright(path).numpy().astype(int)
    found = inspect(path)
    assert (found.width_px, found.height_px) == (expected.shape[1], expected.shape[0])
    assert got.shape == expected.shape and np.abs(got - expected).max() <= 4  # two JPEG decoders


def test_an_embedded_profile_is_converted_to_srgb(tmp_path):
    """Against littleCMS: a profile with swapped behaviour is not to be had without files, so
    LAB-built sRGB variants serve."""
    linear = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB"))
    path = save(tmp_path / "p.png", icc_profile=linear.tobytes())
    assert "sRGB" in inspect(path).profile
    got = open_upright(path).numpy().astype(int)
    assert np.abs(got - np.asarray(ramp()).astype(int)).max() <= 1


def test_grey_and_16_bit_become_8_bit_srgb(tmp_path):
    grey = save(tmp_path / "g.png", ramp(mode="L"))
    assert open_upright(grey).bands == 3
    deep = np.linspace(0, 65535, 400 * 300).reshape(300, 400).astype("uint16")
    Image.fromarray(deep).save(tmp_path / "d.png")
    assert open_upright(tmp_path / "d.png").format == "uchar"


@pytest.mark.parametrize(
    ("name", "content", "said"),
    [
        ("empty.jpg", b"", "empty"),
        ("notes.jpg", b"just some words\nin a file", "is text, not a picture"),
        ("a.gif", b"GIF89a\x01\x00\x01\x00\x00\x00\x00;", "damaged"),
        ("a.tif", b"II*\x00\x08\x00\x00\x00", "damaged and cannot be opened"),
        ("a.svg", b"<svg xmlns='http://www.w3.org/2000/svg'/>", "damaged and cannot be opened"),
        ("a.bmp", b"BM" + b"\0" * 60, "is a BMP"),
        ("a.mp4", b"\0\0\0\x18ftypisom\0\0\0\0isommp42", "is a video"),
        ("a.jpg", b"\xff\xd8\xff\xe0garbage", "damaged"),
        ("a.png", b"\x89PNG\r\n\x1a\n" + b"\0" * 50, "damaged"),
        ("a.jpg", bytes(range(128, 256)), "no picture that can be recognised"),
    ],
)
def test_what_is_no_picture_is_refused_with_a_sentence(tmp_path, name, content, said):
    path = tmp_path / "upload"
    path.write_bytes(content)
    with pytest.raises(UnreadablePicture, match=said) as refused:
        inspect(path, name)
    assert str(refused.value).startswith(name) and str(refused.value).endswith(".")


@pytest.mark.parametrize("suffix", ["jpg", "png", "webp", "avif"])
@pytest.mark.parametrize("share", [0.5, 0.9])
def test_truncated_files_are_refused(tmp_path, suffix, share):
    noise = Image.fromarray(np.random.default_rng(1).integers(0, 255, (300, 400, 3), dtype="uint8"))
    whole = save(tmp_path / f"whole.{suffix}", noise).read_bytes()
    path = tmp_path / f"part.{suffix}"
    path.write_bytes(whole[: int(len(whole) * share)])
    with pytest.raises(UnreadablePicture):
        inspect(path)


def noise(tmp_path, suffix, **kw):
    picture = np.random.default_rng(1).integers(0, 255, (300, 400, 3), dtype="uint8")
    return save(tmp_path / f"whole.{suffix}", Image.fromarray(picture), **kw).read_bytes()


@pytest.mark.parametrize("progressive", [False, True])
def test_a_jpeg_whose_end_mark_alone_is_missing_is_taken(tmp_path, progressive):
    """As some cards and transfers leave it (common practice). It has the px of the whole file, and
    can be cut."""
    whole = noise(tmp_path, "jpg", progressive=progressive)
    path = tmp_path / "p.jpg"
    path.write_bytes(whole[:-2])
    assert inspect(path).notes == ("The end of its file is missing; the whole picture is there.",)
    assert np.array_equal(open_any(path).numpy(), open_any(tmp_path / "whole.jpg").numpy())
    path.write_bytes(whole[:-40])
    with pytest.raises(UnreadablePicture, match="only part of the picture"):
        inspect(path)


def test_what_follows_a_jpeg_is_no_damage(tmp_path):
    """Cameras append previews and clips to it (CIPA DC-007; common practice)."""
    path = tmp_path / "p.jpg"
    path.write_bytes(noise(tmp_path, "jpg") + b"ftypmp42" * 500)
    assert inspect(path).notes == ()


@pytest.mark.parametrize("suffix", ["jpg", "png"])
def test_damage_that_leaves_a_picture_is_told(tmp_path, suffix):
    """Bytes in the middle that are not what they were; a sum that does not fit its part."""
    data = bytearray(noise(tmp_path, suffix))
    if suffix == "jpg":
        data[len(data) // 2 : len(data) // 2 + 4] = b"\x13\x77\x11\xff"
    else:
        data[-16] ^= 255
    path = tmp_path / f"p.{suffix}"
    path.write_bytes(data)
    (note,) = inspect(path).notes
    assert note.startswith("Its file is damaged inside.")


def test_a_bomb_is_refused_before_it_is_unpacked(tmp_path):
    import struct
    import zlib

    def chunk(kind, data):
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    header = chunk(b"IHDR", struct.pack(">IIBBBBB", 60000, 60000, 8, 2, 0, 0, 0))
    path = tmp_path / "bomb.png"
    path.write_bytes(
        b"\x89PNG\r\n\x1a\n"
        + header
        + chunk(b"IDAT", zlib.compress(b"\0" * 1000))
        + chunk(b"IEND", b"")
    )
    with pytest.raises(UnreadablePicture, match="60000 × 60000 px, more than"):
        inspect(path)


def test_crop_and_scale_are_what_pillow_makes_of_them(tmp_path):
    source = save(tmp_path / "a.png", ramp(400, 300))
    got = cut(open_upright(source), Crop(x=100, y=50, w=200, h=100), (100, 50)).numpy().astype(int)
    expected = np.asarray(
        ramp(400, 300).crop((100, 50, 300, 150)).resize((100, 50), Image.Resampling.LANCZOS)
    ).astype(int)
    assert got.shape == expected.shape
    assert np.abs(got - expected)[2:-2, 2:-2].max() <= 1 and np.abs(got - expected).max() <= 4


def decoded(path: Path, format_: str, tmp_path: Path) -> Image.Image:
    """Read by a program that had no hand in writing it."""
    if format_ == "webp":
        out = tmp_path / "out.png"
        subprocess.run(["dwebp", "-quiet", str(path), "-o", str(out)], check=True)
        return Image.open(out)
    if format_ == "avif":
        out = tmp_path / "out.png"
        subprocess.run(["avifdec", str(path), str(out)], check=True, capture_output=True)
        return Image.open(out)
    return Image.open(path)


@pytest.mark.parametrize("format_", ["avif", "webp", "jpeg", "png"])
def test_written_files_are_read_by_other_readers(tmp_path, format_):
    source = save(tmp_path / "a.png")
    (found,) = make(source, [rendition(format_)], tmp_path)
    _, path, fact = found
    image = decoded(path, format_, tmp_path).convert("RGB")
    assert image.size == (200, 150) and fact.size_bytes == path.stat().st_size
    expected = np.asarray(ramp().resize((200, 150), Image.Resampling.LANCZOS)).astype(int)
    assert np.abs(np.asarray(image).astype(int) - expected).mean() < 3


@pytest.mark.parametrize("format_", ["avif", "webp", "png"])
def test_transparency_survives(tmp_path, format_):
    image = ramp().convert("RGBA")
    image.putalpha(Image.fromarray(np.tile(np.linspace(0, 255, 400).astype("uint8"), (300, 1))))
    source = save(tmp_path / "a.png", image)
    assert inspect(source).alpha
    ((_, path, _),) = make(source, [rendition(format_)], tmp_path)
    alpha = np.asarray(decoded(path, format_, tmp_path).convert("RGBA"))[:, :, 3]
    assert alpha[:, 0].mean() < 8 and alpha[:, -1].mean() > 247


def test_camera_and_place_are_removed_and_files_are_tagged_72(tmp_path):
    exif = Image.Exif()
    exif[0x010F] = "Some camera"
    exif.get_ifd(0x8825)[1] = "N"
    source = save(tmp_path / "a.jpg", exif=exif)
    ((_, path, _),) = make(source, [rendition("jpeg")], tmp_path)
    assert not Image.open(path).getexif() and b"Some camera" not in path.read_bytes()
    assert Image.open(path).info["dpi"] == (72, 72)


def test_one_decode_and_one_resample_serve_all_formats(tmp_path, monkeypatch):
    import skypane.pixels.encode as encode

    calls = []
    real = encode.cut
    monkeypatch.setattr(encode, "cut", lambda *a: calls.append(a) or real(*a))
    wanted = [rendition(f) for f in ("avif", "webp", "jpeg")] + [
        rendition(f, size=(100, 75)) for f in ("png",)
    ]
    assert len(list(make(save(tmp_path / "a.png"), wanted, tmp_path))) == 4
    assert len(calls) == 2


@pytest.mark.slow
@pytest.mark.parametrize("size", [(1440, 24000), (900, 16383), (900, 16384)])
def test_a_screenshot_of_a_whole_page_has_a_preview(tmp_path, size):
    """A side of a WebP has 14 bits (RFC 6386, §9.1): what would be higher is drawn narrower."""
    source, small = tmp_path / "page.png", tmp_path / "small.webp"
    Image.new("RGB", size, (200, 60, 40)).save(source)
    preview(source, small, 1280)
    width, height = Image.open(small).size
    assert width <= min(1280, size[0]) and height <= 16383
    assert width / height == pytest.approx(size[0] / size[1], rel=0.01)


def test_previews_are_never_enlarged(tmp_path):
    source = save(tmp_path / "a.png")
    preview(source, tmp_path / "p.webp", 1600)
    assert Image.open(tmp_path / "p.webp").size == (400, 300)
    preview(source, tmp_path / "q.webp", 100)
    assert Image.open(tmp_path / "q.webp").size == (100, 75)


def test_profile_names_are_read_as_littlecms_reads_them():
    data = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    known = ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(data))).strip()
    assert icc_description(data) == known
    assert icc_description(b"short") == ""

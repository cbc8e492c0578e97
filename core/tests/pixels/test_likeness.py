"""Likeness, the search for a quality, and what is kept of formats (rules §10)."""

import io
import math
import subprocess

import numpy as np
import pytest
import pyvips
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image
from planned import by_density, delivered
from pydantic import ValidationError
from skimage import data
from skimage.metrics import structural_similarity
from skypane.errors import sentence_of
from skypane.geometry import Crop
from skypane.handover import FileFacts, finish
from skypane.model import Original, Rendition, Site, Treatment, picture
from skypane.pixels import avif, encode
from skypane.pixels.likeness import Likeness, luma
from skypane.pixels.sample import Sample
from skypane.pixels.search import NEAR, SMOOTH, Begin, coarsest, linear

pytestmark = pytest.mark.slow


def vips(array):
    return pyvips.Image.new_from_array(np.ascontiguousarray(array)).copy(interpretation="srgb")


#: Open photographs that scikit-image carries (licences in its `data/README.txt`).
PHOTOS = {"astronaut": data.astronaut(), "coffee": data.coffee(), "cat": data.chelsea()}


@pytest.mark.parametrize("name", PHOTOS)
@pytest.mark.parametrize("quality", [30, 60, 90])
def test_similarity_is_that_of_scikit_image(name, quality):
    photo = vips(PHOTOS[name])
    worse = pyvips.Image.jpegload_buffer(photo.jpegsave_buffer(Q=quality)).copy_memory()
    known = structural_similarity(
        luma(photo),
        luma(worse),
        gaussian_weights=True,
        sigma=1.5,
        use_sample_covariance=False,
        data_range=255,
    )
    assert Likeness(photo, stride=(1, 1)).to(worse) == pytest.approx(known, abs=1e-4)
    # a grid of windows tells the same of a picture that is large enough for one
    assert Likeness(photo, stride=(9, 3)).to(worse) == pytest.approx(known, abs=2e-3)


@pytest.mark.parametrize("size", [(1, 1), (10, 3), (11, 11), (12, 300)])
def test_the_smallest_pictures_can_be_compared(size):
    w, h = size
    noise = vips(np.random.default_rng(1).integers(0, 255, (h, w, 3), dtype=np.uint8))
    assert Likeness(noise).to(noise) == pytest.approx(1, abs=1e-4)
    assert Likeness(noise).to(noise.invert()) < 0.9


# -- the search --

CODECS = {"jpeg": encode.JPEG, "webp": encode.WEBP, "svt": encode.SVT, "aom": encode.AOM}


@given(
    st.sampled_from(list(CODECS)),
    st.floats(0.5, 4.5),
    st.floats(0.5, 2),
    st.floats(0.8, 0.99),
    st.none() | st.integers(0, 43),
)
def test_a_quality_that_reaches_the_target_and_little_more_is_found(
    codec, base, steep, target, begin
):
    scale = CODECS[codec]

    def above(place):
        """How much `linear` lies above the target."""
        at = scale.qualities.index(scale.begin)
        fine = (scale.fine_at(place) - scale.fine_at(at)) * scale.slope * steep
        return base + fine - linear(target)

    def made(quality):
        found = above(scale.qualities.index(quality))
        return quality, 1 - math.exp(-(found + linear(target)))

    found = coarsest(scale, target, made, None if begin is None else Begin(begin))
    assert found.encodes <= 7
    place = scale.qualities.index(found.quality)
    faithful = scale.qualities.index(scale.faithful)
    assert place >= faithful or linear(target) < SMOOTH
    if place == faithful and max(above(0) + linear(target), linear(target)) >= SMOOTH:
        return  # the likeness says little of so smooth a picture
    if above(place) < -1e-9:
        assert place == len(scale.qualities) - 1
    elif above(place) > NEAR * max(2, found.encodes) and place:
        assert above(place - 1) < 1e-9


@pytest.mark.parametrize("codec", CODECS)
@pytest.mark.parametrize("at", [0.1, 0.4, 0.7, 0.95])
@pytest.mark.parametrize("begin", [None, 0, 30, -1, "taken for smooth"])
def test_grain_that_is_kept_from_some_quality_on_is_found(codec, at, begin):
    """Below it nothing helps; above it every step helps much, as with grain and noise."""
    scale = CODECS[codec]
    last = len(scale.qualities) - 1
    faithful = scale.qualities.index(scale.faithful)

    def above(place):
        return max(-0.4, 0.3 * (place - at * last))

    def made(quality):
        found = above(scale.qualities.index(quality))
        return quality, 1 - math.exp(-(found + linear(0.955)))

    smooth = begin == "taken for smooth"
    if begin is not None:
        begin = Begin(faithful, True) if smooth else Begin(begin % (last + 1))
    found = coarsest(scale, 0.955, made, begin)
    place = scale.qualities.index(found.quality)
    assert found.encodes <= 10 and above(place) >= -1e-9
    if smooth and above(faithful) >= 0:
        assert (place, found.encodes) == (faithful, 1)
    else:
        assert above(place) < NEAR * max(2, found.encodes) or above(place - 1) < 1e-9


def test_few_encodes_find_it():
    """Of the sizes that pictures are handed over in; without a sample it takes one more."""
    encodes = {True: [], False: []}
    for px in PHOTOS.values():
        for width in (150, 300, 640, 1280):
            photo = vips(px).resize(width / px.shape[1]).copy_memory()
            cutting = encode.Cutting(photo)
            for format_ in ("jpeg", "webp", "avif"):
                found = cutting.encode(format_, 0.955, "quick")
                encodes[cutting.sample is not None].append(found.encodes)
    assert np.mean(encodes[True]) <= 1.35 and np.mean(encodes[False]) <= 2.2, encodes


@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
def test_a_sample_tells_how_like_the_whole_is(format_):
    """Photographs side by side, as large as what is sampled, with details of many sizes."""
    whole = vips(np.tile(PHOTOS["coffee"], (3, 3, 1)))
    cutting = encode.Cutting(whole)
    codec = cutting.codec(format_, "thorough")
    sample = Sample(whole)
    assert sample.picture.width * sample.picture.height < whole.width * whole.height / 5
    for quality in codec.scale.qualities[::12]:
        ssim = cutting.likeness.to(codec.read(codec.make(whole, quality)))
        small = sample.to(codec.read(codec.make(sample.picture, quality)))
        assert linear(small) == pytest.approx(linear(ssim), abs=0.06), quality


@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
@pytest.mark.parametrize("size", [(16300, 40), (9000, 70), (60, 9000)])
def test_pictures_of_any_shape_are_searched(format_, size):
    w, h = size
    y, x = np.mgrid[0:h, 0:w]
    wave = np.stack([x % 256, (x + y) % 256, 128 + 100 * np.sin(x / 9)], -1).astype(np.uint8)
    found = encode.Cutting(vips(wave)).encode(format_, 0.95, "quick")
    back = pyvips.Image.new_from_buffer(found.data, "")
    assert (back.width, back.height) == size and found.ssim >= 0.95


@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
@pytest.mark.parametrize("bands", [1, 3])
@pytest.mark.parametrize("rows", [(0, 501), (7, 19), (100, 101), (490, 501)])
def test_what_is_compared_is_what_is_seen(format_, bands, rows):
    """Of a photograph that is black in places, where one level more is much to SSIM."""
    photo = vips(PHOTOS["astronaut"][:501, :333])
    photo = photo.colourspace("b-w") if bands == 1 else photo
    cutting = encode.Cutting(photo)
    codec = cutting.codec(format_, "quick")
    data_ = codec.make(codec.image, codec.scale.begin)
    seen = pyvips.Image.new_from_buffer(data_, "").colourspace("srgb").copy_memory()
    coded = codec.read(data_)
    assert coded.shape == (501, 333)
    assert np.abs(coded.between(*rows) - luma(seen)[slice(*rows)]).mean() < 0.3
    assert cutting.likeness.to(coded) == pytest.approx(cutting.likeness.to(seen), abs=5e-4)


@pytest.mark.parametrize("effort", ["quick", "thorough"])
@pytest.mark.parametrize("sharp", [False, True])
@pytest.mark.parametrize("quality", [55, 75, 95])
def test_the_jpeg_that_is_handed_over_is_the_one_that_was_tried(effort, sharp, quality):
    """The same px in fewer bytes: how the coefficients are coded loses nothing (ITU-T T.81, F and
    G)."""
    photo = vips(PHOTOS["coffee"])
    tried = encode.jpeg(photo, quality, sharp=sharp)
    handed = encode.progressive(photo, quality, effort, sharp=sharp)
    one, other = (pyvips.Image.jpegload_buffer(d).numpy() for d in (tried, handed))
    assert np.array_equal(one, other)
    assert len(handed) < len(tried)


def test_a_file_is_the_same_whatever_was_made_before_it(tmp_path):
    """Some files of a run that broke off are made with others or alone."""
    path = tmp_path / "coffee.png"
    vips(PHOTOS["coffee"]).resize(3).pngsave(str(path))
    original = Original(id=1, name="c.png", width_px=1800, height_px=1200, sha256="c", alt="")
    wanted = list(delivered(Site(), ONE, {1: original}).files)
    hashes = []
    for some in (wanted, wanted[::-1], wanted[1::2]):
        out = tmp_path / str(len(hashes))
        out.mkdir()
        made = {r.key: path.read_bytes() for r, path, _ in encode.make(path, some, out)}
        hashes.append(made)
    assert len(hashes[0]) > 5
    for found in hashes[1:]:
        assert all(hashes[0][key] == content for key, content in found.items())


@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
@pytest.mark.parametrize("target", [0.95, 0.955, 0.97])
def test_every_file_reaches_its_target_and_hardly_more(format_, target):
    cutting = encode.Cutting(vips(PHOTOS["astronaut"]))
    found = cutting.encode(format_, target, "quick")
    image = pyvips.Image.new_from_buffer(found.data, "")
    assert Likeness(vips(PHOTOS["astronaut"])).to(image) == pytest.approx(found.ssim, abs=1e-3)
    assert target <= found.ssim < target + 0.012


@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
@pytest.mark.parametrize("name", [*PHOTOS, "dusk", "grain"])
def test_more_likeness_is_never_a_lighter_file(format_, name):
    """Of photographs, of what is nearly flat, and of grain."""
    y, x = np.mgrid[0:400, 0:600]
    dusk = np.stack([60 + y / 4, 90 + x / 8, 140 - y / 8], -1)
    grain = dusk + np.random.default_rng(2).normal(0, 5, (400, 600, 1))
    px = {**PHOTOS, "dusk": dusk, "grain": grain.clip(0, 255)}[name].astype(np.uint8)
    cutting = encode.Cutting(vips(px))
    made = [cutting.encode(format_, target, "quick") for target in (0.9, 0.935, 0.955, 0.97, 0.985)]
    qualities = [m.quality for m in made]
    assert qualities == sorted(qualities)


def test_the_same_picture_is_the_same_file():
    one, other = (encode.Cutting(vips(PHOTOS["cat"])) for _ in range(2))
    for f in ("jpeg", "webp", "avif", "png"):
        a, b = (c.encode(f, 0.955, "thorough").data for c in (one, other))
        assert a == b, f


# -- formats --


@pytest.mark.parametrize("name", PHOTOS)
def test_newer_formats_are_smaller_at_equal_likeness_of_photographs(name):
    # common practice: AVIF < WebP < JPEG on photographs
    cutting = encode.Cutting(vips(PHOTOS[name]))
    sizes = [len(cutting.encode(f, 0.955, "thorough").data) for f in ("avif", "webp", "jpeg")]
    assert sizes == sorted(sizes)


FLAT = {"horse": data.horse().astype(np.uint8) * 255, "checkerboard": data.checkerboard()}


@pytest.mark.parametrize("name", FLAT)
def test_png_wins_on_flat_art_as_a_palette_that_loses_nothing(name):
    art = np.dstack([FLAT[name]] * 3)
    cutting = encode.Cutting(vips(art))
    found = {f: cutting.encode(f, 0.97, "thorough") for f in ("png", "jpeg", "webp", "avif")}
    assert len(found["png"].data) < min(len(found[f].data) for f in ("jpeg", "webp", "avif"))
    image = Image.open(io.BytesIO(found["png"].data))
    assert image.mode == "P" and np.array_equal(np.asarray(image.convert("RGB")), art)


def test_a_photograph_is_no_palette():
    found = encode.png(vips(PHOTOS["cat"]), "quick")
    assert np.array_equal(pyvips.Image.pngload_buffer(found).numpy(), PHOTOS["cat"])


def test_alpha_that_hides_nothing_does_not_count():
    art = np.dstack([PHOTOS["cat"], np.full(PHOTOS["cat"].shape[:2], 255, np.uint8)])
    assert not encode.Cutting(vips(art)).alpha


@pytest.mark.parametrize("size", [(256, 192), (255, 191), (64, 64), (63, 200), (1, 1)])
def test_avif_of_any_size_is_read_right_by_avifdec(tmp_path, size):
    """Colours within what 4:2:0 at this quality costs, and no shift of the mean."""
    w, h = size
    y, x = np.mgrid[0:h, 0:w]
    ramp = np.stack([x * 255 // max(1, w), y * 255 // max(1, h), 0 * x + 128], -1).astype(np.uint8)
    found = encode.Cutting(vips(ramp)).encode("avif", 0.9999, "thorough")
    path, out = tmp_path / "a.avif", tmp_path / "a.png"
    path.write_bytes(found.data)
    subprocess.run(["avifdec", str(path), str(out)], check=True, capture_output=True)
    back = np.asarray(Image.open(out).convert("RGB")).astype(float)
    assert back.shape == ramp.shape
    shift = np.abs(back.mean((0, 1)) - ramp.mean((0, 1))).max()
    assert shift < (1.0 if min(size) >= avif.LEAST_PX else 5.0)
    assert np.abs(back - ramp).mean() < 3


def test_the_conversion_to_yuv_rounds_to_the_nearest():
    """ITU-R BT.709-6, item 3.2 to 3.4, full range; back by its inverse within rounding."""
    rng = np.random.default_rng(4)
    flat = np.repeat(np.repeat(rng.integers(0, 256, (20, 20, 3), np.uint8), 2, 0), 2, 1)
    y, cb, cr = (p.astype(float) for p in avif.yuv420(vips(flat)))
    cb, cr = (np.repeat(np.repeat(p - 128, 2, 0), 2, 1) for p in (cb, cr))
    r, b = y + 1.5748 * cr, y + 1.8556 * cb
    g = (y - 0.2126 * r - 0.0722 * b) / 0.7152
    back = np.stack([r, g, b], -1)
    assert np.abs(back - flat).max() <= 1.6
    assert np.abs((back - flat).mean((0, 1))).max() < 0.1


# -- what is handed over --

BOATS = Original(id=1, name="b.jpg", width_px=4000, height_px=2000, sha256="b", alt="")
ONE = picture("Boats", {"D": Treatment(original=1)})


def facts(found, sizes):
    return {
        f.key: FileFacts(sizes[f.format] * f.width_px, "0" * 64, 60, 0.956) for f in found.files
    }


def test_a_newer_format_that_is_no_smaller_is_left_out_of_files_and_markup():
    found = delivered(by_density(), ONE, {1: BOATS})
    assert "image/avif" in found.texts["snippet.html"]
    out = finish(found, facts(found, {"avif": 9, "webp": 5, "jpeg": 7}))
    assert {name.rpartition(".")[2] for name in out.files} == {"webp", "jpg"}
    assert "avif" not in out.texts["snippet.html"] and "webp" in out.texts["page.html"]
    assert {(g.format, g.instead) for g in out.left_out} == {("avif", "webp")}
    assert (
        '"left_out": [' in out.texts["manifest.json"]
        and "avif is left out" in out.left_out[0].sentence
    )


@pytest.mark.parametrize(
    ("sizes", "kept"),
    [
        ({"avif": 3, "webp": 5, "jpeg": 7}, {"avif", "webp", "jpg"}),
        ({"avif": 6, "webp": 8, "jpeg": 7}, {"avif", "jpg"}),
        ({"avif": 7, "webp": 7, "jpeg": 7}, {"jpg"}),
        ({"avif": 3, "webp": 3, "jpeg": 7}, {"webp", "jpg"}),
    ],
)
def test_formats_are_kept_only_where_they_save_bytes(sizes, kept):
    found = delivered(Site(), ONE, {1: BOATS})
    names = finish(found, facts(found, sizes)).files
    assert {n.rpartition(".")[2] for n in names} == kept


def test_flat_art_and_transparency_take_png_in_the_place_of_jpeg():
    for values in ({"alpha": True}, {"flat": True}):
        found = delivered(Site(), ONE, {1: BOATS.model_copy(update=values)})
        assert {f.format for f in found.files} == {"avif", "webp", "png"}


def test_a_placement_chooses_formats_of_its_own():
    p = ONE.model_copy(update={"formats": ("jpeg",)})
    assert {f.format for f in delivered(Site(), p, {1: BOATS}).files} == {"jpeg"}


@pytest.mark.parametrize(
    ("said", "told"), [(1.2, "at most 0.9999"), (0.2, "at least 0.5"), ("best", "number")]
)
def test_a_likeness_that_cannot_be_is_refused(said, told):
    with pytest.raises(ValidationError) as error:
        Site(likeness=said)
    assert told in sentence_of(error.value)
    assert Site(likeness="fine").likeness == 0.97


def test_keys_name_all_that_makes_a_file():
    base = {
        "original": 1,
        "crop": Crop(x=0, y=0, w=9, h=9),
        "width_px": 9,
        "height_px": 9,
        "format": "webp",
        "density": 1.0,
        "likeness": 0.9,
        "spans": ("A",),
        "name": "x",
        "needed_px": 9,
        "key": "k",
    }
    assert Rendition(**base).effort == "thorough"
    one, other = (delivered(Site(likeness=x), ONE, {1: BOATS}) for x in ("fine", "light"))
    assert not {f.key for f in one.files} & {f.key for f in other.files}


def test_sharp_colours_are_kept_where_they_show():
    """Saturated edges and flat art, by measure; photographs have none."""
    for name, px in PHOTOS.items():
        assert not encode.Cutting(vips(px)).sharp, name
    art = np.full((200, 300, 3), 250, np.uint8)
    for k in range(20):
        art[9 * k : 9 * k + 4, 41:201] = (220, 30, 30)
    cutting = encode.Cutting(vips(art))
    assert cutting.sharp and not encode.Cutting(vips(art[:, :, :1].repeat(3, 2))).sharp
    found = cutting.encode("jpeg", 0.97, "thorough")
    back = pyvips.Image.jpegload_buffer(found.data).numpy().astype(int)
    plain = pyvips.Image.jpegload_buffer(encode.jpeg(vips(art), found.quality))
    assert np.abs(back - art).mean() < np.abs(plain.numpy().astype(int) - art).mean()

"""What is no plain photograph: drawings in SVG, flat art, and pictures that move."""

import io
from xml.etree import ElementTree

import numpy as np
import pytest
from PIL import Image
from planned import delivered
from skypane.geometry import Rect
from skypane.model import FullWidth, Original, RatioHeight, Site, Treatment, picture
from skypane.pixels.encode import make
from skypane.pixels.inspect import inspect
from skypane.pixels.load import open_any
from skypane.pixels.svg import cleaned
from skypane.reading import read

ART = """<?xml version="1.0"?>
<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"
  xmlns:ed="urn:editor" viewBox="0 0 200 100" onload="alert(1)">
  <metadata>secret</metadata>
  <script>alert(2)</script>
  <style>@import url(http://a.example/x.css);</style>
  <ed:guide x="3"/>
  <defs><linearGradient id="g"><stop stop-color="#0b4f5c"/></linearGradient></defs>
  <rect width="100" height="100" fill="url(#g)" ed:locked="true" onclick="alert(3)"/>
  <rect x="100" width="100" height="100" fill="#e05a12"/>
  <image xlink:href="http://a.example/a.png" width="5" height="5"/>
  <foreignObject><p xmlns="http://www.w3.org/1999/xhtml">x</p></foreignObject>
  <use xlink:href="#g"/>
  <a xlink:href="#g"><animate attributeName="href" to=" java&#10;script:alert(4)"/></a>
</svg>"""


def drawing(**values):
    found = {"id": 1, "name": "a.svg", "width_px": 4096, "height_px": 2048, "sha256": "s"}
    return Original(**{**found, "alt": "", "medium": "drawing", **values})


def test_a_drawing_is_handed_over_without_what_runs_or_reaches_out():
    out = cleaned(ART.encode(), (0, 0, 1, 1), (200, 100)).decode()
    for gone in ("script", "alert", "http://a.example", "secret", "editor", "foreignObject"):
        assert gone not in out, gone
    for stays in ("url(#g)", "#e05a12", 'href="#g"', 'viewBox="0 0 200 100"', 'width="200"'):
        assert stays in out, stays


def test_the_cut_of_a_drawing_is_its_view_box():
    out = ElementTree.fromstring(cleaned(ART.encode(), (0.5, 0, 0.5, 1), (300, 300)))
    assert out.get("viewBox") == "100 0 100 100" and out.get("width") == "300"


@pytest.mark.parametrize(
    ("root", "box"),
    [
        ('width="40" height="20"', "10 5 20 10"),
        ('width="40px" height="20px"', "10 5 20 10"),
        ('viewBox="10,20,40,20" width="100%"', "20 25 20 10"),
        ('width="100%" height="100%"', None),
        ('viewBox="0 0 0 0"', None),
        ("", None),
    ],
)
def test_every_way_of_saying_how_large_a_drawing_is(root, box):
    svg = f'<svg xmlns="http://www.w3.org/2000/svg" {root}><rect/></svg>'
    out = cleaned(svg.encode(), (0.25, 0.25, 0.5, 0.5), (9, 9))
    found = None if out is None else ElementTree.fromstring(out).get("viewBox")
    assert found == box


def test_one_file_serves_all_spans_of_equal_crop_and_is_sharp_at_any_density():
    p = picture("Logo", {"D": Treatment(original=1, width=FullWidth())})
    found = delivered(Site(), p, {1: drawing()})
    assert [(f.name, f.format) for f in found.files] == [("logo.svg", "svg")]
    assert found.texts["snippet.html"].count("logo.svg") == 1
    assert "srcset" not in found.texts["snippet.html"]
    reading = read(Site(), p, {1: drawing(width_px=300, height_px=150)})
    assert not [f for f in reading.findings if f.rule == "soft"]
    sharp = [b for b in reading.parts[0].bands if b.kind == "sharp"]
    assert all(r.verdict == "sharp" for b in sharp for r in b.runs)


def test_a_drawing_cut_otherwise_in_another_span_is_another_file(tmp_path):
    source = tmp_path / "a.svg"
    source.write_text(ART)
    treatments = {
        "D": Treatment(original=1, height=RatioHeight(w=2, h=1)),
        "A": Treatment(height=RatioHeight(w=1, h=1)),
    }
    found = delivered(Site(), picture("Logo", treatments), {1: drawing()})
    assert [f.name for f in found.files] == ["logo--a.svg", "logo.svg"]
    for r, path, fact in make(source, found.files, tmp_path):
        image = open_any(path, "svg")
        assert image.width / image.height == pytest.approx(r.width_px / r.height_px, abs=0.01)
        assert fact.ssim == 1 and fact.quality == 0 and fact.size_bytes == path.stat().st_size


def test_a_drawing_without_a_size_of_its_own_says_what_to_do(tmp_path):
    source = tmp_path / "a.svg"
    source.write_text('<svg xmlns="http://www.w3.org/2000/svg"><rect width="9" height="9"/></svg>')
    p = picture("Logo", {"D": Treatment(original=1)})
    files = delivered(Site(), p, {1: drawing()}).files
    with pytest.raises(Exception, match="Save it with a viewBox"):
        list(make(source, files, tmp_path))


# -- flat art --


def test_few_colours_are_flat_and_a_photograph_is_not(tmp_path):
    flat = np.zeros((300, 400, 3), np.uint8)
    flat[50:200, 40:300] = (11, 79, 92)
    noise = np.random.default_rng(0).integers(0, 255, (300, 400, 3), np.uint8)
    pictures = (("f.png", flat, True), ("n.png", noise, False), ("f.jpg", flat, False))
    for name, px, is_flat in pictures:
        path = tmp_path / name
        Image.fromarray(px).save(path)
        assert inspect(path).flat == is_flat, name
    deep = tmp_path / "deep.png"
    Image.fromarray(flat[..., 0].astype(np.uint16) * 200).save(deep)
    assert not inspect(deep).flat


# -- pictures that move --


def moving(path, frames=3, size=(120, 80)):
    made = []
    for i in range(frames):
        px = np.full((size[1], size[0], 3), 240, np.uint8)
        px[20:60, 20 + 20 * i : 50 + 20 * i] = (11, 79, 92)
        made.append(Image.fromarray(px))
    made[0].save(path, save_all=True, append_images=made[1:], duration=[100, 250, 400], loop=0)
    return path


@pytest.mark.parametrize("suffix", ["gif", "webp"])
def test_what_moves_is_delivered_moving_cut_and_with_its_times(tmp_path, suffix):
    source = moving(tmp_path / f"m.{suffix}")
    facts = inspect(source)
    assert facts.frames == 3 and "animated WebP" in facts.notes[-1]
    o = Original(
        id=1, name="m", width_px=120, height_px=80, sha256="m", alt="", frames=3, flat=facts.flat
    )
    treatments = {"D": Treatment(original=1, crop=Rect(x=0.25, y=0, w=0.5, h=1))}
    found = delivered(Site(), picture("Waves", treatments), {1: o})
    assert {(f.format, f.animated) for f in found.files} >= {("webp", True)}
    assert "avif" not in {f.format for f in found.files}
    made = {r.format: (r, path) for r, path, _ in make(source, found.files, tmp_path)}
    r, path = made.pop("webp")
    image = Image.open(io.BytesIO(path.read_bytes()))
    assert image.n_frames == 3 and image.size == (r.width_px, r.height_px) == (60, 80)
    times, means = [], []
    for i in range(3):
        image.seek(i)
        image.load()
        times.append(image.info["duration"])
        means.append(np.asarray(image.convert("L")).mean(0).argmin())
    assert times == [100, 250, 400] and max(means[:2]) < means[2]
    for _, still in made.values():
        assert getattr(Image.open(still), "n_frames", 1) == 1

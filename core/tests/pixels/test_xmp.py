"""Focal point and areas in a picture's metadata, read back by ExifTool."""

import json
import subprocess

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image
from skypane.errors import InvalidPlan
from skypane.geometry import Rect
from skypane.model import Area
from skypane.pixels.load import open_any
from skypane.pixels.xmp import read_xmp, regions_of, with_xmp, xmp_packet

SIZE = (600, 400)
AREAS = (
    Area(name="Tower", rect=Rect(x=0.1, y=0.2, w=0.3, h=0.4)),
    Area(name="Boot 岬 <b>&", rect=Rect(x=0.5, y=0.55, w=0.25, h=0.4)),
    Area(name="Sky", rect=Rect(x=0, y=0, w=1, h=0.2), kind="quiet"),
)
KEEPS = AREAS[:2]


def same(found, focal=(0.3, 0.7), areas=KEEPS):
    assert found.focal == pytest.approx(focal, abs=1e-4)
    assert [a.name for a in found.areas] == [a.name for a in areas]
    for a, b in zip(found.areas, areas, strict=True):
        assert a.rect.edges == pytest.approx(b.rect.edges, abs=1e-4)


def exiftool(path):
    """What another reader finds: structures by their names."""
    asked = ["exiftool", "-json", "-struct", "-XMP:all", str(path)]
    (found,) = json.loads(subprocess.run(asked, capture_output=True, check=True).stdout)
    return found


def photo(path, **kw):
    y, x = np.mgrid[0 : SIZE[1], 0 : SIZE[0]]
    px = np.stack([x * 255 // SIZE[0], y * 255 // SIZE[1], 0 * x + 90], -1).astype(np.uint8)
    Image.fromarray(px).save(path, **kw)
    return path


@pytest.mark.parametrize("suffix", ["jpg", "png"])
def test_a_copy_carries_them_and_no_px_is_touched(tmp_path, suffix):
    path = photo(tmp_path / f"a.{suffix}")
    copy = tmp_path / f"b.{suffix}"
    copy.write_bytes(with_xmp(path.read_bytes(), xmp_packet(SIZE, (0.3, 0.7), AREAS)))
    same(regions_of(copy))
    assert np.array_equal(open_any(path).numpy(), open_any(copy).numpy())
    found = exiftool(copy)
    regions = found["ImageRegion"]
    assert [r["Name"] for r in regions] == ["Tower", "Boot 岬 <b>&", "Focal point"]
    boundary = regions[0]["RegionBoundary"]
    assert boundary["RbShape"].lower() == "rectangle" and boundary["RbUnit"].lower() == "relative"
    told = [float(boundary[f"Rb{f}"]) for f in "XYWH"]
    assert told == pytest.approx([0.1, 0.2, 0.3, 0.4])
    older = found["RegionInfo"]["RegionList"]
    assert older[0]["Area"]["X"] == pytest.approx(0.25)  # its middle
    assert older[-1]["Type"] == "Focus"
    assert found["RegionInfo"]["AppliedToDimensions"]["W"] == SIZE[0]


def test_a_sidecar_is_read_by_another_reader(tmp_path):
    path = tmp_path / "a.xmp"
    path.write_bytes(xmp_packet(SIZE, (0.3, 0.7), AREAS))
    assert len(exiftool(path)["ImageRegion"]) == 3


def test_written_twice_they_are_there_once_and_all_else_stays(tmp_path):
    path = photo(tmp_path / "a.jpg")
    subprocess.run(
        ["exiftool", "-q", "-overwrite_original", "-XMP-dc:Creator=Someone", str(path)], check=True
    )
    for focal in ((0.1, 0.1), (0.3, 0.7)):
        from skypane.pixels.xmp import stored_in

        packet = xmp_packet(SIZE, focal, AREAS, before=stored_in(path).packet)
        path.write_bytes(with_xmp(path.read_bytes(), packet))
    same(regions_of(path))
    found = exiftool(path)
    assert len(found["ImageRegion"]) == 3 and "Someone" in found["Creator"]


def test_regions_that_another_program_wrote_are_read(tmp_path):
    path = photo(tmp_path / "a.jpg")
    iptc = (
        "[{Name=Gull,RegionBoundary={RbShape=rectangle,RbUnit=pixel,RbX=60,RbY=40,RbW=120,RbH=80}},"
        "{Name=Sun,RegionBoundary={RbShape=circle,RbUnit=relative,RbX=0.5,RbY=0.5,RbRx=0.1}}]"
    )
    run = ["exiftool", "-q", "-overwrite_original", f"-XMP-iptcExt:ImageRegion={iptc}", str(path)]
    subprocess.run(run, check=True)
    gull, sun = regions_of(path).areas
    assert (gull.name, gull.rect.edges) == ("Gull", pytest.approx((0.1, 0.3, 0.1, 0.3)))
    # a circle's radius is a share of the width: 0.1 of 600 px is 0.15 of 400
    assert sun.rect.edges == pytest.approx((0.4, 0.6, 0.35, 0.65))


def test_the_older_regions_are_read(tmp_path):
    path = photo(tmp_path / "a.jpg")
    older = (
        "{AppliedToDimensions={W=600,H=400,Unit=pixel},RegionList=["
        "{Area={X=0.25,Y=0.4,W=0.3,H=0.4,Unit=normalized},Name=Ada,Type=Face},"
        "{Area={X=0.3,Y=0.7,W=0,H=0,Unit=normalized},Type=Focus}]}"
    )
    run = ["exiftool", "-q", "-overwrite_original", f"-XMP-mwg-rs:RegionInfo={older}", str(path)]
    subprocess.run(run, check=True)
    found = regions_of(path)
    assert found.focal == pytest.approx((0.3, 0.7))
    (ada,) = found.areas
    assert (ada.name, ada.rect.edges) == ("Ada", pytest.approx((0.1, 0.4, 0.2, 0.6)))


@pytest.mark.parametrize("orientation", range(1, 9))
def test_a_turned_picture_has_them_where_they_are_seen(tmp_path, orientation):
    exif = Image.Exif()
    exif[274] = orientation
    path = photo(tmp_path / "a.jpg", exif=exif)
    packet = xmp_packet(SIZE, (0.3, 0.7), AREAS, orientation=orientation)
    path.write_bytes(with_xmp(path.read_bytes(), packet))
    same(regions_of(path))
    if orientation == 6:  # turned to the right when it is shown: its top is the stored left side
        stored = read_xmp(packet, SIZE, 1)
        assert stored.focal == pytest.approx((0.7, 1 - 0.3), abs=1e-4)


@pytest.mark.parametrize(
    ("boundary", "note"),
    [
        ({"X": "1.2", "Y": "0.1", "W": "0.2", "H": "0.2"}, True),
        ({"X": "0.5", "Y": "0.5", "W": "0", "H": "0.2"}, True),
        ({"X": "nan", "Y": "0.1", "W": "0.2", "H": "0.2"}, False),
        ({"X": "wide", "Y": "0.1", "W": "0.2", "H": "0.2"}, False),
    ],
)
def test_regions_outside_of_the_picture_are_left_and_said(boundary, note):
    packet = xmp_packet(SIZE, (0.5, 0.5), AREAS[:1]).decode()
    for f, value in boundary.items():
        before = {"X": "0.1", "Y": "0.2", "W": "0.3", "H": "0.4"}[f]
        packet = packet.replace(f"rb{f}>{before}<", f"rb{f}>{value}<")
    packet = (
        packet[: packet.index("<mwg-rs:Regions")] + packet[packet.index("</mwg-rs:Regions>") + 17 :]
    )
    found = read_xmp(packet.encode(), SIZE)
    assert found.areas == () and bool(found.notes) == note


def test_a_region_that_reaches_beyond_is_cut():
    packet = xmp_packet(SIZE, (0.5, 0.5), AREAS[:1]).decode().replace("rbW>0.3<", "rbW>3<")
    assert read_xmp(packet.encode(), SIZE).areas[0].rect.x1 == 1


@pytest.mark.parametrize(
    "packet",
    [
        b"",
        b"hello",
        b"<x",
        b'<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>',
        b"<a>" * 5000,
        b"<a/>" + b" " * 3_000_000,
        "<a>岬</a>".encode("utf-16"),
    ],
)
def test_what_is_no_metadata_gives_nothing(packet):
    assert read_xmp(packet, SIZE) == (None, (), ())
    assert b"Tower" in xmp_packet(SIZE, (0.5, 0.5), AREAS, before=packet)


@given(st.binary(max_size=300))
def test_any_bytes_are_a_jpeg_or_refused(data):
    for head in (b"", b"\xff\xd8\xff", b"\x89PNG\r\n\x1a\n"):
        try:
            assert isinstance(with_xmp(head + data, b"<x/>"), bytes)
        except InvalidPlan as error:
            assert "sidecar" in str(error)


def test_names_that_xml_cannot_hold_are_cleaned():
    areas = (Area(name="a\0b\x1f", rect=Rect(x=0, y=0, w=1, h=1)),)
    assert read_xmp(xmp_packet(SIZE, (0.5, 0.5), areas), SIZE).areas[0].name == "ab"

"""Focal point and areas as a picture's metadata carries them (XMP, ISO 16684-1).

Image regions of the IPTC Photo Metadata Standard 2021.1 (`Iptc4xmpExt:ImageRegion`), and the older
regions of the Metadata Working Group's guidelines 2.0 (`mwg-rs:Regions`), whose areas are given by
their middle. Both speak of the picture as it is stored, before its orientation is applied (the
guidelines, §5.9; for the IPTC's from memory).
"""

from __future__ import annotations

import math
import struct
import zlib
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import NamedTuple
from xml.etree import ElementTree
from xml.etree.ElementTree import Element

from skypane.errors import InvalidPlan
from skypane.geometry import Rect
from skypane.model import Area
from skypane.pixels.load import open_any
from skypane.values import LEAST_SHARE

#: Names that the standards fix, letter for letter: namespaces of XMP (ISO 16684-1), of RDF, of the
#: IPTC's and the Metadata Working Group's regions; the heads of the packet in a JPEG and in a PNG
#: (XMP Specification Part 3, §1.1.3 and §1.1.5).
RDF = "http://www.w3.org/1999/02/22-rdf-syntax-ns#"
IPTC = "http://iptc.org/std/Iptc4xmpExt/2008-02-29/"
REGIONS = "http://www.metadataworkinggroup.com/schemas/regions/"
AREA = "http://ns.adobe.com/xmp/sType/Area#"
DIMENSIONS = "http://ns.adobe.com/xap/1.0/sType/Dimensions#"
META = "adobe:ns:meta/"
_JPEG_HEAD = b"http://ns.adobe.com/xap/1.0/\0"
_PNG_HEAD = b"XML:com.adobe.xmp\0"
_PREFIXES = {
    "rdf": RDF,
    "Iptc4xmpExt": IPTC,
    "mwg-rs": REGIONS,
    "stArea": AREA,
    "stDim": DIMENSIONS,
    "x": META,
}
FOCAL = "Focal point"
MOST_BYTES = 2_000_000
MOST_REGIONS = 40


class Regions(NamedTuple):
    """What is read, in fractions of the upright picture, and sentences about what could not be
    used."""

    focal: tuple[float, float] | None
    areas: tuple[Area, ...]
    notes: tuple[str, ...] = ()


NONE = Regions(None, ())


# -- reading ----------------------------------------------------------------------------------


def read_xmp(packet: bytes, size: tuple[int, int], orientation: int = 1) -> Regions:
    """The regions of a packet. `size` is that of the picture as it is stored, in px. What cannot be
    read gives nothing, and what lies outside of the picture a note."""
    root = _parsed(packet)
    if root is None:
        return NONE
    found = [*_iptc(root, size), *_older(root, size)]
    focal: tuple[float, float] | None = None
    areas: list[Area] = []
    notes: list[str] = []
    for name, is_point, box in found[: 4 * MOST_REGIONS]:
        x0, y0, x1, y1 = _upright(box, orientation)
        if is_point or name.lower() in (FOCAL.lower(), "focus"):
            x, y = (x0 + x1) / 2, (y0 + y1) / 2
            if focal is None and 0 <= x <= 1 and 0 <= y <= 1:
                focal = (round(x, 5), round(y, 5))
            continue
        rect = _inside(x0, y0, x1, y1)
        if rect is None:
            notes.append(f"The region {name[:60]} of its metadata lies outside of the picture.")
        elif all(a.rect != rect for a in areas) and len(areas) < MOST_REGIONS:
            areas.append(Area(name=_free(name, areas), rect=rect))
    return Regions(focal, tuple(areas), tuple(notes))


def _parsed(packet: bytes) -> Element | None:
    """The packet as XML; None for what is none, or would have the parser expand entities."""
    if len(packet) > MOST_BYTES or b"<!DOCTYPE" in packet or b"<!ENTITY" in packet:
        return None
    start, end = packet.find(b"<"), packet.rfind(b">")
    try:
        return ElementTree.fromstring(packet[start : end + 1])
    except (ElementTree.ParseError, ValueError, LookupError, RecursionError):
        return None


Found = tuple[str, bool, tuple[float, float, float, float]]


def _iptc(root: Element, size: tuple[int, int]) -> Iterator[Found]:
    for n, region in enumerate(_items(root, f"{{{IPTC}}}ImageRegion"), 1):
        boundary = _struct(region, f"{{{IPTC}}}RegionBoundary")
        if boundary is None:
            continue
        name = _text(region, f"{{{IPTC}}}Name") or _text(region, f"{{{IPTC}}}rId") or f"Region {n}"
        in_px = _text(boundary, f"{{{IPTC}}}rbUnit") == "pixel"
        w, h = size if in_px else (1, 1)
        at = [_number(boundary, f"{{{IPTC}}}rb{f}") for f in ("X", "Y", "W", "H", "Rx")]
        x, y, width, height, radius = at
        shape = _text(boundary, f"{{{IPTC}}}rbShape")
        if shape == "rectangle" and None not in (x, y, width, height):
            assert x is not None and y is not None and width is not None and height is not None
            yield name, False, (x / w, y / h, (x + width) / w, (y + height) / h)
        elif shape == "circle" and x is not None and y is not None and radius is not None:
            # the radius is a share of the width
            r, ry = radius / w, radius / h if in_px else radius * size[0] / size[1]
            yield name, radius == 0, (x / w - r, y / h - ry, x / w + r, y / h + ry)
        elif shape == "polygon":
            points = [
                (px / w, py / h)
                for vertex in _items(boundary, f"{{{IPTC}}}rbVertices")
                if (px := _number(vertex, f"{{{IPTC}}}rbX")) is not None
                and (py := _number(vertex, f"{{{IPTC}}}rbY")) is not None
            ]
            if points:
                xs, ys = zip(*points, strict=True)
                yield name, len(points) == 1, (min(xs), min(ys), max(xs), max(ys))


def _older(root: Element, size: tuple[int, int]) -> Iterator[Found]:
    for n, region in enumerate(_items(root, f"{{{REGIONS}}}RegionList"), 1):
        area = _struct(region, f"{{{REGIONS}}}Area")
        if area is None:
            continue
        kind = _text(region, f"{{{REGIONS}}}Type")
        name = _text(region, f"{{{REGIONS}}}Name") or kind or f"Region {n}"
        unit = _text(area, f"{{{AREA}}}unit")
        w, h = size if unit == "pixel" else (1, 1)
        x, y, width, height = (_number(area, f"{{{AREA}}}{f}") for f in ("x", "y", "w", "h"))
        if x is None or y is None:
            continue
        across, down = (width or 0) / w / 2, (height or 0) / h / 2
        is_point = kind == "Focus" or (not across and not down)
        yield name, is_point, (x / w - across, y / h - down, x / w + across, y / h + down)


def _items(root: Element, tag: str) -> Iterator[Element]:
    """Every item of an array property, wherever it is."""
    for holder in root.iter(tag):
        for array in holder:
            for item in array.iter(f"{{{RDF}}}li"):
                # a struct may stand in an rdf:Description inside
                inner = item.find(f"{{{RDF}}}Description")
                yield inner if inner is not None else item


def _struct(node: Element, tag: str) -> Element | None:
    """A struct property, written in any of RDF's ways."""
    found = node.find(tag)
    if found is None:
        return None
    inner = found.find(f"{{{RDF}}}Description")
    return inner if inner is not None else found


def _text(node: Element, tag: str) -> str:
    """A simple value: as attribute, as element, or the first language of several."""
    if tag in node.attrib:
        return node.attrib[tag].strip()
    found = node.find(tag)
    if found is None:
        return ""
    item = next(found.iter(f"{{{RDF}}}li"), None)
    return ((item.text if item is not None else found.text) or "").strip()


def _number(node: Element, tag: str) -> float | None:
    try:
        value = float(_text(node, tag))
    except ValueError:
        return None
    return value if math.isfinite(value) else None


Box = tuple[float, float, float, float]
#: Where a point of the stored picture is once it is upright, by Exif's orientation (Exif 2.32,
#: §4.6.4 A, tag 274).
_TURNS = {
    2: lambda x, y: (1 - x, y),
    3: lambda x, y: (1 - x, 1 - y),
    4: lambda x, y: (x, 1 - y),
    5: lambda x, y: (y, x),
    6: lambda x, y: (1 - y, x),
    7: lambda x, y: (1 - y, 1 - x),
    8: lambda x, y: (y, 1 - x),
}
_BACK = {6: 8, 8: 6}


def _upright(box: Box, orientation: int) -> Box:
    turn = _TURNS.get(orientation)
    if turn is None:
        return box
    (ax, ay), (bx, by) = turn(box[0], box[1]), turn(box[2], box[3])
    return min(ax, bx), min(ay, by), max(ax, bx), max(ay, by)


def _inside(x0: float, y0: float, x1: float, y1: float) -> Rect | None:
    """The part inside of the picture; None where there is none that could be marked."""
    x0, y0, x1, y1 = (round(min(1.0, max(0.0, v)), 5) for v in (x0, y0, x1, y1))
    if x1 - x0 < LEAST_SHARE or y1 - y0 < LEAST_SHARE:
        return None
    return Rect(x=x0, y=y0, w=round(x1 - x0, 5), h=round(y1 - y0, 5))


def _free(name: str, taken: Sequence[Area]) -> str:
    names, stem = {a.name for a in taken}, name[:70]
    candidate, n = stem, 2
    while candidate in names:
        candidate, n = f"{stem} {n}", n + 1
    return candidate


# -- writing ----------------------------------------------------------------------------------


def xmp_packet(
    size: tuple[int, int],
    focal: tuple[float, float],
    areas: Sequence[Area],
    *,
    orientation: int = 1,
    before: bytes = b"",
) -> bytes:
    """A packet with focal point and keep areas in both ways, in place of the regions that `before`
    holds; all else of it stays. `size` is that of the picture as it is stored."""
    for prefix, uri in _PREFIXES.items():
        ElementTree.register_namespace(prefix, uri)
    root = (_parsed(before) if before else None) or Element(f"{{{META}}}xmpmeta")
    rdf = root if root.tag == f"{{{RDF}}}RDF" else root.find(f"{{{RDF}}}RDF")
    if rdf is None:
        rdf = ElementTree.SubElement(root, f"{{{RDF}}}RDF")
    ours = {f"{{{IPTC}}}ImageRegion", f"{{{REGIONS}}}Regions"}
    for description in rdf:
        for child in [c for c in description if c.tag in ours]:
            description.remove(child)
    description = ElementTree.SubElement(rdf, f"{{{RDF}}}Description", {f"{{{RDF}}}about": ""})
    back = _BACK.get(orientation, orientation)
    point = _upright((*focal, *focal), back)[:2]
    keeps = [a for a in areas if a.kind == "keep"]
    boxes = [(a, _upright((a.rect.x, a.rect.y, a.rect.x1, a.rect.y1), back)) for a in keeps]
    _write_iptc(description, point, boxes)
    _write_older(description, size, point, boxes)
    text = ElementTree.tostring(root, encoding="unicode")
    head = "<?xpacket begin='\ufeff' id='W5M0MpCehiHzreSzNTczkc9d'?>\n"
    return f"{head}{text}\n<?xpacket end='w'?>\n".encode()


def _resource(node: Element, tag: str) -> Element:
    return ElementTree.SubElement(node, tag, {f"{{{RDF}}}parseType": "Resource"})


def _said(node: Element, tag: str, value: str | float) -> None:
    child = ElementTree.SubElement(node, tag)
    child.text = value if isinstance(value, str) else f"{value:.6g}"


def _write_iptc(node: Element, point: tuple[float, ...], boxes: list[tuple[Area, Box]]) -> None:
    bag = ElementTree.SubElement(
        ElementTree.SubElement(node, f"{{{IPTC}}}ImageRegion"), f"{{{RDF}}}Bag"
    )
    for area, (x0, y0, x1, y1) in boxes:
        region = _resource(bag, f"{{{RDF}}}li")
        boundary = _resource(region, f"{{{IPTC}}}RegionBoundary")
        _said(boundary, f"{{{IPTC}}}rbShape", "rectangle")
        _said(boundary, f"{{{IPTC}}}rbUnit", "relative")
        for name, value in (("X", x0), ("Y", y0), ("W", x1 - x0), ("H", y1 - y0)):
            _said(boundary, f"{{{IPTC}}}rb{name}", value)
        _named(region, area.name)
    region = _resource(bag, f"{{{RDF}}}li")
    boundary = _resource(region, f"{{{IPTC}}}RegionBoundary")
    _said(boundary, f"{{{IPTC}}}rbShape", "polygon")
    _said(boundary, f"{{{IPTC}}}rbUnit", "relative")
    vertices = ElementTree.SubElement(
        ElementTree.SubElement(boundary, f"{{{IPTC}}}rbVertices"), f"{{{RDF}}}Seq"
    )
    vertex = _resource(vertices, f"{{{RDF}}}li")
    _said(vertex, f"{{{IPTC}}}rbX", point[0])
    _said(vertex, f"{{{IPTC}}}rbY", point[1])
    _named(region, FOCAL)


def _named(region: Element, name: str) -> None:
    alternatives = ElementTree.SubElement(
        ElementTree.SubElement(region, f"{{{IPTC}}}Name"), f"{{{RDF}}}Alt"
    )
    lang = {"{http://www.w3.org/XML/1998/namespace}lang": "x-default"}
    ElementTree.SubElement(alternatives, f"{{{RDF}}}li", lang).text = _xml(name)


def _write_older(
    node: Element,
    size: tuple[int, int],
    point: tuple[float, ...],
    boxes: list[tuple[Area, Box]],
) -> None:
    regions = _resource(node, f"{{{REGIONS}}}Regions")
    applied = _resource(regions, f"{{{REGIONS}}}AppliedToDimensions")
    _said(applied, f"{{{DIMENSIONS}}}w", str(size[0]))
    _said(applied, f"{{{DIMENSIONS}}}h", str(size[1]))
    _said(applied, f"{{{DIMENSIONS}}}unit", "pixel")
    bag = ElementTree.SubElement(
        ElementTree.SubElement(regions, f"{{{REGIONS}}}RegionList"), f"{{{RDF}}}Bag"
    )
    told = [(a.name, "", box) for a, box in boxes]
    for name, kind, (x0, y0, x1, y1) in (*told, (FOCAL, "Focus", (*point, *point))):
        region = _resource(bag, f"{{{RDF}}}li")
        area = _resource(region, f"{{{REGIONS}}}Area")
        middle = (("x", (x0 + x1) / 2), ("y", (y0 + y1) / 2), ("w", x1 - x0), ("h", y1 - y0))
        for field, value in middle:
            _said(area, f"{{{AREA}}}{field}", value)
        _said(area, f"{{{AREA}}}unit", "normalized")
        _said(region, f"{{{REGIONS}}}Name", _xml(name))
        if kind:
            _said(region, f"{{{REGIONS}}}Type", kind)


def _xml(text: str) -> str:
    """Text without characters that XML 1.0 does not hold (§2.2)."""
    return "".join(c for c in text if c in "\t\n" or ord(c) >= 32) or "?"


# -- in files ---------------------------------------------------------------------------------


class Stored(NamedTuple):
    """What a file says of itself: its packet, its px as they are stored, its orientation."""

    packet: bytes
    size: tuple[int, int]
    orientation: int


def stored_in(path: str | Path) -> Stored:
    """The packet of a picture of any kind that is taken. Raises what opening it raises."""
    image = open_any(path)
    packet = bytes(image.get("xmp-data")) if image.get_typeof("xmp-data") else b""
    turned = int(image.get("orientation")) if image.get_typeof("orientation") else 1
    return Stored(packet, (image.width, image.height), turned)


def regions_of(path: str | Path) -> Regions:
    """The regions that a picture carries itself."""
    found = stored_in(path)
    return read_xmp(found.packet, found.size, found.orientation) if found.packet else NONE


def with_xmp(data: bytes, packet: bytes) -> bytes:
    """A JPEG or PNG with this packet in the place of its own; no px is touched. Raises InvalidPlan
    for other kinds."""
    if data.startswith(b"\xff\xd8\xff"):
        return _jpeg_with(data, packet)
    if data.startswith(b"\x89PNG\r\n\x1a\n"):
        return _png_with(data, packet)
    raise InvalidPlan(
        "A copy with its metadata can be had of JPEG and PNG. Take the sidecar file for this one."
    )


def _jpeg_with(data: bytes, packet: bytes) -> bytes:
    """XMP Specification Part 3, §1.1.3; a segment has at most 65,535 bytes (ITU-T T.81,
    B.1.1.4)."""
    segment = _JPEG_HEAD + packet
    if len(segment) + 2 > 0xFFFF:
        raise InvalidPlan("Its metadata is too long for a JPEG. Take the sidecar file.")
    out, i, put = bytearray(data[:2]), 2, False
    while i + 4 <= len(data) and data[i] == 0xFF:
        marker, length = data[i + 1], int.from_bytes(data[i + 2 : i + 4], "big")
        if marker == 0xDA or length < 2:
            break
        if not put and marker != 0xE0:  # JFIF stays first
            out += b"\xff\xe1" + struct.pack(">H", len(segment) + 2) + segment
            put = True
        if not (marker == 0xE1 and data[i + 4 :].startswith(_JPEG_HEAD)):
            out += data[i : i + 2 + length]
        i += 2 + length
    if not put:
        out += b"\xff\xe1" + struct.pack(">H", len(segment) + 2) + segment
    return bytes(out) + data[i:]


def _png_with(data: bytes, packet: bytes) -> bytes:
    """An iTXt chunk before the first IDAT (PNG, Third Edition, §11.3.3.4)."""
    body = _PNG_HEAD + b"\0\0\0\0" + packet
    chunk = (
        struct.pack(">I", len(body))
        + b"iTXt"
        + body
        + struct.pack(">I", zlib.crc32(b"iTXt" + body))
    )
    out, i, put = bytearray(data[:8]), 8, False
    while i + 12 <= len(data):
        length, kind = int.from_bytes(data[i : i + 4], "big"), data[i + 4 : i + 8]
        whole = data[i : i + 12 + length]
        if kind == b"IDAT" and not put:
            out += chunk
            put = True
        if not (kind == b"iTXt" and whole[8:].startswith(_PNG_HEAD)):
            out += whole
        i += 12 + length
    return bytes(out)

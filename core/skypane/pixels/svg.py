"""SVG as text that can be drawn: in UTF-8, without its document type (SVG 2 §3.1; XML 1.0 §2.8 and
§4.3.3).

A document type is harmless as long as nothing depends on it; what it declares is not read, so
entities of its own and references to the outside stay dead.
"""

from __future__ import annotations

import codecs
import re
from pathlib import Path
from xml.etree import ElementTree

from skypane.model.original import MOST_DRAWING_BYTES as MOST_BYTES
from skypane.pixels.svg_css import inside_declarations, inside_sheet, is_inside, reaches_out

Box = tuple[float, float, float, float]

_BOMS = (
    (codecs.BOM_UTF8, "utf-8"),
    (codecs.BOM_UTF16_LE, "utf-16-le"),
    (codecs.BOM_UTF16_BE, "utf-16-be"),
)
_DECLARED = re.compile(rb"""^<\?xml[^>]*?encoding\s*=\s*["']([A-Za-z0-9._-]+)["']""")
_REFERENCE = re.compile(r"&(?!(?:amp|lt|gt|quot|apos|#\d+|#x[0-9a-fA-F]+);)([A-Za-z_][\w.-]*);")


def decoded(data: bytes) -> str:
    """The text of XML by its byte order mark, its declaration, or as UTF-8; what cannot be read is
    replaced."""
    for bom, encoding in _BOMS:
        if data.startswith(bom):
            return data[len(bom) :].decode(encoding, "replace")
    for start, encoding in ((b"<\0", "utf-16-le"), (b"\0<", "utf-16-be")):
        if data.startswith(start):
            return data.decode(encoding, "replace")
    declared = _DECLARED.match(data[:200])
    try:
        return data.decode(declared[1].decode("ascii") if declared else "utf-8", "replace")
    except LookupError:
        return data.decode("utf-8", "replace")


def root_at(text: str) -> int | None:
    """Where the root element begins, after a declaration, comments and a document type; None where
    that is not reached."""
    i = 0
    while True:
        while i < len(text) and text[i].isspace():
            i += 1
        if text.startswith("<!--", i):
            i = _after(text, "-->", i)
        elif text.startswith("<?", i):
            i = _after(text, "?>", i)
        elif text[i : i + 9].upper() == "<!DOCTYPE":
            i = _after_doctype(text, i)
        else:
            return i if i < len(text) else None
        if i < 0:
            return None


def _after(text: str, end: str, i: int) -> int:
    found = text.find(end, i)
    return found + len(end) if found >= 0 else -1


def _after_doctype(text: str, i: int) -> int:
    """Behind `>` of a document type, whose internal subset may hold quotes, comments and
    brackets."""
    inside = 0
    while i < len(text):
        c = text[i]
        if text.startswith("<!--", i):
            i = _after(text, "-->", i)
            if i < 0:
                return -1
            continue
        if c in "\"'":
            i = text.find(c, i + 1)
            if i < 0:
                return -1
        elif c == "[":
            inside += 1
        elif c == "]":
            inside -= 1
        elif c == ">" and inside <= 0:
            return i + 1
        i += 1
    return -1


def is_svg(text: str) -> bool:
    at = root_at(text)
    return at is not None and text.startswith(("<svg", "<svg:svg"), at)


def drawable(data: bytes) -> bytes | None:
    """The root element in UTF-8 without what stands before it; None where it refers to entities of
    its own."""
    text = decoded(data)
    at = root_at(text)
    text = text[at or 0 :]
    return None if _REFERENCE.search(text) else text.encode("utf-8", "replace")


# -- handed over -----------------------------------------------------------------------------

_SVG, _XLINK = "http://www.w3.org/2000/svg", "http://www.w3.org/1999/xlink"
_XML = "http://www.w3.org/XML/1998/namespace"
#: Elements that run, or that draw nothing (SVG 2, §15 Scripting and §5.8 metadata).
_DROPPED = frozenset({"script", "foreignObject", "metadata"})
#: Numbers of `viewBox`, and lengths in user units or px.
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_LENGTH = re.compile(r"^\s*([-+]?(?:\d+\.?\d*|\.\d+))\s*(?:px)?\s*$")


def cleaned(
    data: bytes, crop: tuple[float, float, float, float], size: tuple[int, int]
) -> bytes | None:
    """An SVG to hand over: without scripts, handlers, references to the outside, metadata and what
    editors leave; `crop` is the part that shows, in fractions, `size` its width and height in CSS
    px. None where it is no XML that can be read."""
    text = drawable(data)
    if text is None:
        return None
    ElementTree.register_namespace("", _SVG)
    ElementTree.register_namespace("xlink", _XLINK)
    try:
        root = ElementTree.fromstring(text)
    except ElementTree.ParseError:
        return None
    _strip(root)
    box = view_box(root)
    if box is None:
        return None
    x, y, w, h = box
    cx, cy, cw, ch = crop
    numbers = (x + cx * w, y + cy * h, cw * w, ch * h)
    root.set("viewBox", " ".join(f"{n:.6g}" for n in numbers))
    root.set("width", str(size[0]))
    root.set("height", str(size[1]))
    out: bytes = ElementTree.tostring(root, encoding="utf-8")
    return out


def drawing_of(path: str | Path, size: tuple[int, int]) -> str:
    """A small SVG as it can stand in a page, as large as `size`; "" where it is too large for that,
    or cannot be read."""
    data = Path(path).read_bytes()
    # what editors leave may be many times what is drawn
    found = cleaned(data, (0, 0, 1, 1), size) if len(data) < 64 * MOST_BYTES else None
    return found.decode() if found is not None and len(found) <= MOST_BYTES else ""


def view_box(root: ElementTree.Element) -> Box | None:
    """What is drawn, in user units (SVG 2, §8.2): the viewBox, else the size."""
    numbers = [float(n) for n in _NUMBER.findall(root.get("viewBox", ""))]
    if len(numbers) == 4 and numbers[2] > 0 and numbers[3] > 0:
        return numbers[0], numbers[1], numbers[2], numbers[3]
    sides = [_LENGTH.match(root.get(name, "")) for name in ("width", "height")]
    if not all(sides):
        return None
    w, h = (float(m[1]) for m in sides if m)
    return (0.0, 0.0, w, h) if w > 0 and h > 0 else None


def _strip(node: ElementTree.Element) -> None:
    for name in list(node.attrib):
        if not _is_harmless(name, node.attrib[name]):
            del node.attrib[name]
        elif name == "style":
            node.set(name, inside_declarations(node.attrib[name]))
    for child in list(node):
        space, _, local = str(child.tag).rpartition("}")
        is_svg_ = isinstance(child.tag, str) and space.strip("{") in (_SVG, "")
        if not is_svg_ or local in _DROPPED or _changes_what_it_refers_to(child):
            node.remove(child)
            continue
        if local == "style":
            # what stands in it beside its text is no style
            for inner in list(child):
                child.remove(inner)
            child.text = inside_sheet(child.text or "")
        _strip(child)


def _is_harmless(name: str, value: str) -> bool:
    """Whether an attribute runs nothing and refers to nothing outside."""
    space, _, local = name.rpartition("}")
    if space and space.strip("{") not in (_XLINK, _XML):
        return False
    if local.lower().startswith("on") or (space.strip("{") == _XML and local == "base"):
        return False
    if local.lower() in ("href", "src"):
        return is_inside(value)
    runs = "javascript:" in "".join(value.split()).lower()
    return not runs and (local == "style" or not reaches_out(value))


#: Elements that give another element's attribute other values (SVG Animations 2).
_ANIMATES = frozenset({"set", "animate", "animateTransform", "animateMotion", "animateColor"})
_VALUES = ("to", "from", "by", "values")


def _changes_what_it_refers_to(node: ElementTree.Element) -> bool:
    """Whether an animation gives an address, a handler or a style, or a value with an address."""
    if str(node.tag).rpartition("}")[2] not in _ANIMATES:
        return False
    changed = node.get("attributeName", "").rpartition(":")[2].strip().lower()
    if changed in ("href", "src", "style", "class") or changed.startswith("on"):
        return True
    return any(reaches_out(node.get(name, "")) for name in _VALUES)

"""SVG as text that can be drawn: in UTF-8, without its document type (SVG 2 §3.1; XML 1.0 §2.8 and
§4.3.3).

A document type is harmless as long as nothing depends on it; what it declares is not read, so
entities of its own and references to the outside stay dead.
"""

from __future__ import annotations

import codecs
import re
from xml.etree import ElementTree

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
    box = _view_box(root)
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


def _view_box(root: ElementTree.Element) -> tuple[float, float, float, float] | None:
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
        space, _, local = name.rpartition("}")
        value = node.attrib[name].strip()
        foreign = space and space.strip("{") not in (_XLINK, "http://www.w3.org/XML/1998/namespace")
        outside = local == "href" and not value.startswith(("#", "data:image/"))
        loads = "url(" in value and "url(#" not in value.replace("'", "").replace('"', "")
        runs = "javascript:" in "".join(value.split()).lower()
        if local.lower().startswith("on") or foreign or outside or loads or runs:
            del node.attrib[name]
    for child in list(node):
        space, _, local = str(child.tag).rpartition("}")
        is_svg_ = space.strip("{") in (_SVG, "")
        text = child.text or ""
        imports = local == "style" and ("@import" in text or "url(http" in text.replace(" ", ""))
        if not isinstance(child.tag, str) or not is_svg_ or local in _DROPPED or imports:
            node.remove(child)
        else:
            _strip(child)

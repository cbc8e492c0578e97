"""SVG as text that can be drawn: in UTF-8, without its document type (SVG 2 §3.1; XML 1.0 §2.8 and
§4.3.3).

A document type is harmless as long as nothing depends on it; what it declares is not read, so
entities of its own and references to the outside stay dead.
"""

from __future__ import annotations

import codecs
import re

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

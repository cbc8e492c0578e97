"""A template that is read off addresses: what in them looks like the name of a file, a width, a
format is a variable."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from urllib.parse import parse_qsl, unquote, urlsplit

from pydantic import ValidationError

from skypane.errors import SkyPaneError, sentence_of
from skypane.model import Meaning, Service

#: What parameters are called that mean something (common practice): whole names, in small letters.
_CALLED: Mapping[str, Meaning] = {
    "w": "width",
    "width": "width",
    "wid": "width",
    "h": "height",
    "height": "height",
    "hei": "height",
    "q": "quality",
    "quality": "quality",
    "f": "format",
    "fm": "format",
    "fmt": "format",
    "format": "format",
    "name": "name",
    "file": "name",
    "src": "name",
    "path": "name",
    "expires": "expires",
    "exp": "expires",
    "key": "key",
    "sig": "signature",
    "signature": "signature",
}
_FILE = re.compile(r"[^/]+\.(?:jpe?g|png|webp|avif|svg|gif|tiff?|heic)", re.I)


class NoTemplate(SkyPaneError):
    """An address of which no template can be read."""


def proposed(addresses: Iterable[str]) -> Service:
    """A service that gives out files at addresses like these: one, or two of different files.
    Raises NoTemplate with a sentence that says what is missing."""
    each = [a.strip() for a in addresses if a.strip()]
    if not each:
        raise NoTemplate("Paste the address of a picture as the service gives it out.")
    for address in each:
        if any(c in address for c in "{} \t\n"):
            raise NoTemplate(f"{address[:60]} is no address: it holds a space or a brace.")
    first = urlsplit(each[0])
    hosts = {(urlsplit(a).scheme, urlsplit(a).netloc) for a in each}
    if len(hosts) > 1 or not (first.netloc or first.path.startswith("/")):
        raise NoTemplate("Paste one or two whole addresses of the same service, with https://.")
    others = [urlsplit(a) for a in each[1:]]
    means: dict[str, Meaning] = {}
    path = _path(first.path, [o.path for o in others], means)
    query = _query(first.query, [o.query for o in others], means)
    if "name" not in means.values():
        raise NoTemplate(
            "Nothing in this address looks like the name of a picture. Paste one that ends in .jpg,"
            " or two of different pictures."
        )
    if "width" not in means.values():
        raise NoTemplate(
            "Nothing in this address looks like a width. Paste one with a width in it, like w=800."
        )
    host = f"{first.scheme}://{first.netloc}" if first.netloc else ""
    try:
        return Service(template=f"{host}{path}{query}", means=means)
    except ValidationError as error:
        raise NoTemplate(sentence_of(error)) from None


def _path(path: str, others: list[str], means: dict[str, Meaning]) -> str:
    """A path with variables in it: the file, what differs between addresses, sizes."""
    segments = path.split("/")
    theirs = [o.split("/") for o in others]
    aligned = [t for t in theirs if len(t) == len(segments)]
    out = []
    for i, segment in enumerate(segments):
        said = unquote(segment)
        differs = any(t[i] != segment for t in aligned)
        both = re.fullmatch(r"(\d{2,5})x(\d{2,5})", said)
        one = re.fullmatch(r"([a-z]+[_-]?)(\d{1,5})", said)
        if both and "width" not in means.values():
            means |= {"width": "width", "height": "height"}
            out.append("{width}x{height}")
        elif one and _CALLED.get(one[1].rstrip("_-")) in ("width", "height"):
            meaning = _CALLED[one[1].rstrip("_-")]
            means[meaning] = meaning
            out.append(f"{one[1]}{{{meaning}}}")
        elif "name" not in means.values() and (_FILE.fullmatch(said) or (differs and said)):
            means["name"] = "name"
            out.append("{name}")
        else:
            out.append(segment)
    return "/".join(out)


def _query(query: str, others: list[str], means: dict[str, Meaning]) -> str:
    """Parameters with a variable for those whose name is known, the rest as they are."""
    fixed, named = [], []
    for name, value in parse_qsl(query, keep_blank_values=True):
        meaning = _CALLED.get(name.lower())
        if _FILE.fullmatch(value.rpartition("/")[2]) and "name" not in means.values():
            meaning = "name"
        if meaning is not None and meaning not in means.values() and re.fullmatch(r"\w+", name):
            means[name] = meaning
            named.append(name)
        else:
            fixed.append(f"{name}={value}" if value else name)
    if fixed:
        return f"?{'&'.join(fixed)}" + (f"{{&{','.join(named)}}}" if named else "")
    return f"{{?{','.join(named)}}}" if named else ""

"""The image service that comes with Sky Pane, as browsers of visitors ask it: by signed addresses
alone. Whoever has one may see the file; nobody is signed in."""

from __future__ import annotations

import time
from collections.abc import Collection, Mapping
from functools import lru_cache
from http import HTTPStatus
from typing import NamedTuple

from common.keys import key_names, keys
from deliveries.service import MOST_KNOWN, Wanted, forgetting, offered, opened
from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseNotModified, QueryDict
from django.http.response import HttpResponseBase
from django.utils.cache import patch_vary_headers
from django.utils.http import parse_etags, quote_etag
from django.views.decorators.http import require_safe
from sites.models import Site
from skypane.errors import NoRoom, SkyPaneError, TooDemanding
from skypane.files.names import EXTENSIONS
from skypane.geometry import Crop
from skypane.markup.types import TYPES
from skypane.model import Format, Rendition
from skypane.services.signing import is_genuine

#: RFC 9111 §5.2.2 and RFC 8246: another content has another address.
FOR_GOOD = "public, max-age=31536000, immutable"
FORMATS: dict[str, Format] = {called: format_ for format_, called in EXTENSIONS.items()}
#: Most modern first.
BEST: tuple[Format, ...] = ("avif", "webp", "jpeg", "png", "svg")


def _refused(status: int, sentence: str) -> HttpResponse:
    response = HttpResponse(
        f"{sentence}\n", status=status, content_type="text/plain; charset=utf-8"
    )
    response["Cache-Control"] = "no-store"
    return response


class Asked(NamedTuple):
    """What a genuine address asks for: until when it holds, in seconds since 1970, the files of
    that size by format, and the format that it names, None where it leaves it open."""

    until: int
    there: Mapping[Format, Rendition]
    named: str | None


class _Refusal(Exception):
    """An address that is not answered with a file."""

    def __init__(self, status: int, sentence: str) -> None:
        super().__init__(sentence)
        self.status = status


@require_safe
def serve(request: HttpRequest, site_id: int, hash_: str, name: str) -> HttpResponseBase:
    """A file of a site's plan. 403: not signed by us; 410: no longer valid; 400 and 404: nothing
    that the plan asks for; 406: in no format that was asked for; 503: ask again."""
    try:
        asked = _asked(request.get_full_path(), site_id, hash_, name, key_names())
        if asked.until < time.time():
            raise _Refusal(410, "This address has expired. Load the page again.")
    except _Refusal as problem:
        return _refused(problem.status, str(problem))
    format_ = _format(request, asked.named, asked.there.keys())
    if format_ is None:
        return _refused(406, "This file is not to be had in a format that was asked for.")
    return _answer(request, site_id, asked.there[format_], negotiated=asked.named is None)


@lru_cache(maxsize=MOST_KNOWN)
def _asked(address: str, site_id: int, hash_: str, name: str, names: tuple[str, ...]) -> Asked:
    """What an address asks for, once it has been looked at: what it stands for never changes, as
    long as the keys of these `names` hold. Raises _Refusal."""
    q = QueryDict(address.partition("?")[2])
    if not is_genuine(address, q.get("sig", ""), q.get("key", ""), keys()):
        raise _Refusal(403, "This address was not signed here, or was changed since.")
    if not q.get("until", "").isdigit():
        raise _Refusal(410, "This address has expired. Load the page again.")
    wanted = _wanted(q, hash_, name)
    if wanted is None:
        raise _Refusal(400, "This address does not say which file it asks for.")
    try:
        there = offered(site_id, wanted)
    except (KeyError, Site.DoesNotExist):
        raise _Refusal(404, "The plan of this site does not ask for such a file.") from None
    return Asked(int(q["until"]), there, str(q["f"]) if "f" in q else None)


forgetting.append(_asked.cache_clear)


def _wanted(q: QueryDict, hash_: str, name: str) -> Wanted | None:
    try:
        w, x, y, cw, ch = (int(str(q[k])) for k in ("w", "cx", "cy", "cw", "ch"))
        return Wanted(hash_, name, w, Crop(x=x, y=y, w=cw, h=ch))
    except (KeyError, ValueError):
        return None


def _format(request: HttpRequest, said: str | None, offered: Collection[Format]) -> Format | None:
    """The format that the address names; else of those that are offered the most modern that the
    browser takes (RFC 9110 §12.5.1), which says so of the new ones by name."""
    if said is not None:
        named = FORMATS.get(said)
        return named if named in offered else None
    for format_ in BEST:
        if format_ not in offered:
            continue
        is_new = format_ in ("avif", "webp")
        accepts = request.headers.get("Accept", "*/*")
        if TYPES[format_] in accepts if is_new else request.accepts(TYPES[format_]):
            return format_
    return None


def _answer(
    request: HttpRequest, site_id: int, of: Rendition, *, negotiated: bool
) -> HttpResponseBase:
    etag = quote_etag(of.key)
    response: HttpResponseBase
    if etag in parse_etags(request.headers.get("If-None-Match", "")):
        response = HttpResponseNotModified()
    else:
        try:
            file = opened(site_id, of)
        except (NoRoom, TooDemanding) as problem:
            refused = _refused(503, str(problem))
            refused["Retry-After"] = "5"
            return refused
        except SkyPaneError as problem:
            return _refused(HTTPStatus.UNPROCESSABLE_ENTITY, str(problem))
        response = FileResponse(file, content_type=TYPES[of.format])
        response["Content-Disposition"] = "inline"
    response["ETag"] = etag
    response["Cache-Control"] = FOR_GOOD
    # pages of other hosts show it (Fetch §3.7)
    response["Cross-Origin-Resource-Policy"] = "cross-origin"
    if negotiated:
        patch_vary_headers(response, ["Accept"])
    return response

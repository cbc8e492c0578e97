"""What a screen asks for first, answered to one request: it can be asked for before any script has
been read, and nothing waits for the answer before it.

The answers are those of the API's own addresses, a line of JSON each, as soon as it is there:
first the addresses in their order, `{"addresses": […]}`, then for each of them
`{"address", "status", "body"}`.
"""

from __future__ import annotations

import json
import logging
import re
import zlib
from collections.abc import Iterator
from copy import copy
from urllib.parse import parse_qs, quote, urlsplit

from common.pictures import answered
from django.http import HttpRequest, HttpResponseBase, QueryDict, StreamingHttpResponse
from django.urls import resolve
from ninja import Router
from placements.models import Placement
from sites.models import Site
from skypane.widths.spans import spans_of

log = logging.getLogger(__name__)

router = Router()

#: So many placements, and originals, are asked for at once (as `MOST_ROWS` and `MOST_ORIGINALS` in
#: the web application).
MOST_ROWS, MOST_ORIGINALS = 60, 200

SESSION = "/api/session"
_SITE = re.compile(r"^/sites/(\d{1,18})(?:/(\w+)(?:/(\d{1,18})(?:/(\w+))?)?)?/?$")


def address_of(at: str) -> str:
    """Where the first answers of a screen are to be had, by the screen's own address."""
    return f"/api/first?at={quote(at, safe='')}"


def addresses(at: str, request: HttpRequest) -> list[str]:
    """What the screen at an address asks for first, the quickest before the slower ones."""
    if not request.user.is_authenticated:
        return [SESSION]
    parts = urlsplit(at)
    if parts.path == "/":
        return [SESSION, "/api/sites"]
    found = _SITE.match(parts.path)
    if found is None:
        return [SESSION]
    id_, screen, inner, step = found.groups()
    site = Site.objects.filter(id=id_, members=request.user).first()
    own = f"/api/sites/{id_}"
    asked = [SESSION, own]
    if site is None:
        return asked
    match screen or "placements", inner:
        case "placements", None:
            asked.append(f"{own}/placements?as_remembered=true&skip=0&most={MOST_ROWS}")
        case "placements", _:
            asked += _of_desk(site, own, int(inner), step or "aim", parse_qs(parts.query))
        case "pages", str():
            asked.append(f"/api/pages/{inner}/reading?as_remembered=true")
        case "originals", None:
            asked.append(_originals(own))
        case "deliveries", None:
            asked.append(f"{own}/deliveries")
    return asked


def _originals(own: str) -> str:
    return f"{own}/originals?skip=0&most={MOST_ORIGINALS}"


def _of_desk(
    site: Site, own: str, placement_id: int, step: str, query: dict[str, list[str]]
) -> list[str]:
    one = f"/api/placements/{placement_id}"
    row = Placement.objects.filter(id=placement_id, page__site=site).first()
    if row is None:
        return [one]

    def said(name: str) -> int:
        text = query.get(name, [""])[0]
        return int(text) if re.fullmatch(r"\d{1,6}", text) else 0

    spans = spans_of(site.as_noun())
    named = query.get("span", [""])[0]
    width = min(max(said("width"), spans[0].first), spans[-1].last) if said("width") else None
    letter = next((s.letter for s in spans if width is not None and width <= s.last), None)
    if named in {s.letter for s in spans}:
        letter = named
    every = step in ("files", "code", "proof")
    reading = (
        f"{one}/reading?part={max(0, said('part') - 1)}&chosen={letter or spans[-1].letter}"
        f"&words={_json(step == 'words')}&every={_json(every)}"
        f"&scrollbar_px={said('scrollbar')}&revision={row.revision}"
    )
    latest = f"{one}/deliveries/latest"
    # what is seen under conditions is no reading of what is stored
    readings = [] if "seen" in query else [reading]
    return [one, latest, *readings, _originals(own)]


def _json(value: bool) -> str:
    return "true" if value else "false"


@router.get("/first", auth=None, response={200: None})
def first_answers(request: HttpRequest, at: str) -> StreamingHttpResponse:
    """What the screen at an address of the application asks for first: lines of JSON."""
    lines = _lines(request, addresses(at[:2000], request))
    zipped = "gzip" in request.headers.get("Accept-Encoding", "")
    response = StreamingHttpResponse(
        _zipped(lines) if zipped else lines, content_type="application/x-ndjson"
    )
    if zipped:
        # by ourselves: line for line, which Django's middleware does not
        response["Content-Encoding"] = "gzip"
    response["Vary"] = "Accept-Encoding, Cookie"
    response["Cache-Control"] = "private, no-cache"
    return response


def _lines(request: HttpRequest, asked: list[str]) -> Iterator[bytes]:
    yield json.dumps({"addresses": asked}).encode() + b"\n"
    for address in asked:
        try:
            response = _answer(request, address)
            body = getattr(response, "content", b"")
            status = response.status_code
        except Exception:
            # asked for by itself it is answered, or told why not
            log.exception("A first answer failed: %s", address)
            continue
        head = json.dumps({"address": address, "status": status}).encode()
        yield head[:-1] + b', "body": ' + (body or b"null") + b"}\n"


def _answer(request: HttpRequest, address: str) -> HttpResponseBase:
    """What one of the API's addresses answers to whoever asks."""
    parts = urlsplit(address)
    asked = copy(request)
    asked.method, asked.path, asked.path_info = "GET", parts.path, parts.path
    asked.GET = QueryDict(parts.query)
    asked.META = {**request.META, "PATH_INFO": parts.path, "QUERY_STRING": parts.query}
    found = asked.resolver_match = resolve(parts.path)
    # it is answered when the middleware has gone, which says whose request it is
    token = answered.set(request)
    try:
        answer: HttpResponseBase = found.func(asked, *found.args, **found.kwargs)
        return answer
    finally:
        answered.reset(token)


def _zipped(lines: Iterator[bytes]) -> Iterator[bytes]:
    """Each line as soon as it is there (RFC 1952)."""
    zipper = zlib.compressobj(6, zlib.DEFLATED, 16 + zlib.MAX_WBITS)
    for line in lines:
        yield zipper.compress(line) + zipper.flush(zlib.Z_SYNC_FLUSH)
    yield zipper.flush()

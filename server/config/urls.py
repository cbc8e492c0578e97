"""Two ways in: the API, and the web application for every other address."""

import json
import re
from functools import lru_cache
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.urls import path, re_path
from django.utils.html import escape
from django.views.decorators.csrf import ensure_csrf_cookie
from endpoints.first import address_of
from endpoints.service import serve

from config.api import api
from config.dev import from_vite, wants_page

#: By the module of a screen in the web application, the addresses at which it shows.
SCREENS = {
    "src/desk/Desk.tsx": r"^/sites/\d+/placements/\d+",
    "src/placements/PlacementsPage.tsx": r"^/sites/\d+(/placements)?/?$",
    "src/originals/OriginalsPage.tsx": r"^/sites/\d+/originals",
    "src/pages/PageScreen.tsx": r"^/sites/\d+/pages/",
    "src/sites/SitesPage.tsx": r"^/$",
}


@ensure_csrf_cookie
def application(request: HttpRequest) -> HttpResponseBase:
    if settings.VITE:
        if not wants_page(request):
            return from_vite(request.get_full_path())
        page = from_vite("/")
        if page.status_code != 200:
            return page
        text = page.content.decode()
    elif not (index := settings.WEB_DIST / "index.html").exists():
        return HttpResponse(
            "The web application has not been built: ./run demo does it.",
            status=503,
            content_type="text/plain",
        )
    else:
        text = index.read_text("utf-8")
    head, end, rest = text.partition("</head>")
    response = HttpResponse(head + _ahead(request) + end + rest)
    response["Cache-Control"] = "no-cache"
    return response


def _ahead(request: HttpRequest) -> str:
    """What the screen at an address needs, for the browser to ask for before it has read the
    application (HTML, §4.6.7: `modulepreload`)."""
    first = escape(address_of(request.get_full_path()))
    links = [f'<script src="/first.js" data-address="{first}"></script>']
    links += [f'<link rel="modulepreload" href="/{file}">' for file in _scripts_of(request.path)]
    return "".join(links)


def _scripts_of(address: str) -> tuple[str, ...]:
    module = next((m for m, at in SCREENS.items() if re.match(at, address)), None)
    manifest = settings.WEB_DIST / "manifest.json"
    if module is None or settings.VITE or not manifest.exists():
        return ()
    return _pieces(manifest, manifest.stat().st_mtime, module)


@lru_cache(maxsize=32)
def _pieces(manifest: Path, when: float, module: str) -> tuple[str, ...]:
    """The files of a module and of all that it imports, but those of the first page."""
    known = json.loads(manifest.read_text())

    def closure(name: str, found: dict[str, None]) -> dict[str, None]:
        if name in known and name not in found:
            found[name] = None
            for inner in known[name].get("imports", ()):
                closure(inner, found)
        return found

    there = closure("index.html", {})
    return tuple(known[m]["file"] for m in closure(module, {}) if m not in there)


urlpatterns = [
    path("api/", api.urls),
    path("service/<int:site_id>/<str:hash_>/<str:name>", serve),
    re_path(r"^(?!api/|assets/|service/).*$", application),
]

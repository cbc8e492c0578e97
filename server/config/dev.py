"""What `./run dev` serves in place of the built application: all that is not the API comes from
Vite's dev server, which changes it in the browser as soon as a file is saved."""

from urllib.error import HTTPError, URLError
from urllib.request import Request, urlopen

from django.conf import settings
from django.http import HttpRequest, HttpResponse

#: Seconds that Vite may take for a module: at first it works out those of all packages.
PATIENCE_S = 60


def wants_page(request: HttpRequest) -> bool:
    """Whether a browser goes to an address, rather than asking for a module or a picture."""
    return "text/html" in request.headers.get("Accept", "")


def from_vite(address: str) -> HttpResponse:
    """The answer of Vite's dev server at an address within it; 502 with a sentence where it does
    not answer."""
    try:
        with urlopen(Request(f"{settings.VITE}{address}"), timeout=PATIENCE_S) as answer:
            kind = answer.headers.get("Content-Type")
            return HttpResponse(answer.read(), content_type=kind, status=answer.status)
    except HTTPError as refused:
        return HttpResponse(refused.read(), status=refused.code)
    except (URLError, TimeoutError) as problem:
        return HttpResponse(
            f"Vite's dev server does not answer ({problem}). Its log is var/demo/log/vite.log.",
            status=502,
            content_type="text/plain",
        )

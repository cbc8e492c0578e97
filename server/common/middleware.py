"""What stands before the API: a gate for uploads, and problem documents where Django itself would
answer with a page."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware
from skypane.texts import NUL

from common.memory import give_back
from common.pictures import answered
from common.problems import of_database, problem
from common.uploads import most_bytes_at

Answer = Callable[[HttpRequest], HttpResponseBase]

#: What a form adds around the file that it carries.
FORM_BYTES = 100_000

SENTENCES = {
    400: "The request cannot be read. Load the page again and try once more.",
    403: "This page is out of date. Load it again.",
    404: "There is nothing at this address.",
    405: "This address does not take such a request.",
    413: "This is more than is taken at once.",
}


#: What no page of ours asks of a browser, and no page in it may ask either (Permissions Policy).
PERMISSIONS = ", ".join(
    f"{name}=()"
    for name in (
        "accelerometer",
        "camera",
        "display-capture",
        "geolocation",
        "gyroscope",
        "magnetometer",
        "microphone",
        "midi",
        "payment",
        "usb",
    )
)
#: For a year a browser asks for this installation by HTTPS alone (RFC 6797).
HSTS = "max-age=31536000"


class Headers:
    """What every answer carries beside what Django's own middleware adds."""

    def __init__(self, get_response: Answer) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        response = self.get_response(request)
        response.headers["Permissions-Policy"] = PERMISSIONS
        # whoever ends TLS may stand before us, so that it is said rather than seen
        if settings.SESSION_COOKIE_SECURE:
            response.headers["Strict-Transport-Security"] = HSTS
        return response


class ProblemPages:
    """Nothing under /api answers with a page: what was not turned into a problem document before is
    one here."""

    def __init__(self, get_response: Answer) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        response = self.get_response(request)
        kind = response.headers.get("Content-Type", "")
        if response.status_code < 400 or not request.path.startswith("/api/") or "json" in kind:
            return response
        sentence = SENTENCES.get(
            response.status_code,
            "Something went wrong here. Nothing was lost; try again in a moment.",
        )
        return problem(response.status_code, sentence)


class NoNul:
    """No address holds a character that cannot be stored."""

    def __init__(self, get_response: Answer) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        query = request.META.get("QUERY_STRING", "")
        if NUL in request.path_info or "%00" in query or NUL in query:
            return problem(400, SENTENCES[400])
        return self.get_response(request)


class Answered:
    """Lets what opens pictures know whose they are (see `common.pictures`), and memory go that was
    needed for it."""

    def __init__(self, get_response: Answer) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        token = answered.set(request)
        try:
            return self.get_response(request)
        finally:
            answered.reset(token)
            give_back()


class UploadGate:
    """Files are taken from those who are signed in, where files are taken, and only as large as
    they may be: all of that is asked before the first byte of the body is read."""

    def __init__(self, get_response: Answer) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        if request.path.startswith("/api/") and (request.content_type or "").startswith(
            "multipart/"
        ):
            try:
                refused = self._refused(request)
            except DatabaseError as error:  # who asks stands in the database
                refused = of_database(error)
            if refused is not None:
                refused["Connection"] = "close"  # the rest of the body is not waited for
                return refused
        return self.get_response(request)

    def _refused(self, request: HttpRequest) -> HttpResponse | None:
        if not request.user.is_authenticated:
            return problem(401, "Sign in first.")
        most = most_bytes_at(request.path)
        if most is None:
            return problem(415, "No file is taken here: send JSON.")
        length = request.META.get("CONTENT_LENGTH") or ""
        if not length.isdigit():
            return problem(411, "Say how long the file is: a Content-Length is missing.")
        if int(length) > most + FORM_BYTES:
            return problem(
                413,
                f"This file has {int(length) / 1e6:.0f} MB; at most {most / 1e6:.0f} MB are taken."
                " Export it smaller.",
            )
        return None


class GzipOfTexts(GZipMiddleware):
    """Texts are sent compressed. What is compressed already, pictures, typefaces and archives,
    would take time and become no smaller."""

    #: Types that begin so, but drawings, which are texts.
    COMPRESSED = ("image/", "font/", "video/", "audio/", "application/zip")

    def process_response(
        self, request: HttpRequest, response: HttpResponseBase
    ) -> HttpResponseBase:
        kind = response.get("Content-Type", "")
        if kind.startswith(self.COMPRESSED) and not kind.startswith("image/svg+xml"):
            return response
        return super().process_response(request, response)

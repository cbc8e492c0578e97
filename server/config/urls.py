"""Two doors: the API, and the web application for every other address."""

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseBase
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from config.api import api


@ensure_csrf_cookie
def application(request: HttpRequest) -> HttpResponseBase:
    index = settings.WEB_DIST / "index.html"
    if not index.exists():
        return HttpResponse(
            "The web application has not been built: ./run demo does it.",
            status=503,
            content_type="text/plain",
        )
    response = FileResponse(index.open("rb"), content_type="text/html; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response


urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|assets/).*$", application)]

"""The HTTP API: one router per noun."""

from collections.abc import Callable
from functools import wraps
from typing import Any

from accounts.api import router as accounts
from common import problems
from common.bodies import Json
from deliveries.api import router as deliveries
from deliveries.compare import router as comparisons
from django.http import HttpRequest
from django.http.response import HttpResponseBase
from doors.archives import router as archives
from doors.first import router as first
from doors.originals import router as originals
from doors.originals_files import router as originals_files
from doors.pages import router as pages_on_screen
from doors.people import router as people
from doors.readings import router as readings
from doors.sites import router as site_doors
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth
from originals.travelling import router as travelling
from placements.api import router as placements
from placements.frames import router as frames
from placements.placeholders import router as placeholders
from placements.remedies import router as remedies
from placements.safe import router as safe
from sites.api import router as sites
from sites.tables import router as tables


def signed_in(view: Callable[..., HttpResponseBase]) -> Callable[..., HttpResponseBase]:
    """The document and its page are for who is signed in."""

    @wraps(view)
    def asked(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
        return (
            view(request, *args, **kwargs)
            if request.user.is_authenticated
            else problems.problem(401, "Sign in first.")
        )

    return asked


class Api(NinjaAPI):
    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> OpenAPISchema:
        """The document. Whatever an operation does not name may still be answered, as a problem:
        401 and 403 for who may not, 400 for what cannot be read, 429, 503 and 507 for what is busy,
        away or full."""
        schema = super().get_openapi_schema(*args, **kwargs)
        problem = {"$ref": "#/components/schemas/Problem"}
        for operations in schema["paths"].values():
            for operation in operations.values():
                operation["responses"] = {
                    **{str(status): told for status, told in operation["responses"].items()},
                    "default": {
                        "description": "Any other problem",
                        "content": {"application/problem+json": {"schema": problem}},
                    },
                }
        return schema


api = Api(
    title="Sky Pane",
    version="1",
    description=(
        "Prepare and art-direct pictures per breakpoint. Errors are RFC 9457 problem documents."
    ),
    auth=django_auth,
    urls_namespace="api",
    parser=Json(),
    docs_decorator=signed_in,
)
problems.install(api)
api.add_router("", accounts, tags=["session"])
api.add_router("", first, tags=["session"])
api.add_router("", sites, tags=["sites"])
api.add_router("", site_doors, tags=["sites"])
api.add_router("", pages_on_screen, tags=["pages"])
api.add_router("", archives, tags=["sites"])
api.add_router("", tables, tags=["sites"])
api.add_router("", people, tags=["people"])
api.add_router("", originals, tags=["originals"])
api.add_router("", originals_files, tags=["originals"])
api.add_router("", travelling, tags=["originals"])
api.add_router("", placements, tags=["placements"])
api.add_router("", readings, tags=["readings"])
api.add_router("", remedies, tags=["remedies"])
api.add_router("", frames, tags=["placements"])
api.add_router("", placeholders, tags=["placements"])
api.add_router("", safe, tags=["safe areas"])
api.add_router("", deliveries, tags=["deliveries"])
api.add_router("", comparisons, tags=["deliveries"])

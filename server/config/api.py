"""The HTTP API: one router per noun."""

from collections.abc import Callable
from functools import wraps
from typing import Any

from common import problems
from common.bodies import Json
from django.http import HttpRequest
from django.http.response import HttpResponseBase
from endpoints.deliveries.compare import router as comparisons
from endpoints.deliveries.deliveries import router as deliveries
from endpoints.first import router as first
from endpoints.hosts import router as hosts
from endpoints.originals.files import router as originals_files
from endpoints.originals.originals import router as originals
from endpoints.originals.travelling import router as travelling
from endpoints.pages.designs import router as designs
from endpoints.pages.pages import router as pages
from endpoints.pages.screen import router as page_screen
from endpoints.people import router as people
from endpoints.placements.frames import router as frames
from endpoints.placements.placeholders import router as placeholders
from endpoints.placements.placements import router as placements
from endpoints.placements.remedies import router as remedies
from endpoints.placements.safe import router as safe
from endpoints.pulls import router as pulls
from endpoints.readings import router as readings
from endpoints.session import router as accounts
from endpoints.sites.archives import router as archives
from endpoints.sites.services import router as services
from endpoints.sites.sites import router as sites
from endpoints.sites.tables import router as tables
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth


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
api.add_router("", pages, tags=["pages"])
api.add_router("", page_screen, tags=["pages"])
api.add_router("", designs, tags=["designs"])
api.add_router("", archives, tags=["sites"])
api.add_router("", tables, tags=["sites"])
api.add_router("", services, tags=["sites"])
api.add_router("", people, tags=["people"])
api.add_router("", originals, tags=["originals"])
api.add_router("", originals_files, tags=["originals"])
api.add_router("", travelling, tags=["originals"])
api.add_router("", placements, tags=["placements"])
api.add_router("", readings, tags=["readings"])
api.add_router("", hosts, tags=["readings"])
api.add_router("", pulls, tags=["readings"])
api.add_router("", remedies, tags=["remedies"])
api.add_router("", frames, tags=["placements"])
api.add_router("", placeholders, tags=["placements"])
api.add_router("", safe, tags=["safe areas"])
api.add_router("", deliveries, tags=["deliveries"])
api.add_router("", comparisons, tags=["deliveries"])

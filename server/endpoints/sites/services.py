"""Image services that a site can name in the place of a folder."""

from __future__ import annotations

from typing import Annotated

from common.bodies import Body
from common.keys import key_names
from common.problems import Problem
from deliveries.service import file_names, own_service
from django.http import HttpRequest
from ninja import Router
from pydantic import Field
from sites.access import site_for
from skypane import model
from skypane.services.proposing import proposed
from skypane.services.uploaded import Uploaded, read_uploaded

router = Router()


class AddressesIn(Body):
    """Addresses of pictures as a service gives them out, one or two."""

    addresses: Annotated[
        list[Annotated[str, Field(max_length=2000)]], Field(min_length=1, max_length=4)
    ]


@router.post(
    "/sites/{int:site_id}/service/proposed",
    response={200: model.Service, 404: Problem, 422: Problem},
)
def propose_service(request: HttpRequest, site_id: int, payload: AddressesIn) -> model.Service:
    """A service whose template is read off addresses. Nothing is stored."""
    site_for(request, site_id, looking=True)
    return proposed(payload.addresses)


@router.get("/sites/{int:site_id}/service/own", response={200: model.Service, 404: Problem})
def read_own_service(request: HttpRequest, site_id: int, negotiates: bool = False) -> model.Service:
    """The service that comes with Sky Pane, as this site can name it. `negotiates`: the format is
    left to it and the browser."""
    site = site_for(request, site_id, looking=True)
    return own_service(site, key_names()[0], negotiates=negotiates)


class UploadedIn(Body):
    """A table of files and their addresses, as it is copied from a host; `before`: what is known
    already."""

    text: Annotated[str, Field(max_length=4_000_000)]
    before: Annotated[dict[str, str], Field(max_length=model.hand_over.MOST_UPLOADED)] = Field(
        default_factory=dict
    )


@router.post("/sites/{int:site_id}/uploaded", response={200: Uploaded, 404: Problem, 422: Problem})
def read_addresses(request: HttpRequest, site_id: int, payload: UploadedIn) -> Uploaded:
    """Where a host has put the files of a site. Nothing is stored."""
    site = site_for(request, site_id, looking=True)
    return read_uploaded(payload.text, file_names(site), payload.before)

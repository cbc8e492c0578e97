"""An original's focal point and keep areas to take along: as a sidecar file, or in a copy of the
picture."""

from __future__ import annotations

from common.files import local
from common.pictures import guard
from common.problems import Problem
from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Router
from originals.models import Original
from sites.access import row_for
from skypane.pixels.xmp import with_xmp

router = Router()


def _original(request: HttpRequest, original_id: int) -> Original:
    return row_for(request, Original.objects.all(), "site", original_id)


def _packet(original: Original) -> bytes:
    noun = original.as_noun()
    with local(original.stored) as path:
        return guard().packet(path, noun.focal, noun.areas, original.name)


@router.get("/originals/{int:original_id}/sidecar", response={200: None, 404: Problem})
def sidecar(request: HttpRequest, original_id: int) -> HttpResponse:
    """Focal point and keep areas as XMP beside the picture: image regions of the IPTC Photo
    Metadata Standard, and the older ones."""
    original = _original(request, original_id)
    response = HttpResponse(_packet(original), content_type="application/rdf+xml")
    return _named(response, f"{original.name.rpartition('.')[0] or original.name}.xmp")


@router.get("/originals/{int:original_id}/copy", response={200: None, 404: Problem, 422: Problem})
def copy_with_areas(request: HttpRequest, original_id: int) -> HttpResponse:
    """A copy of the picture that holds them itself. No px is touched; the original stays as it
    is."""
    original = _original(request, original_id)
    packet = _packet(original)
    with local(original.stored) as path:
        data = with_xmp(path.read_bytes(), packet)
    response = HttpResponse(data, content_type=f"image/{original.format}")
    return _named(response, original.name)


def _named(response: HttpResponse, name: str) -> HttpResponse:
    response.headers["Content-Disposition"] = content_disposition_header(True, name) or "attachment"
    return response

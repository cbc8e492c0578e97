"""Where the files of a placement are to be had by code that goes into pages of others: in a folder,
below an address, where a host has put them, or at an image service."""

from __future__ import annotations

from dataclasses import replace

from skypane.files.renditions import Files
from skypane.markup.elements import Addresses, Element
from skypane.markup.html import in_folder
from skypane.markup.substitute import all_files, substitute_of
from skypane.model import Rendition
from skypane.services.addresses import Sign, at_service
from skypane.shown.nouns import Plan

#: Where files lie beside a page of a delivery.
FOLDER = "images/"


def prefix_of(plan: Plan) -> str:
    """What stands before the names of files that lie in a folder."""
    return plan.site.hand_over.prefix or FOLDER


def addresses_of(plan: Plan, sign: Sign | None = None) -> Addresses:
    """Tells where a file is to be had. A drawing has no sizes, and stays in the folder, as does
    what shows where a service does not answer."""
    folder, service = in_folder(prefix_of(plan)), plan.site.hand_over.service
    uploaded = plan.site.hand_over.uploaded
    if service is None:
        return (lambda of: uploaded.get(of.name) or folder(of)) if uploaded else folder
    served = at_service(service, plan.originals, sign)
    substitute = substitute_of(plan)

    def address(of: Rendition) -> str:
        stays = of.format == "svg" or of == substitute
        return folder(of) if stays else served(of)

    return address


def without_address(plan: Plan, files: Files) -> tuple[str, ...]:
    """The names of files that a host has not been given yet, where it gives them their
    addresses."""
    how = plan.site.hand_over
    if how.service is not None or not how.uploaded:
        return ()
    names = dict.fromkeys(r.name for r in all_files(plan, files))
    return tuple(n for n in names if n not in how.uploaded)


def files_asked_for(plan: Plan, files: Files) -> Files:
    """The files that code names. Where a service and a browser agree on the format there is one of
    each size."""
    service = plan.site.hand_over.service
    if service is None or not service.negotiates:
        return files
    return tuple((group, _one_format(made)) for group, made in files)


def _one_format(made: tuple[Rendition, ...]) -> tuple[Rendition, ...]:
    """Of each size the file of the oldest format, which stands for all of them."""
    last = made[-1].format if made else ""
    return tuple(r for r in made if r.format == last)


def as_negotiated(plan: Plan, of: Element) -> Element:
    """An element whose sources name no type, where the service chooses one."""
    service = plan.site.hand_over.service
    if service is None or not service.negotiates:
        return of
    kept = tuple(
        (k, v) for k, v in of.attributes if k != "type" or of.tag not in ("source", "link")
    )
    children = tuple(c if isinstance(c, str) else as_negotiated(plan, c) for c in of.children)
    return replace(of, attributes=kept, children=children)

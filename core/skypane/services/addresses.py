"""The address at which a service gives out a file."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping
from urllib.parse import quote, urlsplit

import uritemplate

from skypane.files.names import EXTENSIONS
from skypane.model import Original, Rendition, Service
from skypane.numerals import number
from skypane.services.signing import UNSIGNED

#: Signs an address below its host with the key of that name. Raises SkyPaneError where there is
#: none.
Sign = Callable[[str, str], str]


def at_service(
    service: Service,
    originals: Mapping[int, Original],
    sign: Sign | None = None,
    now: float | None = None,
) -> Callable[[Rendition], str]:
    """Tells the address of a rendition at a service. Without `sign` signed addresses say
    `UNSIGNED`. They expire at a whole multiple of the time that they hold, so that equal files have
    equal addresses for as long as that."""
    began = time.time() if now is None else now
    expires = (int(began // service.seconds) + 2) * service.seconds

    def address(of: Rendition) -> str:
        original = originals[of.original]
        c, x, y = of.crop, original.width_px, original.height_px
        is_px = service.crop_in == "px"
        values: dict[str, str | int] = {
            "name": original.name,
            "hash": original.sha256[:16],
            "width": of.width_px,
            "height": of.height_px,
            "format": EXTENSIONS[of.format],
            "quality": service.quality,
            "crop_x": c.x if is_px else number(c.x / x),
            "crop_y": c.y if is_px else number(c.y / y),
            "crop_width": c.w if is_px else number(c.w / x),
            "crop_height": c.h if is_px else number(c.h / y),
            "focal_x": number(original.focal[0]),
            "focal_y": number(original.focal[1]),
            "expires": expires,
            "key": service.key,
            "signature": UNSIGNED,
        }
        # as texts: a number of 0 is left out by the library, and is a value (RFC 6570 §2.3)
        told = {name: str(values[meaning]) for name, meaning in service.means.items()}
        found = uritemplate.expand(service.template, {**service.fixed, **told})
        if not service.is_signed or sign is None:
            return found
        below = below_host(found)
        return found.replace(UNSIGNED, quote(sign(below, service.key)))

    return address


def below_host(address: str) -> str:
    """Path and query of an address."""
    parts = urlsplit(address)
    return parts.path + (f"?{parts.query}" if parts.query else "")

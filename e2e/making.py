"""Sites, originals and placements for browser tests, made through the API by the signed-in
designer; pictures from numbers."""

from __future__ import annotations

import io
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, TypeVar

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect


def picture(
    width: int,
    height: int,
    *,
    spots: tuple[tuple[float, float, float, float], ...] = (),
    kind: str = "JPEG",
) -> bytes:
    """A dusky gradient with bright rectangles (x, y, w, h in fractions)."""
    y, x = np.mgrid[0:height, 0:width]
    pixels = np.stack([70 + 40 * y / height, 90 + 30 * x / width, 130 - 30 * y / height], axis=-1)
    for left, top, w, h in spots:
        rows = slice(int(top * height), int((top + h) * height))
        pixels[rows, int(left * width) : int((left + w) * width)] = (240, 205, 110)
    out = io.BytesIO()
    Image.fromarray(pixels.astype("uint8")).save(
        out, kind, **({"quality": 90} if kind == "JPEG" else {})
    )
    return out.getvalue()


def badge() -> bytes:
    """A round badge of 300×200 px in the middle of 600×500 transparent px."""
    pixels = np.zeros((500, 600, 4), dtype="uint8")
    y, x = np.mgrid[0:500, 0:600]
    pixels[((x - 299.5) / 150) ** 2 + ((y - 249.5) / 100) ** 2 <= 1] = (180, 60, 40, 255)
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG")
    return out.getvalue()


T = TypeVar("T")


def saved(page: Page) -> None:
    """Waits until what has been changed in the page is on the server. A change is drawn as
    "Saving…" with the next frame at the latest."""
    page.evaluate("new Promise(r => requestAnimationFrame(() => requestAnimationFrame(r)))")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=15_000)


def comes(read: Callable[[], T], wanted: Callable[[T], bool], *, within_s: float = 15) -> T:
    """What `read` gives once it is `wanted`, or what it gave at last."""
    end = time.monotonic() + within_s
    while not wanted(found := read()) and time.monotonic() < end:
        time.sleep(0.1)
    return found


@dataclass
class Maker:
    page: Page
    address: str
    sites: list[int] = field(default_factory=list)

    def ask(self, method: str, path: str, **kw: Any) -> Any:
        token = next(c["value"] for c in self.page.context.cookies() if c["name"] == "csrftoken")
        answer = self.page.request.fetch(
            f"{self.address}/api{path}", method=method, headers={"X-CSRFToken": token}, **kw
        )
        assert answer.ok, (method, path, answer.status, answer.text())
        return answer.json() if answer.status != 204 else None

    def site(self, name: str, **plan: Any) -> int:
        self.sites.append(
            self.ask(
                "POST",
                "/sites",
                data={"name": name, "plan": {"breakpoints": [599, 1023, 1599]} | plan},
            )["id"]
        )
        return self.sites[-1]

    def remove_sites(self) -> None:
        for site in self.sites:
            self.ask("DELETE", f"/sites/{site}")
        self.sites.clear()

    def original(
        self,
        site: int,
        name: str,
        content: bytes,
        areas: dict[str, tuple[float, float, float, float]] | None = None,
    ) -> int:
        kinds = {"png": "image/png", "svg": "image/svg+xml"}
        kind = kinds.get(name.rpartition(".")[2], "image/jpeg")
        made = self.ask(
            "POST",
            f"/sites/{site}/originals",
            multipart={"file": {"name": name, "mimeType": kind, "buffer": content}},
        )
        self.ask("PATCH", f"/originals/{made['id']}", data={"alt": f"{name}, made up"})
        if areas:
            self.ask(
                "PUT",
                f"/originals/{made['id']}/look",
                data={
                    "revision": made["revision"],
                    "focal": [0.5, 0.5],
                    "areas": [
                        {"name": n, "kind": "keep", "rect": dict(zip("xywh", rect, strict=True))}
                        for n, rect in areas.items()
                    ],
                },
            )
        return made["id"]

    def own(self, placement: int) -> Any:
        """What the only part of a placement sets itself, as it is kept."""
        (part,) = self.kept(placement)["placement"]["parts"]
        return part["treatments"]

    def placement(self, site: int, name: str, treatments: dict[str, Any], on: str = "Home") -> int:
        pages = self.ask("GET", f"/sites/{site}")["pages"]
        page = next((p["id"] for p in pages if p["title"] == on), None)
        page = page or self.ask("POST", f"/sites/{site}/pages", data={"title": on})["id"]
        made = self.ask(
            "POST",
            f"/pages/{page}/placements",
            data={"placement": {"name": name, "parts": [{"treatments": treatments}]}},
        )
        return made["id"]

    def comes_to(self, site: int, breakpoints: list[int]) -> dict[str, Any]:
        """The plan of a site once it has these breakpoints."""
        plan = comes(
            lambda: self.ask("GET", f"/sites/{site}")["plan"],
            lambda p: p["breakpoints"] == breakpoints,
        )
        assert plan["breakpoints"] == breakpoints
        return plan

    def kept(self, placement: int) -> dict[str, Any]:
        """The placement as the server has it."""
        return self.ask("GET", f"/placements/{placement}")

    def open(self, site: int, placement: int, query: str = "", step: str = "aim") -> None:
        self.page.goto(f"{self.address}/sites/{site}/placements/{placement}/{step}?{query}")
        self.page.get_by_role("region", name="Ground").wait_for()

"""What a file of the image service takes that nobody has asked for before, beside libvips alone."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pyvips
from skypane.geometry import Crop
from skypane.model import Format, Rendition
from skypane.pixels.guarded import Guard

SIZE, WIDTH, TIMES = (6000, 4000), 800, 11
PHOTO = Path(__file__).parents[1] / "demo/originals/lighthouse-wide.jpg"


def _wanted(format_: Format) -> Rendition:
    w, h = SIZE
    return Rendition(
        original=1,
        crop=Crop(x=0, y=0, w=w, h=h),
        width_px=WIDTH,
        height_px=round(WIDTH * h / w),
        format=format_,
        density=None,
        likeness=0.97,
        spans=("A",),
        name="first",
        needed_px=WIDTH,
        key=f"first-{format_}",
    )


def uncached(ms: Callable[[list[float]], str]) -> list[str]:
    """A WebP of a photograph of 24 megapixels, each way in turn."""
    guard = Guard()
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder) / "24.jpg"
        photo = pyvips.Image.new_from_file(str(PHOTO))
        grain = np.random.default_rng(1).normal(0, 3, (SIZE[1], SIZE[0], 1)).astype(np.float32)
        large = photo.resize(SIZE[0] / photo.width, vscale=SIZE[1] / photo.height)
        large = (large + pyvips.Image.new_from_array(grain)).cast("uchar")
        large.jpegsave(str(source), Q=92)

        def bare() -> None:
            pyvips.Image.thumbnail(str(source), WIDTH).webpsave_buffer(Q=80)

        def ours() -> None:
            guard.make_swiftly(source, _wanted("webp"), Path(folder))

        took: dict[Callable[[], None], list[float]] = {bare: [], ours: []}
        ours()
        for _ in range(TIMES):
            for way, seconds in took.items():
                began = time.perf_counter()
                way()
                seconds.append(time.perf_counter() - began)
    guard.close()
    ratio = statistics.median(took[ours]) / statistics.median(took[bare])
    return [
        f"- Image service, a WebP of {WIDTH} px from {SIZE[0]} × {SIZE[1]} px that nobody has asked"
        f" for before: {ms(took[ours])}; libvips alone, at one quality for all: {ms(took[bare])}."
        f" {ratio:.2f} of it, target at most 1.3."
    ]

"""AVIF without transparency by SVT-AV1, through PyAV: the same likeness as libaom in a quarter of
the time and in fewer bytes (02-rules §10).

The picture goes in as Y'CbCr of ITU-R BT.709, full range, 4:2:0 with chroma in the middle of each
four px (the mean of them), and is tagged so, with the transfer function of sRGB (ITU-T H.273: 1,
13, 1). Every value is rounded to the nearest, where common scalers cut.
"""

from __future__ import annotations

import io
import os
from typing import Any

import numpy as np
import pyvips
from numpy.typing import NDArray

# SVT-AV1 tells its settings with every file otherwise; 1 is for errors alone
os.environ.setdefault("SVT_LOG", "1")

#: Sides that SVT-AV1 takes, in px (its documentation, “Minimum and maximum resolution”).
LEAST_PX, MOST_PX = 64, 8192
_KR, _KB = 0.2126, 0.0722
#: Greatest `crf` of AV1, the coarsest.
COARSEST = 63


def takes(width: int, height: int) -> bool:
    """Whether a picture of this size is one for SVT-AV1."""
    return min(width, height) >= LEAST_PX and max(width, height) <= MOST_PX


def encoded(
    planes: tuple[NDArray[np.uint8], ...], size: tuple[int, int], crf: int, preset: int
) -> bytes:
    """An AVIF of one picture, given as the planes of `yuv420`. `crf` 1 to 63, the smaller the
    finer; `preset` 0 to 13, the greater the quicker."""
    import av

    width, height = size
    out = io.BytesIO()
    with av.open(out, "w", format="avif") as container:
        stream: Any = container.add_stream("libsvtav1", rate=1)
        stream.width, stream.height, stream.pix_fmt = width, height, "yuv420p"
        context = stream.codec_context
        context.color_primaries, context.color_trc = 1, 13
        context.colorspace, context.color_range = 1, 2
        # tuned for SSIM, which files are held to; one core, so that several files share a machine
        stream.options = {
            "crf": str(crf),
            "preset": str(preset),
            "svtav1-params": "avif=1:tune=2:lp=1",
        }
        frame = av.VideoFrame(width, height, "yuv420p")
        for plane, data in zip(frame.planes, planes, strict=True):
            rows = np.zeros((plane.height, plane.line_size), np.uint8)
            rows[: data.shape[0], : data.shape[1]] = data
            plane.update(rows.tobytes())
        frame.color_range, frame.colorspace = 2, 1
        frame.pts = 0
        for packet in stream.encode(frame):
            container.mux(packet)
        for packet in stream.encode():
            container.mux(packet)
    return out.getvalue()


#: Rows that are converted together, so that large pictures take little memory; even.
_STRIP = 256


def yuv420(image: pyvips.Image) -> tuple[NDArray[np.uint8], ...]:
    """Y, Cb and Cr of a picture in sRGB without alpha; an odd last row or column of chroma is the
    mean of what is there."""
    px = image.numpy().reshape(image.height, image.width, -1)
    strips = [_planes(px[top : top + _STRIP]) for top in range(0, image.height, _STRIP)]
    return tuple(np.concatenate(planes) for planes in zip(*strips, strict=True))


def _planes(px: NDArray[Any]) -> tuple[NDArray[np.uint8], ...]:
    r, g, b = (px[..., i % px.shape[2]].astype(np.float32) for i in range(3))
    y = _KR * r + (1 - _KR - _KB) * g + _KB * b
    cb = (b - y) / np.float32(2 * (1 - _KB)) + 128
    cr = (r - y) / np.float32(2 * (1 - _KR)) + 128
    return _rounded(y), _rounded(halved(cb)), _rounded(halved(cr))


def halved(plane: NDArray[Any]) -> NDArray[Any]:
    """The mean of each four px."""
    h, w = plane.shape
    if h % 2 or w % 2:
        plane = np.pad(plane, ((0, h % 2), (0, w % 2)), mode="edge")
    found: NDArray[Any] = (
        plane[::2, ::2] + plane[1::2, ::2] + plane[::2, 1::2] + plane[1::2, 1::2]
    ) / 4
    return found


def _rounded(plane: NDArray[Any]) -> NDArray[np.uint8]:
    return np.clip(np.floor(plane + 0.5), 0, 255).astype(np.uint8)

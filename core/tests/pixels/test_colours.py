"""Colours of pictures with other profiles, through the export, against littleCMS and CIEDE2000
(CIE 142:2001, by scikit-image)."""

import io

import numpy as np
import pytest
from PIL import Image, ImageCms
from skimage.color import deltaE_ciede2000, rgb2lab
from skypane.geometry import Crop
from skypane.model import Rendition
from skypane.pixels.encode import make

PATCH, ACROSS = 40, 6

#: Chromaticities of the primaries and the white point D65: SMPTE EG 432-1 (P3), ITU-R BT.2020.
P3 = ((0.680, 0.320), (0.265, 0.690), (0.150, 0.060))
WIDE = ((0.708, 0.292), (0.170, 0.797), (0.131, 0.046))


def profile(primaries, gamma=2.2):
    """An ICC profile (ICC.1:2004-10, matrix/TRC) of these primaries."""
    white = np.array([0.3127 / 0.3290, 1, (1 - 0.3127 - 0.3290) / 0.3290])
    xyz = np.array([[x / y, 1, (1 - x - y) / y] for x, y in primaries]).T
    matrix = xyz * np.linalg.solve(xyz, white)
    # to the profile connection space, D50 (Bradford)
    m = np.array([[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]])
    d50 = np.array([0.9642, 1, 0.8249])
    adapt = np.linalg.inv(m) @ np.diag((m @ d50) / (m @ white)) @ m
    return _icc(adapt @ matrix, d50, gamma)


def _icc(matrix, white, gamma):
    def fixed(v):
        return round(v * 65536).to_bytes(4, "big", signed=True)

    def xyz(v):
        return b"XYZ \0\0\0\0" + b"".join(map(fixed, v))

    name = b"wide chart"
    desc = b"desc\0\0\0\0" + (len(name) + 1).to_bytes(4, "big") + name + b"\0" + b"\0" * 78
    curve = b"curv\0\0\0\0" + (1).to_bytes(4, "big") + int(gamma * 256).to_bytes(2, "big") + b"\0\0"
    text = b"text\0\0\0\0none\0"
    columns = {b"rXYZ": 0, b"gXYZ": 1, b"bXYZ": 2}
    tags = {b"desc": desc, b"cprt": text, b"wtpt": xyz(white)}
    tags |= {tag: xyz(matrix[:, i]) for tag, i in columns.items()}
    tags |= dict.fromkeys((b"rTRC", b"gTRC", b"bTRC"), curve)
    table, body = b"", b""
    start = 128 + 4 + 12 * len(tags)
    for tag, data in tags.items():
        data += b"\0" * (-len(data) % 4)
        offset = start + len(body)
        table += tag + offset.to_bytes(4, "big") + len(data).to_bytes(4, "big")
        body += data
    size = start + len(body)
    head = size.to_bytes(4, "big") + b"lcms" + bytes([2, 0x40, 0, 0]) + b"mntrRGB XYZ "
    head += bytes(12) + b"acsp" + bytes(28) + b"".join(map(fixed, white)) + bytes(48)
    return head + len(tags).to_bytes(4, "big") + table + body


def chart():
    """24 patches between grey and what sRGB just holds."""
    rng = np.random.default_rng(11)
    colours = rng.integers(60, 190, (24, 3))
    colours[:6] = np.linspace(20, 235, 6)[:, None]
    rows = colours.reshape(4, ACROSS, 3)
    return np.repeat(np.repeat(rows, PATCH, 0), PATCH, 1).astype(np.uint8)


def patches(array):
    """The middle of every patch."""
    h, w = array.shape[:2]
    blocks = array.reshape(h // PATCH, PATCH, w // PATCH, PATCH, 3)[:, 12:28, :, 12:28]
    return blocks.mean((1, 3)).reshape(-1, 3)


@pytest.mark.parametrize("format_", ["png", "jpeg", "webp", "avif"])
@pytest.mark.parametrize("primaries", [P3, WIDE], ids=["P3", "BT.2020"])
def test_a_chart_keeps_its_colours(tmp_path, primaries, format_):
    px, icc = chart(), profile(primaries)
    source = tmp_path / "chart.png"
    Image.fromarray(px).save(source, icc_profile=icc)
    from_, to = ImageCms.ImageCmsProfile(io.BytesIO(icc)), ImageCms.createProfile("sRGB")
    expected = ImageCms.profileToProfile(
        Image.fromarray(px), from_, to, renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC
    )
    h, w = px.shape[:2]
    wanted = Rendition(
        original=1,
        crop=Crop(x=0, y=0, w=w, h=h),
        width_px=w,
        height_px=h,
        format=format_,
        density=1.0,
        likeness=0.955,
        spans=("A",),
        name="c",
        needed_px=w,
        key="c",
    )
    ((_, path, _),) = make(source, [wanted], tmp_path)
    got = np.asarray(Image.open(path).convert("RGB"))
    a, b = (patches(np.asarray(x, float)) / 255 for x in (expected, got))
    difference = deltaE_ciede2000(rgb2lab(a), rgb2lab(b))
    assert difference.max() <= 1.5, difference.round(2)

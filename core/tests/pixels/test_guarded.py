"""Hostile pictures: what asks for too much is ended at a limit, what is cut short is refused, what
is harmless is read."""

import os
import signal
import subprocess
import sys
import threading
import time

import numpy as np
import pytest
import pyvips
from PIL import Image
from skypane.errors import Busy, NoRoom, TooDemanding, UnreadablePicture
from skypane.found import NothingFound, found_in
from skypane.geometry import Crop, Rect
from skypane.model import Rendition
from skypane.pixels import inspect, previews, saliency
from skypane.pixels.guarded import Guard, Limits
from skypane.tables import BadTable

pytestmark = pytest.mark.slow

NS = 'xmlns="http://www.w3.org/2000/svg"'


@pytest.fixture(scope="module")
def guard():
    made = Guard(Limits(seconds=3, memory_mb=900))
    yield made
    made.close()


def photo(path, size=(640, 480), **kw):
    y, x = np.mgrid[0 : size[1], 0 : size[0]]
    Image.fromarray(np.stack([x % 256, y % 256, (x + y) % 256], -1).astype("uint8")).save(
        path, **kw
    )
    return path


def renditions(format_, *sizes):
    return [
        Rendition(
            original=1,
            crop=Crop(x=0, y=0, w=640, h=480),
            width_px=w,
            height_px=h,
            format=format_,
            density=1,
            likeness=0.955,
            spans=("A",),
            name=f"{w}.{format_}",
            needed_px=w,
            key=str(w),
        )
        for w, h in sizes
    ]


def test_in_a_child_the_same_comes_out(guard, tmp_path):
    path = photo(tmp_path / "p.jpg")
    assert guard.inspect(path, "p.jpg") == inspect.inspect(path, "p.jpg")
    assert guard.suggest(path) == saliency.suggest(path)
    guard.previews(path, {100: tmp_path / "a.webp"}, Rect(x=0, y=0, w=0.5, h=0.5))
    previews.previews(path, {100: tmp_path / "b.webp"}, Rect(x=0, y=0, w=0.5, h=0.5))
    assert (tmp_path / "a.webp").read_bytes() == (tmp_path / "b.webp").read_bytes()
    wanted = renditions("webp", (64, 48), (320, 240))
    made = list(guard.make(path, wanted, tmp_path))
    assert [(r.key, fact.size_bytes) for r, _, fact in made] == [
        (r.key, (tmp_path / f"{r.key}.webp").stat().st_size) for r in wanted
    ]
    assert len(guard._idle) == 1  # one child did it all


def test_encoders_stay_at_the_usual_priority(tmp_path):
    """As root too, where SVT-AV1 takes a real-time one; capabilities(7), sched(7)."""
    guard = Guard(Limits(seconds=20, memory_mb=900))
    try:
        list(guard.make(photo(tmp_path / "p.jpg"), renditions("avif", (320, 240)), tmp_path))
        (child,) = guard._idle
        threads = os.listdir(f"/proc/{child.process.pid}/task")
        assert {os.sched_getscheduler(int(t)) for t in threads} == {os.SCHED_OTHER}
    finally:
        guard.close()


def test_a_child_takes_the_usual_priority_whatever_its_parent_has(tmp_path):
    """In a process of its own, which may have taken a higher one: here a lower one, which whoever
    runs this may take."""
    path = photo(tmp_path / "p.jpg")
    told = (
        "import os, sys; os.sched_setscheduler(0, os.SCHED_BATCH, os.sched_param(0))\n"
        "from skypane.pixels.guarded import Guard\n"
        "guard = Guard(); guard.inspect(sys.argv[1]); (child,) = guard._idle\n"
        "threads = os.listdir(f'/proc/{child.process.pid}/task')\n"
        "print({os.sched_getscheduler(int(t)) for t in threads} == {os.SCHED_OTHER})"
    )
    ran = subprocess.run([sys.executable, "-c", told, path], capture_output=True, text=True)
    assert ran.stdout.strip() == "True", ran.stderr


@pytest.mark.parametrize(
    "inside",
    [
        (
            '<filter id="f"><feGaussianBlur stdDeviation="9000"/><feMorphology operator="dilate"'
            ' radius="900"/></filter><path d="M0 0h9000v9000H0z" filter="url(#f)"/>'
        ),
        (
            '<filter id="f"><feTurbulence baseFrequency="0.9" numOctaves="9999"/></filter>'
            '<path d="M0 0h9000v9000H0z" filter="url(#f)"/>'
        ),
        '<g id="a0"><rect width="9" height="9"/></g>'
        + "".join(f'<g id="a{i}">' + f'<use href="#a{i - 1}"/>' * 10 + "</g>" for i in range(1, 9)),
    ],
    ids=["blur", "turbulence", "nested use"],
)
def test_an_svg_that_works_for_ever_is_ended(guard, tmp_path, inside):
    path = tmp_path / "u"
    path.write_text(f'<svg {NS} width="9000" height="9000">{inside}</svg>')
    began = time.monotonic()
    with pytest.raises(
        TooDemanding,
        match=(
            r"bomb\.svg (takes more than 3 s of computing|needs more than 900 MB of memory to"
            r" open), the limit here"
        ),
    ):
        guard.inspect(path, "bomb.svg")
    assert time.monotonic() - began < 8
    # and the next is served
    assert guard.inspect(photo(tmp_path / "p.jpg"), "p.jpg").width_px == 640


def test_a_text_is_read_in_a_child_too(guard):
    css = "@media (min-width: 600px) { a { max-width: 900px } }"
    assert guard.found(css) == found_in(css)
    with pytest.raises(NothingFound, match="no media query"):
        guard.found("a { color: red }")
    with pytest.raises(BadTable, match="Line 2") as refused:
        guard.found("what,px\ncontainer,wide")
    assert refused.value.field == "px"


def test_a_text_that_is_read_for_too_long_is_ended():
    one = Guard(Limits(text_seconds=0.2, memory_mb=900))
    try:
        with pytest.raises(TooDemanding, match=r"more than 0\.2 s of computing.*that says widths"):
            one.found("".join(f"@media (min-width:{i}px){{a{{b:c}}}}" for i in range(25_000)))
    finally:
        one.close()


def test_a_drawing_has_less_time_than_a_photograph(tmp_path):
    one = Guard(Limits(seconds=60, drawing_seconds=1, memory_mb=900))
    path = tmp_path / "knot.svg"
    nested = '<g id="a0"><rect width="9" height="9"/></g>' + "".join(
        f'<g id="a{i}">' + f'<use href="#a{i - 1}"/>' * 10 + "</g>" for i in range(1, 7)
    )
    path.write_text(f'<svg {NS} width="900" height="900">{nested}</svg>')
    try:
        with pytest.raises(TooDemanding, match=r"knot\.svg takes more than 1 s of computing"):
            one.inspect(path, "knot.svg")
        assert one.inspect(photo(tmp_path / "p.jpg", (4000, 3000)), "p.jpg").width_px == 4000
    finally:
        one.close()


@pytest.mark.parametrize("kind", ["avif", "jpeg"])
def test_a_small_file_of_many_px_is_ended_at_the_memory_limit(guard, tmp_path, kind):
    path = tmp_path / f"flat.{kind}"
    image = pyvips.Image.black(16000, 16000, bands=3).copy(interpretation="srgb")
    if kind == "avif":
        image.heifsave(str(path), compression="av1", effort=0, Q=30)
        assert path.stat().st_size < 10_000
    else:
        image.jpegsave(str(path), interlace=True, Q=10, subsample_mode="off")
    with pytest.raises(TooDemanding, match=r"more than (900 MB of memory|3 s of computing)"):
        guard.inspect(path, f"flat.{kind}")


def test_no_more_than_so_many_at_once(tmp_path):
    one = Guard(Limits(seconds=3, at_once=1, wait_seconds=0.2))
    path = tmp_path / "bomb.svg"
    path.write_text(
        f'<svg {NS} width="9000" height="9000"><filter id="f">'
        '<feTurbulence numOctaves="9999" baseFrequency=".9"/></filter>'
        '<path d="M0 0h9000v9000H0z" filter="url(#f)"/></svg>'
    )
    ended = []

    def bomb():
        try:
            one.inspect(path)
        except TooDemanding as error:
            ended.append(error)

    busy = threading.Thread(target=bomb)
    busy.start()
    time.sleep(0.5)
    with pytest.raises(Busy, match="try again"):
        one.inspect(photo(tmp_path / "p.jpg"))
    busy.join()
    assert len(ended) == 1
    assert one.inspect(tmp_path / "p.jpg").width_px == 640
    one.close()


def test_a_child_that_is_killed_is_replaced(guard, tmp_path):
    path = photo(tmp_path / "p.jpg")
    guard.inspect(path)
    os.kill(guard._idle[-1].process.pid, signal.SIGKILL)
    time.sleep(0.1)
    assert guard.inspect(path).width_px == 640


def test_no_room_is_said_as_such(guard, tmp_path):
    path = photo(tmp_path / "p.jpg")
    with pytest.raises((NoRoom, UnreadablePicture)):
        guard.previews(path, {100: tmp_path / "no" / "such" / "folder.webp"})


# -- cut short --


@pytest.mark.parametrize("compression", [None, "tiff_lzw", "tiff_deflate", "jpeg", "packbits"])
@pytest.mark.parametrize("share", [0.3, 0.6, 0.95])
def test_a_tiff_that_ends_early_is_refused(tmp_path, compression, share):
    whole = photo(tmp_path / "w.tif", compression=compression)
    inspect.inspect(whole, "scan.tif")
    part = tmp_path / "part"
    part.write_bytes(whole.read_bytes()[: int(whole.stat().st_size * share)])
    with pytest.raises(UnreadablePicture, match=r"scan\.tif (ends early|is damaged)"):
        inspect.inspect(part, "scan.tif")


def test_libraries_never_speak_to_the_user(tmp_path):
    for name, data in {
        "a.svg": f"<svg {NS} width='9' height='9'><g></svg>".encode(),
        "b.png": b"\x89PNG\r\n\x1a\n" + b"\0" * 99,
    }.items():
        path = tmp_path / ("0" * 64)
        path.write_bytes(data)
        with pytest.raises(UnreadablePicture) as refused:
            inspect.inspect(path, name)
        assert (
            str(refused.value).startswith(name)
            and "domain" not in str(refused.value)
            and "0000" not in str(refused.value)
        )


# -- harmless --

DRAWN = f'<svg {NS} width="20" height="10"><rect width="20" height="10" fill="#f00"/></svg>'
DOCTYPES = {
    "public": (
        '<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN"'
        ' "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">'
    ),
    "internal": (
        '<!DOCTYPE svg [\n <!-- a > comment ] -->\n <!ELEMENT svg ANY>\n <!ENTITY unused "]>">\n]>'
    ),
}


@pytest.mark.parametrize("doctype", DOCTYPES.values(), ids=DOCTYPES.keys())
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "utf-16-le", "iso-8859-1"])
def test_a_document_type_and_any_encoding_are_read(tmp_path, doctype, encoding):
    path = tmp_path / "mark.svg"
    path.write_bytes(
        f'<?xml version="1.0" encoding="{encoding}"?>\n{doctype}\n{DRAWN}'.encode(encoding)
    )
    found = inspect.inspect(path, "mark.svg")
    assert (found.format, found.width_px, found.height_px) == ("svg", 4096, 2048)


def test_entities_stay_dead(tmp_path):
    secret = tmp_path / "secret.txt"
    secret.write_text("s3cret")
    path = tmp_path / "mark.svg"
    for declared in (f'<!ENTITY e SYSTEM "file://{secret}">', '<!ENTITY e "text">'):
        path.write_text(
            f"<!DOCTYPE svg [{declared}]><svg {NS} width='9' height='9'><text>&e;</text></svg>"
        )
        with pytest.raises(UnreadablePicture, match="entities of its own"):
            inspect.inspect(path, "mark.svg")

"""Firefox and WebKit: which file they fetch of a picture and of a background, under two schemes and
at two densities, each screen once (docs/engines.md). Debian's Firefox ESR and WebKitGTK's
MiniBrowser open one page, which tries every case in a frame of its own; a server notes what is
fetched, so that neither is driven."""

from __future__ import annotations

import itertools
import json
import os
import shutil
import subprocess
import tempfile
from collections.abc import Iterator
from pathlib import Path

import pytest
from noted import Noted
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.background import runs_of_span
from skypane.markup.css import css_lines
from skypane.markup.html import html_of
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.markup.preload import preload_links
from skypane.picks import Environment, pick
from skypane.picks.background import pick_background, read_background
from skypane.shown.plan import plan

MINIBROWSERS = ("/usr/lib/x86_64-linux-gnu", "/usr/lib/aarch64-linux-gnu")
ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=5000, height_px=3000, sha256=str(i), alt="")
    for i in (1, 2)
}


@pytest.fixture
def noted() -> Iterator[Noted]:
    made = Noted()
    yield made
    made.server.shutdown()


def placements() -> Iterator[tuple[str, m.Site, m.Placement]]:
    """Twelve: pictures and backgrounds, in each style of conditions, by widths and by density; with
    another picture for the dark, and for the dark only a colour where the screen is upright."""
    for way, style, lists in itertools.product(
        ("picture", "background"), ("max-width", "min-width", "range"), ("widths", "densities")
    ):
        usual = {
            "D": m.Treatment(original=1, height=m.RatioHeight(w=5, h=2)),
            "B": m.Treatment(width=m.ShareWidth(percent=60)),
        }
        parts = (
            m.Part(key="quay", treatments=usual, way=way),
            m.Part(of="quay", when=("dark",), treatments={"C": m.Treatment(original=2)}),
            m.Part(
                of="quay", when=("dark", "portrait"), treatments={"A": m.Treatment(show="colour")}
            ),
        )
        site = m.Site(
            media_style=style, lists=lists, hand_over=m.HandOver(preload=lists == "widths")
        )
        yield f"{way}-{style}-{lists}", site, m.Placement(name="Quay", parts=parts)


def put(noted: Noted, density: float, scheme: str, policy: str) -> dict[str, str | None]:
    """All cases on the server, and what each of them is to fetch."""
    wanted: dict[str, str | None] = {}
    cases = []
    for name, site, placement in placements():
        found = plan(site, placement, ORIGINALS)
        files = renditions(found)
        markup, css = text_of(placement_lines(found, files)), text_of(css_lines(found, files))
        rules = read_background(css, ".quay::before")
        first = html_of().lines(preload_links(found, files))
        page = page_html("Quay", [markup], first=first, dark=True)
        posts = [599, 600, 1023, 1024, 1600]
        if rules:
            of = {p.span.letter: mine for g, mine in files for p in g.spans}
            runs = [
                run.first
                for p in found.parts[0].spans
                for run in runs_of_span(p, of[p.span.letter], site.densities)
            ]
            posts += [runs[len(runs) // 2] + d for d in (-1, 0, 1)]
        for width, upright in itertools.product(sorted(set(posts)), (False, True)):
            height = width + 40 if upright else 300
            case = f"{name}-{width}-{height}"
            noted.pages[case] = {"page.html": page, "picture.css": css}
            env = Environment(width, height, density, scheme, policy=policy)
            taken = pick_background(rules, env).url if rules else pick(markup, env).url
            wanted[case] = None if taken is None or taken.startswith("data:") else taken
            size = {"width": width, "height": height}
            cases.append({"name": case, **size, "fetches": wanted[case] is not None})
    noted.opens(cases)
    return wanted


def firefox(address: str, folder: Path, density: float, dark: bool) -> list[str]:
    prefs = {
        "layout.css.devPixelsPerPx": str(float(density)),
        "layout.css.prefers-color-scheme.content-override": 0 if dark else 1,
        "browser.shell.checkDefaultBrowser": False,
        "datareporting.policy.dataSubmissionEnabled": False,
        "toolkit.telemetry.reportingpolicy.firstRun": False,
        "browser.startup.homepage_override.mstone": "ignore",
        "network.captive-portal-service.enabled": False,
    }
    lines = (f"user_pref({json.dumps(k)}, {json.dumps(v)});\n" for k, v in prefs.items())
    (folder / "user.js").write_text("".join(lines))
    return ["firefox-esr", "--headless", "--no-remote", "--profile", str(folder), address]


def webkit(address: str, folder: Path, density: float, dark: bool) -> list[str]:
    at = next(
        f"{p}/webkit2gtk-4.1/MiniBrowser"
        for p in MINIBROWSERS
        if Path(p).joinpath("webkit2gtk-4.1/MiniBrowser").exists()
    )
    return ["xvfb-run", "-a", at, "--private", address]


ENGINES = {"firefox": firefox, "webkit": webkit}


@pytest.mark.parametrize("engine", ENGINES)
@pytest.mark.parametrize(("density", "dark"), [(1, False), (2, True)])
def test_one_file_is_fetched_the_one_that_is_predicted(noted: Noted, engine, density, dark):
    wanted = put(noted, density, "dark" if dark else "light", engine)
    assert len(wanted) > 120 and any(w is None for w in wanted.values()) == dark
    folder = Path(tempfile.mkdtemp())
    env = {
        **os.environ,
        "HOME": str(folder),
        "GDK_SCALE": str(density),
        "GTK_THEME": "Adwaita:dark" if dark else "Adwaita",
        # a sandbox of its own needs more than a container gives
        "WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS": "1",
        "MOZ_DISABLE_CONTENT_SANDBOX": "1",
        "LIBGL_ALWAYS_SOFTWARE": "1",
    }
    said = (folder / "said").open("w")
    command = ENGINES[engine](noted.address, folder, density, dark)
    run = subprocess.Popen(command, env=env, stdout=said, stderr=said, start_new_session=True)
    try:
        through = noted.done.wait(240)
        assert through, (len(noted.fetched), (folder / "said").read_text()[-2000:])
    finally:
        os.killpg(run.pid, 15)
        run.wait(20)
        shutil.rmtree(folder, ignore_errors=True)
    assert noted.told == f"dark={str(dark).lower()}&density={density}"
    wrong = {
        case: (noted.fetched.get(case, []), taken)
        for case, taken in wanted.items()
        if noted.fetched.get(case, []) != ([taken] if taken else [])
    }
    assert not wrong, dict(itertools.islice(wrong.items(), 5))

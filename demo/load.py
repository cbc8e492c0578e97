"""Load the demo site *Tern Point*, a made-up boat station, once. Run again it changes nothing."""

from __future__ import annotations

import hashlib
import os
import shutil
import sys
import tempfile
from pathlib import Path

HERE = Path(__file__).resolve().parent
sys.path.insert(0, str(HERE.parent / "server"))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

import django  # noqa: E402

django.setup()

from django.contrib.auth import get_user_model  # noqa: E402
from django.db import transaction  # noqa: E402
from originals.intake import take_in_path  # noqa: E402
from originals.models import Original  # noqa: E402
from placements.models import Home, Placement, on_page, stored_layout  # noqa: E402
from sites.models import Membership, Page, Role, Site  # noqa: E402
from skypane import model as m  # noqa: E402

#: name → (alt text or None, keep areas as (name, x0, x1, y0, y1), quiet area or None); boxes read
#: by eye, ±0.01
ORIGINALS: dict[
    str,
    tuple[
        str | None,
        list[tuple[str, float, float, float, float]],
        tuple[float, float, float, float] | None,
    ],
] = {
    "tern-point-full.svg": ("Tern Point Boat Station", [], None),
    "tern-point-short.svg": ("Tern Point", [], None),
    "tern-point-stacked.svg": ("Tern Point", [], None),
    "tern-point-symbol.svg": ("Tern Point", [], None),
    "signal-flags.jpg": (
        "Strings of signal flags against the sky",
        [("Near string", 0, 1, 0.13, 0.47)],
        (0.05, 0.95, 0.70, 0.97),
    ),
    "ferry-bow.jpg": (
        "A launch comes in, its bow high",
        [("Launch", 0.455, 0.91, 0.11, 0.72)],
        (0.03, 0.42, 0.08, 0.50),
    ),
    "cliff-path.jpg": (
        "Stone steps climb a green cliff above the sea",
        [("Steps", 0.53, 0.94, 0.52, 1)],
        (0, 0.60, 0, 0.25),
    ),
    "pebbles.jpg": (
        "Grey pebbles, one of them orange",
        [("Orange pebble", 0.21, 0.46, 0.39, 0.62)],
        None,
    ),
    "rowing-boat.jpg": (
        "A rowing boat on still water",
        [("Boat", 0.105, 0.66, 0.415, 0.645)],
        (0.05, 0.95, 0.72, 0.97),
    ),
    "harbour-steps.jpg": (
        "Harbour steps with a red boat below",
        [("Steps", 0.36, 1, 0.17, 0.66), ("Red boat", 0, 0.30, 0.61, 0.89)],
        (0.35, 0.95, 0.72, 0.95),
    ),
    "title-one-line-ink.png": ("", [], None),
    "title-one-line.png": ("Tern Point", [], None),
    "title-stacked.png": ("Tern Point", [], None),
    "fog.jpg": (
        "A small boat in the fog",
        [("Boat", 0.105, 0.38, 0.41, 0.71)],
        None,
    ),
    "buoy.jpg": (None, [("Buoy", 0.12, 0.40, 0.42, 0.82)], (0.45, 0.95, 0.45, 0.90)),
    "jetty.jpg": (
        "A wooden jetty reaches into the bay",
        [("Bollard", 0.66, 0.78, 0.53, 0.77), ("Rope", 0.33, 0.67, 0.65, 0.94)],
        (0.02, 0.50, 0.02, 0.20),
    ),
    "lantern.jpg": (
        "A lit lantern before a violet sea",
        [("Lantern", 0.28, 0.535, 0.215, 0.59)],
        (0.58, 1, 0.05, 0.50),
    ),
    "rope-coil.jpg": (
        "A coil of rope on planks",
        [("Coil", 0.33, 1, 0.31, 0.91)],
        (0, 0.95, 0.02, 0.26),
    ),
    "sea-stack.jpg": (
        "A sea stack with an arch",
        [("Stack", 0.16, 0.89, 0.21, 0.80)],
        (0, 1, 0, 0.18),
    ),
    "tern-flight.jpg": (None, [("Tern", 0.19, 0.47, 0.04, 0.48)], (0.05, 0.60, 0.55, 0.95)),
    "island-dawn.jpg": (
        "The island at dawn",
        [("Island", 0.44, 1, 0.47, 0.62), ("Sun", 0.18, 0.23, 0.52, 0.59)],
        (0.05, 0.95, 0.05, 0.40),
    ),
    "keepers-cottage.jpg": (
        "The keeper's cottage beside the foot of the tower",
        [("Cottage", 0.06, 0.53, 0.33, 0.75), ("Tower foot", 0.65, 0.90, 0, 0.75)],
        (0.08, 0.60, 0.03, 0.28),
    ),
    "lighthouse-night.jpg": (
        "The lighthouse at night, its lamp lit",
        [("Tower", 0.705, 0.77, 0.355, 0.585), ("Cottage", 0.77, 0.86, 0.52, 0.58)],
        (0.03, 0.55, 0.05, 0.30),
    ),
    "lighthouse-tall.jpg": (
        "A red and white lighthouse on its rock",
        [("Tower", 0.50, 0.61, 0.36, 0.62), ("Cottage", 0.61, 0.85, 0.57, 0.63)],
        (0, 1, 0, 0.34),
    ),
    "four-boats.jpg": (
        "Four boats lie side by side in the harbour: red, yellow, blue with a sail, and green",
        [
            ("Sail boat", 0.493, 0.73, 0.405, 0.885),
            ("Green boat", 0.735, 0.984, 0.518, 0.868),
            ("Yellow boat", 0.322, 0.456, 0.69, 0.858),
            ("Red boat", 0.06, 0.222, 0.51, 0.895),
        ],
        (0.05, 0.95, 0.03, 0.35),
    ),
    "lighthouse-wide.jpg": (
        "A red and white lighthouse on a cliff above the evening sea",
        [("Tower", 0.715, 0.76, 0.335, 0.605), ("Cottage", 0.785, 0.87, 0.55, 0.605)],
        (0.02, 0.60, 0.05, 0.65),
    ),
}

FOCAL = {
    "lighthouse-wide.jpg": (0.74, 0.47),
    "lighthouse-tall.jpg": (0.60, 0.50),
    "four-boats.jpg": (0.60, 0.72),
    "keepers-cottage.jpg": (0.40, 0.55),
    "tern-flight.jpg": (0.33, 0.26),
    "jetty.jpg": (0.60, 0.65),
    "buoy.jpg": (0.26, 0.62),
    "sea-stack.jpg": (0.52, 0.50),
}


def area(name: str, x0: float, x1: float, y0: float, y1: float, kind: str = "keep") -> m.Area:
    return m.Area(name=name, kind=kind, rect=m.Rect(x=x0, y=y0, w=x1 - x0, h=y1 - y0))  # type: ignore[arg-type]


def bring(site: Site) -> dict[str, Original]:
    out = {}
    for name, (alt, keeps, quiet) in ORIGINALS.items():
        source = HERE / "originals" / name
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / name
            shutil.copy(source, path)
            original, _ = take_in_path(
                site, path, name, hashlib.sha256(source.read_bytes()).hexdigest()
            )
        areas = [area(*k) for k in keeps] + ([area("Sky", *quiet, kind="quiet")] if quiet else [])
        original.alt = alt
        original.focal_x, original.focal_y = FOCAL.get(name, (0.5, 0.5))
        original.areas = [a.model_dump(mode="json") for a in areas]
        original.save()
        out[name] = original
    night, day = out["lighthouse-night.jpg"], out["lighthouse-wide.jpg"]
    night.version_of, night.version_when = day, "dark"
    night.save()
    return out


def placements(o: dict[str, Original]) -> dict[str, list[m.Placement]]:
    def ratio(w: float, h: float) -> m.RatioHeight:
        return m.RatioHeight(w=w, h=h)

    def held(treatment: m.Treatment, name: str) -> m.Treatment:
        return treatment.model_copy(update={"original": o[name].id})

    def head(name: str, mark: str, shows: dict[str, str], layout: dict[str, object]) -> m.Placement:
        """One of two versions of a page's head, of which just one shows at every width."""
        pictures = {letter: m.Treatment(show=show) for letter, show in shows.items()}
        pictures["D"] = held(
            pictures["D"].model_copy(update={"height": ratio(4, 1), "background": "#17233f"}),
            "lighthouse-night.jpg",
        )
        pictures["B"] = pictures["B"].model_copy(update={"height": ratio(2, 1)})
        return m.Placement(
            name=name,
            kind="banner",
            one_of="Crossings head",
            parts=(
                m.Part(treatments=pictures),
                m.Part(role="mark", treatments={"D": held(m.Treatment(), mark)}),
            ),
            layout=layout,
        )

    return {
        "Home": [
            m.Placement(
                name="Lighthouse",
                kind="banner",
                words=m.Words(
                    heading="The last light before the open sea",
                    text="Crossings from the old jetty, every day that the swell allows.",
                    buttons=(m.Button(label="Plan a crossing", href="/crossings"),),
                    level=1,
                ),
                parts=(
                    m.Part(key="picture", treatments={
                        "D": held(m.Treatment(width=m.FullWidth(), height=m.ViewportHeight(percent=70, least_px=480, greatest_px=900), background="#3f5d70"), "lighthouse-wide.jpg"),
                        "C": m.Treatment(height=ratio(2, 1)),
                        "B": m.Treatment(height=ratio(3, 2)),
                        "A": held(m.Treatment(height=ratio(5, 4), show="colour", background="#1f4656"), "lighthouse-tall.jpg"),
                    }),
                    # a small cut stands in where the picture is dropped
                    m.Part(role="inset", treatments={
                        "D": m.Treatment(show="nothing"),
                        "A": held(m.Treatment(show="picture", crop=m.Rect(x=0.343, y=0.347, w=0.4241, h=0.286), keeps=("Tower",)), "lighthouse-tall.jpg"),
                    }),
                    # its lamp is lit where a dark colour scheme is asked for
                    m.Part(of="picture", when=("dark",), treatments={
                        "D": held(m.Treatment(background="#14202b"), "lighthouse-night.jpg"),
                        "A": m.Treatment(show="usual"),
                    }),
                ),
                layout={
                    "D": {"place": "start", "percent": 40, "margin_px": 48, "heading_px": 56, "text_px": 20,
                          "scrim": {"kind": "linear", "angle": 90, "stops": [{"colour": "#0b1f2a", "alpha": 1, "at": 0}, {"colour": "#0b1f2a", "alpha": 0.75, "at": 45}, {"colour": "#0b1f2a", "alpha": 0, "at": 75}]},
                          "strength": 0.75},
                    "C": {"heading_px": 44, "text_px": 18, "margin_px": 32},
                    "B": {"heading_px": 34, "text_px": 16, "percent": 48, "margin_px": 24},
                    "A": {"heading_px": 28, "percent": 100, "place": "top", "margin_px": 20, "inset_place": "bottom-end", "inset_px": 96, "inset_border_px": 3},
                },
            ),
            m.picture(
                name="Dawn",
                lead=False,
                treatments={
                    "D": held(m.Treatment(width=m.ShareWidth(percent=100, of="container"), height=ratio(5, 2)), "island-dawn.jpg"),
                    "A": held(m.Treatment(width=m.FullWidth(), height=ratio(4, 5)), "lighthouse-tall.jpg"),
                },
            ),
        ],
        "Crossings": [
            head("Head, wide", "title-one-line.png", {"D": "picture", "B": "nothing"}, {"D": {"mark_place": "start", "mark_percent": 34, "margin_px": 40}}),
            head("Head, narrow", "title-stacked.png", {"D": "nothing", "B": "picture"}, {"D": {"mark_place": "bottom-start", "mark_percent": 36, "margin_px": 20}}),
            m.picture(
                name="Four boats",
                treatments={
                    "D": held(m.Treatment(width=m.FullWidth(), height=ratio(2.4, 1)), "four-boats.jpg"),
                    "C": m.Treatment(height=ratio(2, 1)),
                    "B": m.Treatment(height=ratio(3, 2)),
                    "A": m.Treatment(height=ratio(4, 5)),
                },
            )
        ],
        "The Island": [
            # on purpose with a fault: white words on a bright picture
            m.Placement(
                name="Landing",
                kind="banner",
                words=m.Words(heading="Landing in fog", text="The horn sounds twice before the boat turns in."),
                parts=(m.Part(treatments={"D": held(m.Treatment(height=ratio(5, 2), background="#35505c"), "fog.jpg"), "A": m.Treatment(height=ratio(1, 1))}),),
                layout={"D": {"place": "end", "percent": 40, "margin_px": 32}, "A": {"place": "top", "percent": 100, "heading_px": 28, "text_px": 16, "margin_px": 20}},
            ),
            m.picture(
                name="Tern",
                lead=False,
                treatments={
                    "D": held(m.Treatment(width=m.ShareWidth(percent=100, of="container"), height=m.FixedHeight(height_px=420)), "tern-flight.jpg"),
                    "A": m.Treatment(width=m.FullWidth(), height=m.FixedHeight(height_px=320)),
                },
            ),
            m.Placement(
                name="Nine things to see",
                kind="grid",
                lead=False,
                common={
                    "D": m.Treatment(width=m.ShareWidth(percent=100, of="container"), height=ratio(3, 2)),
                    "A": m.Treatment(height=m.NaturalHeight()),
                },
                layout={"D": {"columns": 3, "gutter_px": 24}, "B": {"columns": 2, "gutter_px": 16}, "A": {"arranged": "list"}},
                parts=tuple(
                    m.Part(item=m.Item(title=title, text=text), treatments={"D": held(m.Treatment(), name)})
                    for name, title, text in NINE
                ),
            ),
            # on purpose with faults: one slide of another ratio, and dots on what matters
            m.Placement(
                name="Six views",
                kind="slides",
                lead=False,
                n_files=2,
                common={
                    "D": m.Treatment(width=m.FullWidth(greatest_px=1600), height=ratio(16, 9)),
                    "A": m.Treatment(height=ratio(4, 3)),
                },
                layout={
                    "D": {"by_itself": True, "every_s": 5, "change": "fade", "change_s": 0.6, "controls_place": "bottom"},
                    "B": {"captions_lie": "under", "controls_lie": "on"},
                    "A": {"by_itself": False, "change": "slide", "change_s": 0.4, "controls_lie": "under"},
                },
                parts=tuple(
                    m.Part(item=m.Item(title=title), treatments={"D": held(m.Treatment(), name)})
                    for name, title in SIX
                ),
            ),
        ],
        "Visit": [
            m.Placement(
                name="Logo",
                kind="logo",
                lead=False,
                layout={
                    "D": {"cuts": [{"original": o[name].id, "lettering_percent": share} for name, share in CUTS], "bar": True},
                },
                parts=(m.Part(key="picture", treatments={
                    "D": held(m.Treatment(width=m.FixedWidth(width_px=300), height=ratio(3, 1), stands="start", background="#f4efe6"), CUTS[0][0]),
                    "C": held(m.Treatment(width=m.FixedWidth(width_px=220)), CUTS[1][0]),
                    "B": held(m.Treatment(width=m.FixedWidth(width_px=96), height=ratio(1, 1)), CUTS[1][0]),
                    "A": held(m.Treatment(width=m.FixedWidth(width_px=56)), CUTS[3][0]),
                }), m.Part(of="picture", when=("portrait",), treatments={
                    "B": held(m.Treatment(show="picture"), CUTS[2][0]),
                    "A": m.Treatment(show="usual"),
                })),
            ),
            m.Placement(
                name="Where to wait",
                kind="beside",
                lead=False,
                n_files=2,
                common={
                    "D": m.Treatment(width=m.ShareWidth(percent=100, of="container"), height=ratio(3, 2)),
                    "A": m.Treatment(width=m.FullWidth()),
                },
                layout={
                    "D": {"share_percent": 50, "side": "alternate", "align": "centre", "between_px": 40, "gutter_px": 48, "title_px": 26, "caption_px": 18},
                    "B": {"share_percent": 50, "between_px": 24, "gutter_px": 32, "title_px": 22, "caption_px": 16},
                    "A": {"share_percent": 100, "between_px": 12, "gutter_px": 32, "margin_px": 16, "title_px": 20},
                },
                parts=tuple(
                    m.Part(item=m.Item(title=title, text=text), treatments={"D": held(m.Treatment(), name)})
                    for name, title, text in WAITING
                ),
            ),
            m.picture(
                name="Keeper's cottage",
                lead=False,
                treatments={"D": held(m.Treatment(), "keepers-cottage.jpg")},
            ).model_copy(update={"frame": HALF.id})
        ],
    }  # fmt: skip


#: The items of the grid on The Island, with their captions.
NINE = (
    ("buoy.jpg", "The buoy", "It rings when the swell comes from the west."),
    ("tern-flight.jpg", "Terns", "From May to the end of July, above your head."),
    (
        "rowing-boat.jpg",
        "The old boat",
        "The keeper rowed it to the mainland until the jetty was built.",
    ),
    ("sea-stack.jpg", "The Stack", "At low water one can walk through its arch."),
    ("cliff-path.jpg", "The steps", "A hundred and twelve of them, and one bench."),
    ("lantern.jpg", "The lantern", "Lit by hand, every evening."),
    ("pebbles.jpg", "The beach", "Look for the orange one."),
    ("rope-coil.jpg", "Rope", "Coiled with the sun, as it has to be."),
    ("jetty.jpg", "The jetty", "The last boat leaves at five."),
)

#: The slides of the slideshow on The Island.
SIX = (
    ("island-dawn.jpg", "The island at dawn"),
    ("ferry-bow.jpg", "The launch comes in"),
    ("signal-flags.jpg", "Flags for the first boat"),
    ("fog.jpg", "Fog, and a bell"),
    ("harbour-steps.jpg", "The harbour steps"),
    ("jetty.jpg", "The last boat has left"),
)

#: What stands beside text on Visit.
WAITING = (
    (
        "keepers-cottage.jpg",
        "In the cottage",
        "The stove is lit from October to April. Tea is on the shelf, the tin beside it is for what"
        " you think it is worth.",
    ),
    (
        "jetty.jpg",
        "On the jetty",
        "The boat is seen a quarter of an hour before it lands. Stand behind the bollard.",
    ),
    (
        "harbour-steps.jpg",
        "On the steps",
        "Out of the wind, and in the sun until three. The lowest four are under water at high tide.",
    ),
)

#: The cuts of the logo, the fullest first, and the height of their smallest lettering in percent.
CUTS = (
    ("tern-point-full.svg", 17.0),
    ("tern-point-short.svg", 55.0),
    ("tern-point-stacked.svg", 18.0),
    ("tern-point-symbol.svg", None),
)

#: A frame that the whole site can use.
HALF = m.NamedFrame(
    id="half-beside-text",
    name="half, beside text",
    spans={
        "D": m.FrameValues(
            width=m.ShareWidth(percent=50, of="container"), height=m.NaturalHeight()
        ),
        "B": m.FrameValues(
            width=m.ShareWidth(percent=100, of="container"), height=m.RatioHeight(w=16, h=9)
        ),
    },
)


def load() -> None:
    user, made = get_user_model().objects.get_or_create(username="demo")
    if made:
        user.set_unusable_password()
        user.save()
    if Site.objects.filter(members=user, name="Tern Point").exists():
        return
    print("· loading the demo site Tern Point", file=sys.stderr)
    with transaction.atomic():
        site = Site.objects.create(
            name="Tern Point", plan=m.Site(frames=(HALF,)).model_dump(mode="json")
        )
        Membership.objects.create(site=site, user=user, role=Role.OWNER)
        originals = bring(site)
        pages: dict[str, Page] = {}
        for position, (title, nouns) in enumerate(placements(originals).items(), 1):
            pages[title] = Page.objects.create(site=site, title=title, position=position)
            for n, noun in enumerate(nouns, 1):
                Placement(page=pages[title], position=n, revision=0).keep(noun)
        logo = pages["Visit"].placements.get(position=1)
        for title in ("Home", "Crossings"):
            # the logo stands first there too
            Home.objects.create(page=pages[title], placement=logo)
            rows = on_page(pages[title])
            order = (len(rows) - 1, *range(len(rows) - 1))
            laid_out(pages[title], {"D": m.PageValues(order=order)})
        laid_out(
            pages["The Island"],
            {
                "D": m.PageValues(head_px=72, head_over=True),
                "A": m.PageValues(head_px=56, order=(0, 2, 1)),
            },
        )


def laid_out(page: Page, layout: m.PageLayout) -> None:
    page.layout = stored_layout(layout, on_page(page))
    page.save(update_fields=["layout"])


if __name__ == "__main__":
    load()

"""A logo in cuts that differ with the width. The rules of one cut are in test_galleries."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane import findings_of, strip_of
from skypane import model as m
from skypane.changes import Version, differences
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.layouts import begun
from skypane.markup.lines import text_of
from skypane.markup.pane import pane_lines
from skypane.markup.picture import placement_lines
from skypane.picks import Environment, pick
from skypane.picks.markup import read_markup
from skypane.reading import read
from skypane.reading.page import read_page
from skypane.shown.plan import plan
from skypane.sitefile import MISSING, FilePage, renumbered, site_file
from skypane.widths.spans import spans_of
from skypane.words.copies import Copies

SITE = m.Site()


def cut(i, w, h, **values):
    return m.Original(
        id=i,
        name=f"{i}.svg",
        width_px=w,
        height_px=h,
        sha256=str(i),
        alt="TP",
        medium="drawing",
        **values,
    )


ORIGINALS = {1: cut(1, 625, 150), 2: cut(2, 263, 416), 3: cut(3, 128, 128)}
CUTS = [
    {"original": 1, "lettering_percent": 20},
    {"original": 2, "lettering_percent": 18},
    {"original": 3, "lettering_percent": None},
]


def logo(shows=None, cuts=CUTS, width=None, **values):
    box = {
        "width": width or m.ShareWidth(percent=20),
        "height": m.RatioHeight(w=1, h=1),
    }
    shows = shows or {"D": 1}
    treatments = {k: m.Treatment(original=i, **(box if k == "D" else {})) for k, i in shows.items()}
    layout = {"D": {"cuts": cuts, **values}}
    return m.Placement(
        name="Mark", kind="logo", layout=layout, parts=(m.Part(treatments=treatments),)
    )


def planned(placement):
    return plan(SITE, placement, ORIGINALS)


def rules_of(placement):
    return {f.rule for f in findings_of(planned(placement))}


@given(
    percent=st.floats(5, 100),
    padding=st.floats(0, 5),
    lies=st.sampled_from(["start", "centre", "end"]),
    drawn=st.sampled_from(["fitted", "natural"]),
    of=st.sampled_from([1, 2, 3]),
)
def test_no_cut_is_cut_off_and_nothing_is_wider_than_the_page(percent, padding, lies, drawn, of):
    made = logo(
        {"D": of}, width=m.ShareWidth(percent=percent), padding_px=padding, lies=lies, drawn=drawn
    )
    for p in planned(made).parts[0].shown:
        assert p.outline == m.Rect(x=0, y=0, w=1, h=1)
        assert p.shown.x0.max() == 0
        assert (p.drawn_cut_width <= p.W + 1e-6).all()
        assert (p.frame.x + p.W <= p.viewport_w + 1e-6).all()
        if drawn == "natural":
            assert p.drawn_cut_width.max() <= ORIGINALS[of].width_px + 1e-6


def test_a_fixed_box_is_never_wider_than_the_page():
    made = logo(width=m.FixedWidth(width_px=900))
    assert planned(made).parts[0].of("A").W.max() == 599
    assert "wider-than-page" not in rules_of(made)


def test_lettering_that_cannot_be_read_is_found_with_its_px():
    """625 × 150 with lettering of a fifth of its height is read from 11·(625/150)/0.2 = 229.2 px
    (worked from the rule); a box of 20 % has as much from 1146 px of page."""
    made = logo()
    (found,) = [f for f in findings_of(planned(made)) if f.rule == "lettering-small"]
    assert found.spans == ("A", "B", "C")
    assert "from 320 to 1145 px" in found.sentence
    assert "drawn 64 px wide and can be read from 229 px" in found.sentence
    assert "lettering-small" not in rules_of(logo({"D": 1, "C": 3}))


def test_what_every_width_calls_for_and_the_breakpoints_for_it():
    reading = read(SITE, logo(), ORIGINALS).own
    # 2 is drawn as high as the box: readable from 11/0.18 = 61.1 px, 306 px of page: at any width
    assert [(r.first, r.last, r.cut) for r in reading.called_for] == [
        (320, 1145, 1),
        (1146, 2560, 0),
    ]
    assert reading.breaks == (1145,)
    assert reading.spans == {"A": 2, "B": 2, "C": 2, "D": 1}
    assert [c.shows for c in reading.cuts] == [((1146, 2560),), ((320, 1145),), ()]
    assert reading.bands[0].name == "Lettering readable"


def test_a_cut_without_lettering_hides_what_comes_after_it():
    cuts = [CUTS[2], *CUTS[:2]]
    made = logo(cuts=cuts)
    (found,) = [f for f in findings_of(planned(made)) if f.rule == "cut-hides-others"]
    assert found.sentence == "Cut 1 has no lettering and hides the 2 after it."
    assert "cut-hides-others" not in rules_of(logo())


def test_bad_cuts_are_refused_in_words():
    with pytest.raises(InvalidPlan, match="One picture stands for two cuts"):
        planned(logo(cuts=[CUTS[0], CUTS[0]]))
    with pytest.raises(InvalidPlan, match="5"):
        planned(logo(cuts=[{"original": i} for i in range(1, 7)]))
    with pytest.raises(InvalidPlan, match=r"padding of 400 px .* nothing is left"):
        planned(logo(padding_px=400))


def test_cuts_whose_original_is_gone_are_passed_over():
    cuts = [*CUTS, {"original": 99, "lettering_percent": 40}]
    reading = read(SITE, logo(cuts=cuts), ORIGINALS).own
    assert [c.original for c in reading.cuts] == [1, 2, 3]
    assert logo(cuts=cuts).original_ids == {1, 2, 3, 99}
    assert read(SITE, logo(cuts=[]), ORIGINALS).own.called_for == ()


def test_the_colour_of_its_own_edge_is_sampled():
    """All of its edge in one colour, and none of it see-through."""
    import numpy as np

    def copies(colour, alpha):
        px = np.zeros((20, 40, 4), dtype=np.uint8)
        px[..., :3], px[..., 3] = colour, alpha
        px[8:12, 8:30, :3] = 255
        return Copies(by_width=(px,), alpha=alpha < 255)

    found = read(SITE, logo(), ORIGINALS, pixels=lambda o: copies((20, 48, 63), 255))
    assert found.own.edges == {1: "#14303f", 2: "#14303f", 3: "#14303f"}
    assert read(SITE, logo(), ORIGINALS, pixels=lambda o: copies((0, 0, 0), 0)).own.edges == {}


def test_it_begins_with_what_shows_as_its_first_cut():
    made = begun(
        "logo",
        SITE,
        m.Placement(name="M", parts=(m.Part(treatments={"D": m.Treatment(original=2)}),)),
    )
    assert made.layout["D"]["cuts"] == [{"original": 2, "lettering_percent": None}]
    assert planned(made).parts[0].of("D").W.max() == 240
    assert begun("logo", SITE, m.Placement(name="M")).layout == {}


def test_an_svg_stays_one_file_for_every_density():
    names = [r.name for _, mine in renditions(planned(logo({"D": 1, "A": 3}))) for r in mine]
    assert names == ["mark--a.svg", "mark.svg"]


def test_cuts_travel_with_a_site_file():
    found = site_file(
        "S", SITE, [FilePage(title="Visit", placements=(logo(),))], ORIGINALS.values()
    )
    back = renumbered(found.pages[0].placements[0], {1: 11, 2: 12, 3: 13})
    assert [c["original"] for c in back.layout["D"]["cuts"]] == [11, 12, 13]
    without = renumbered(logo(), {1: 11, 2: 12})
    assert [c["original"] for c in without.layout["D"]["cuts"]] == [11, 12, MISSING]


def test_changes_of_cuts_are_told():
    before, after = logo(), logo(cuts=CUTS[:2])
    said = differences(Version(before, {}), Version(after, {}))
    assert said == ("Cuts of span D",)


def turned(treatments, shows=None, **values):
    """The logo with another cut for portrait orientation."""
    made = logo(shows, **values)
    own = {k: m.Treatment(**t) for k, t in treatments.items()}
    other = m.Part(of="mark", when=("portrait",), treatments=own)
    usual = made.parts[0].model_copy(update={"key": "mark"})
    return made.model_copy(update={"parts": (usual, other)})


OTHERWISE = {
    "C": {"show": "picture", "original": 3},
    "A": {"original": 2},
}


def picked(made, width, height, site=SITE):
    """The file that a viewport takes of the markup."""
    computed = plan(site, made, ORIGINALS)
    read = read_markup(text_of(placement_lines(computed, renditions(computed))))
    return pick(read, Environment(width=width, height=height)).url


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_in_portrait_another_cut_shows_in_its_place(style):
    """A viewport is in portrait orientation where it is at least as high as it is wide, a square
    included (Media Queries Level 4, §4.4). In the widest span nothing else is said for it."""
    site, made = SITE.model_copy(update={"media_style": style}), turned(OTHERWISE, {"D": 1, "A": 3})
    named = {"A": "mark-portrait--a.svg", "B": "mark-portrait--c.svg", "C": "mark-portrait--c.svg"}
    for span in spans_of(site):
        lies = "mark--a.svg" if span.letter == "A" else "mark.svg"
        stands = named.get(span.letter, "mark.svg")
        for w in (span.first, span.last):
            assert picked(made, w, w - 1, site) == f"images/{lies}", (w, "lies")
            assert picked(made, w, w, site) == f"images/{stands}", (w, "square")
            assert picked(made, w, w + 300, site) == f"images/{stands}", (w, "stands")


def test_panes_take_the_same_cut_as_the_delivered_page():
    made = turned(OTHERWISE, {"D": 1, "A": 3})
    panes = read_markup(text_of(pane_lines(planned(made), lambda o, *_: o.name)))
    for width, height, name in ((400, 800, "2.svg"), (800, 400, "1.svg"), (2000, 2400, "1.svg")):
        assert pick(panes, Environment(width=width, height=height)).url == name


def test_where_the_logo_shows_nothing_nothing_shows_in_portrait():
    made = turned({"D": {"original": 2}})
    gone = m.Treatment(show="nothing")
    part = made.parts[0]
    part = part.model_copy(update={"treatments": {**part.treatments, "A": gone}})
    made = made.with_part(0, part)
    assert [p.span.letter for p in planned(made).parts[1].shown] == ["B", "C", "D"]
    assert picked(made, 400, 800).startswith("data:")


def test_lettering_is_read_of_what_typical_screens_see():
    """Up to 1023 px they stand upright: cut 3 has no lettering, where cut 1 cannot be read."""
    reading = read(SITE, turned({"D": {"original": 3}}), ORIGINALS).own
    assert reading.portrait == ((320, 1023),)
    verdicts = [(r.first, r.last, r.verdict) for r in reading.bands[0].runs]
    assert verdicts == [(320, 1023, "readable"), (1024, 1145, "faint"), (1146, 2560, "readable")]
    # from the widest on: what C sets then is handed down to B and A
    assert reading.wants == {"C": 2}


def test_a_page_weighs_one_of_both_cuts():
    made = turned({"D": {"original": 3}})
    sizes = {"mark.svg": 1000, "mark-portrait.svg": 100}
    of = {r.key: sizes[r.name] for _, mine in renditions(planned(made)) for r in mine}
    page = read_page(
        SITE, {}, [made], ORIGINALS, preview=lambda o, *_: o.name, made_bytes=lambda keys: of
    )
    weights = dict(page.bands[1].curve.points)
    assert (weights[320], weights[1023], weights[1024], weights[2560]) == (100, 100, 1000, 1000)
    assert page.budget_bytes == SITE.budget_bytes


def test_a_logo_is_one_part_and_what_stands_in_for_it_stays_whatever_it_becomes():
    two = logo()
    for role in (None, "mark"):
        with pytest.raises(InvalidPlan, match="has 1 part"):
            planned(two.model_copy(update={"parts": (*two.parts, m.Part(role=role))}))
    before, after = Version(logo(), {}), Version(turned({"D": {"original": 3}}), {})
    assert differences(before, after) == ("Picture in portrait added",)
    assert begun("picture", SITE, after.placement).parts == after.placement.parts


def test_a_cut_in_portrait_needs_no_alt_text_of_its_own():
    named = {**ORIGINALS, 3: ORIGINALS[3].model_copy(update={"alt": None})}
    made = turned({"D": {"original": 3}})
    assert "no-alt" not in {f.rule for f in findings_of(plan(SITE, made, named))}


@pytest.mark.parametrize(("lies", "across"), [("start", 0), ("centre", 0.5), ("end", 1)])
def test_in_small_it_is_whole_too(lies, across):
    """A cut of 625 × 150 fills a square across and 150/625 of it down; one of 263 × 416 stands
    where it is aligned (object-fit: contain, CSS Images 3, §5.5)."""
    wide, tall = logo({"D": 1}, lies=lies), logo({"D": 2}, lies=lies)
    (*_, found), (*_, other) = (strip_of(planned(made).parts[0]) for made in (wide, tall))
    assert found.window == m.Rect(x=0, y=0, w=1, h=1)
    place = found.place
    assert (place.x, place.w, place.h) == pytest.approx((0, 1, 0.24), abs=1e-6)
    assert place.y == pytest.approx(0.38, abs=1e-6)
    share = 263 / 416
    assert (other.place.x, other.place.w) == pytest.approx((across * (1 - share), share), abs=1e-6)
    assert (other.place.y, other.place.h) == pytest.approx((0, 1), abs=1e-6)

"""Handing down, needed px, renditions and their names (rules §3, §4 and §13)."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st
from planned import by_density, effective, own, part_plan, span_plans, treated
from skypane.carried import respan
from skypane.errors import InvalidPlan
from skypane.files.groups import groups
from skypane.files.names import stems
from skypane.files.renditions import pixel_sizes, renditions, scaled, sharp_up_to
from skypane.geometry import WHOLE, Crop
from skypane.handing_down import Origin
from skypane.identifiers import identifier
from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    Following,
    FullWidth,
    NaturalHeight,
    Original,
    RatioHeight,
    ShareWidth,
    Treatment,
    ViewportHeight,
    picture,
)
from skypane.shown.plan import plan
from skypane.treatments import FIELDS, resolve
from skypane.widths.spans import spans_of

WIDE = Original(id=1, name="wide.jpg", width_px=5200, height_px=2900, sha256="w", focal=(0.74, 0.5))
TALL = Original(id=2, name="tall.jpg", width_px=2900, height_px=4300, sha256="t")
SMALL = Original(id=3, name="small.jpg", width_px=900, height_px=600, sha256="s")
ORIGINALS = {o.id: o for o in (WIDE, TALL, SMALL)}


def placement(name="Lighthouse", **treatments):
    return picture(name=name, treatments=treatments)


def files(site, p):
    return [r for _, mine in renditions(plan(site, p, ORIGINALS)) for r in mine]


# -- check values (common practice, rules §3) --


def test_a_frame_of_471_needs_942_at_2x_and_half_of_it_at_1x():
    sizes = pixel_sizes(Crop(x=0, y=0, w=4000, h=2000), 471, (1, 2))
    assert sizes[2][0] == 942 and sizes[1][0] == 471


def test_a_full_bleed_picture_up_to_991_needs_1982():
    p = placement(B=Treatment(original=1, height=RatioHeight(w=16, h=9)))
    made = files(by_density(breakpoints=(991,)), p)
    assert {r.width_px for r in made if r.spans == ("A",)} == {991, 1982}


def test_how_wide_a_frame_an_original_fills_sharply():
    # 471 → 942 at 2x, and back (common practice)
    assert (sharp_up_to(942, 2), sharp_up_to(942, 1), sharp_up_to(5200, 2)) == (471, 942, 2600)


def test_1600_by_900_scaled_to_700_high_is_1244_by_700():
    assert scaled((1600, 900), height=700) == (1244, 700)


def test_a_frame_taller_than_the_picture_needs_the_drawn_width_unless_it_is_cut():
    # 16:9 covering 375×500 is drawn 888.9 px wide and needs 1778 px at 2x, not 750 (rules §4)
    hd = Original(id=9, name="hd.jpg", width_px=3200, height_px=1800)
    site = by_density(narrowest=374, widest=375, breakpoints=())
    t = {"width": FixedWidth(width_px=375), "height": FixedHeight(height_px=500), "original": 9}
    whole = part_plan(site, placement(A=Treatment(**t, whole=True)), {9: hd})
    cut = part_plan(site, placement(A=Treatment(**t)), {9: hd})
    assert groups(whole, "densities")[0].needed * 2 == 1778
    assert groups(cut, "densities")[0].needed * 2 == 750


# -- handing down --


def test_wider_spans_hand_down_what_narrower_ones_do_not_set():
    held = effective(
        by_density(), placement(D=Treatment(original=1, fit="contain"), B=Treatment(fit="cover"))
    )
    assert [held[x].fit for x in "ABCD"] == ["cover", "cover", "contain", "contain"]
    (resolved,) = resolve(
        by_density(), placement(D=Treatment(original=1, fit="contain"), B=Treatment(fit="cover"))
    )
    origin = {letter: r.origin for letter, r in resolved.items()}
    assert [origin[x]["fit"].letter for x in "ABCD"] == ["B", "B", "D", "D"]
    assert origin["A"]["original"] == Origin("D", "part") and "height" not in origin["A"]


def test_changing_a_narrow_span_does_not_alter_a_wider_one():
    base = placement(D=Treatment(original=1, height=RatioHeight(w=2, h=1)))
    changed = placement(D=own(base)["D"], A=Treatment(original=2, height=RatioHeight(w=4, h=5)))
    before, after = (renditions(plan(by_density(), p, ORIGINALS)) for p in (base, changed))
    assert [r.key for g, m in before for r in m if "A" not in r.spans] == [
        r.key for g, m in after for r in m if "A" not in r.spans
    ]


@given(st.sets(st.integers(321, 2500), max_size=5), st.sampled_from([0, 1, 2, 3, 4]))
def test_a_new_breakpoint_changes_nothing_at_any_width(more, _):
    before = by_density()
    after = by_density(breakpoints=tuple(sorted({*before.breakpoints, *more})))
    p = placement(
        D=Treatment(original=1, height=RatioHeight(w=2, h=1)),
        B=Treatment(height=FixedHeight(height_px=300)),
        A=Treatment(original=2, fit="contain"),
    )
    carried = respan(before, after, p)

    def at(site, where, width):
        letter = next(s.letter for s in spans_of(site) if s.first <= width <= s.last)
        e = effective(site, where)[letter]
        return {f: getattr(e, f) for f in FIELDS}

    for width in (320, 450, 599, 600, 700, 1023, 1024, 1400, 1600, 2560):
        assert at(before, p, width) == at(after, carried, width)


def test_removing_a_breakpoint_keeps_the_narrower_spans_as_they_were():
    p = placement(
        D=Treatment(original=1),
        B=Treatment(fit="contain"),
        A=Treatment(height=FixedHeight(height_px=200)),
    )
    # B and C become one, which takes after C
    carried = respan(by_density(), by_density(breakpoints=(599, 1599)), p)
    held = effective(by_density(breakpoints=(599, 1599)), carried)
    assert [held[x].fit for x in "ABC"] == ["contain", "cover", "cover"]
    assert held["A"].height == FixedHeight(height_px=200)


# -- renditions --


def test_four_spans_two_densities_three_formats():
    p = placement(
        D=Treatment(original=1, height=RatioHeight(w=2.4, h=1)),
        C=Treatment(height=RatioHeight(w=2, h=1)),
        B=Treatment(height=RatioHeight(w=3, h=2)),
        A=Treatment(original=2, height=RatioHeight(w=4, h=5)),
    )
    made = files(by_density(), p)
    assert len(made) == 24
    assert [r.name for r in made if r.format == "avif"] == [
        "lighthouse--a.avif",
        "lighthouse--a@2x.avif",
        "lighthouse--b.avif",
        "lighthouse--b@2x.avif",
        "lighthouse--c.avif",
        "lighthouse--c@2x.avif",
        "lighthouse.avif",
        "lighthouse@2x.avif",
    ]
    for one, two in zip(made[:3], made[3:6], strict=True):
        assert (two.width_px, two.height_px) == (2 * one.width_px, 2 * one.height_px)


def test_never_enlarged_and_soft_by_how_much():
    p = placement(D=Treatment(original=3, height=RatioHeight(w=3, h=2)))
    made = files(by_density(breakpoints=()), treated(p, {"A": own(p)["D"]}))
    # 1x and 2x would be one file
    assert {(r.width_px, r.needed_px, r.density) for r in made} == {(900, 2560, 1)}
    assert made[0].share == pytest.approx(900 / 2560)


def test_where_only_2x_is_capped_1x_stays_sharp():
    sizes = pixel_sizes(Crop(x=0, y=0, w=1000, h=500), 599, (1, 2))
    assert sizes == {1: (599, 300), 2: (1000, 500)}


def test_equal_files_of_neighbouring_spans_are_one():
    p = placement(
        D=Treatment(original=1, width=FixedWidth(width_px=300), height=RatioHeight(w=3, h=2))
    )
    made = files(by_density(), p)
    assert len(made) == 6 and made[0].spans == ("A", "B", "C", "D")
    assert made[0].name == "lighthouse.avif"


def test_whole_pictures_serve_neighbours_with_one_file_of_the_greatest_need():
    p = placement(
        D=Treatment(original=1, height=RatioHeight(w=2, h=1), whole=True),
        A=Treatment(original=2, whole=False),
    )
    part = part_plan(by_density(), p, ORIGINALS)
    found = groups(part, "densities")
    assert [g.letters for g in found] == [("A",), ("B", "C", "D")]
    assert found[1].crop == Crop(x=0, y=0, w=5200, h=2900) and found[1].needed == 2560
    assert part.shown[1].cut == WHOLE


def test_transparency_takes_png_in_place_of_jpeg():
    mark = Original(id=4, name="mark.png", width_px=2400, height_px=687, alpha=True)
    p = placement(D=Treatment(original=4, width=FixedWidth(width_px=240)))
    made = [r for _, m in renditions(plan(by_density(), p, {4: mark})) for r in m]
    assert [r.format for r in made[:3]] == ["avif", "webp", "png"]


def test_the_cut_of_a_frame_in_vh_serves_every_height_of_the_span():
    p = placement(D=Treatment(original=1, height=ViewportHeight(percent=100)))
    plans = span_plans(by_density(), p, ORIGINALS)
    narrow = plans[0]
    assert narrow.viewport_h.min() == 560 and narrow.viewport_h.max() == 932
    # the widest window is at 599 × 560, the tallest picture needs all of the height
    assert narrow.cut.w == pytest.approx(599 / (560 * WIDE.width_px / WIDE.height_px), rel=1e-6)


any_placement = st.fixed_dictionaries(
    {},
    optional={
        letter: st.builds(
            Treatment,
            original=st.sampled_from([1, 2, 3]) | st.none(),
            width=st.sampled_from(
                [
                    FullWidth(),
                    FixedWidth(width_px=333),
                    ShareWidth(percent=37, of="container"),
                    ColumnsWidth(columns=3, gutter_px=20),
                ]
            ),
            height=st.sampled_from(
                [
                    NaturalHeight(),
                    RatioHeight(w=4, h=5),
                    FixedHeight(height_px=300),
                    ViewportHeight(percent=60, least_px=200),
                ]
            ),
            whole=st.booleans(),
            fit=st.sampled_from(["cover", "contain"]),
        )
        for letter in "ABCD"
    },
)


@given(any_placement, st.text(max_size=40).filter(lambda t: t.strip()))
def test_names_are_unique_and_safe_and_crops_inside(treatments, name):
    treatments.setdefault("D", Treatment(original=1))
    made = files(by_density(), picture(name=name, treatments=treatments))
    by_name = {r.name: r.key for r in made}
    assert {(r.name, r.key) for r in made} == set(by_name.items())  # one name, one file
    for r in made:
        assert re.fullmatch(r"[a-z0-9][a-z0-9@.-]*\.(avif|webp|jpg|png)", r.name)
        o = ORIGINALS[r.original]
        assert r.crop.x + r.crop.w <= o.width_px and r.crop.y + r.crop.h <= o.height_px
        assert r.width_px <= r.crop.w and r.height_px <= r.crop.h


def test_titles_take_the_letter_s_place_and_doubles_are_told_apart():
    p = placement(
        D=Treatment(original=1, height=RatioHeight(w=2, h=1)),
        A=Treatment(height=RatioHeight(w=1, h=1)),
    )
    site = by_density(titles={"A": "narrow", "B": "narrow"})
    stems = {r.name for r in files(site, p) if r.format == "avif" and r.density == 1}
    assert stems == {
        "lighthouse--narrow.avif",
        "lighthouse--narrow-2.avif",
        "lighthouse--c.avif",
        "lighthouse.avif",
    }


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("Four boats", "four-boats"),
        ("Größe Ürümqi", "grosse-urumqi"),
        ("../../etc", "etc"),
        ("灯台", "deng-tai"),
        ("船", "chuan"),
        ("Лодки", "lodki"),
        ("3 boats", "picture-3-boats"),
        ("404", "picture-404"),
        ("-", "picture"),
        ("🚣", "picture"),
        ("CON", "con-picture"),
        ("a" * 99, "a" * 60),
    ],
)
def test_identifiers(text, expected):
    assert identifier(text) == expected


@given(st.text(max_size=90))
def test_every_name_gives_a_class_that_css_reads_as_it_stands(text):
    import tinycss2

    (token,) = tinycss2.parse_component_value_list(identifier(text))
    assert token.type == "ident" and token.value == identifier(text) and len(token.value) <= 80


def test_no_two_placements_of_a_site_are_called_alike():
    assert stems(["Boats", "Boats!", "boats-2", "船", "Chuan"]) == [
        "boats",
        "boats-2",
        "boats-2-2",
        "chuan",
        "chuan-2",
    ]


# -- refusals --


def test_a_frame_without_room_is_refused_at_its_field():
    p = placement(
        D=Treatment(original=1), A=Treatment(width=ColumnsWidth(columns=4, gutter_px=120))
    )
    with pytest.raises(InvalidPlan, match="no width at 320 px, span A") as refused:
        span_plans(by_density(container=Container(max_width_px=1080, margin_px=0)), p, ORIGINALS)
    assert refused.value.field == "parts.0.treatments.A.width"


def test_an_original_that_is_not_there_is_refused_at_its_field():
    with pytest.raises(InvalidPlan, match="not in this site") as refused:
        span_plans(by_density(), placement(C=Treatment(original=77)), ORIGINALS)
    assert refused.value.field == "parts.0.treatments.C.original"


def test_a_letter_without_a_span_is_refused():
    with pytest.raises(InvalidPlan, match="no span K"):
        effective(by_density(), placement(K=Treatment(fit="cover")))


def test_following_is_the_default_aim():
    assert effective(by_density(), placement())["A"].aim == Following()

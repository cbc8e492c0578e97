"""Addresses of image services: templates (RFC 6570), what is read off addresses, signatures."""

import re
from urllib.parse import parse_qs, urlsplit

import pytest
import uritemplate
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from skypane.files.renditions import renditions
from skypane.findings import findings_of
from skypane.geometry import Crop, Rect
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.model import (
    HandOver,
    Original,
    Part,
    Placement,
    RatioHeight,
    Service,
    Site,
    Treatment,
)
from skypane.model.service import expressions, variables_of
from skypane.services.addresses import at_service, below_host
from skypane.services.proposing import NoTemplate, proposed
from skypane.services.signing import UNSIGNED, is_genuine, signature
from skypane.shown.plan import plan

#: RFC 6570 §3.2 and §1.2: the variables there, and some of its own examples of each level.
VARIABLES = {
    "count": ["one", "two", "three"],
    "dom": ["example", "com"],
    "dub": "me/too",
    "hello": "Hello World!",
    "half": "50%",
    "var": "value",
    "who": "fred",
    "base": "http://example.com/home/",
    "path": "/foo/bar",
    "list": ["red", "green", "blue"],
    "keys": {"semi": ";", "dot": ".", "comma": ","},
    "v": "6",
    "x": "1024",
    "y": "768",
    "empty": "",
}
EXAMPLES = [
    ("{var}", "value"),
    ("{hello}", "Hello%20World%21"),
    ("{half}", "50%25"),
    ("O{empty}X", "OX"),
    ("{x,y}", "1024,768"),
    ("?{x,empty}", "?1024,"),
    ("{var:3}", "val"),
    ("{list}", "red,green,blue"),
    ("{list*}", "red,green,blue"),
    ("{+hello}", "Hello%20World!"),
    ("{+half}", "50%25"),
    ("{base}index", "http%3A%2F%2Fexample.com%2Fhome%2Findex"),
    ("{+base}index", "http://example.com/home/index"),
    ("{+path}/here", "/foo/bar/here"),
    ("{+path:6}/here", "/foo/b/here"),
    ("{#path,x}/here", "#/foo/bar,1024/here"),
    ("X{.var:3}", "X.val"),
    ("{/var,x}/here", "/value/1024/here"),
    ("{/list*}", "/red/green/blue"),
    ("{;x,y,empty}", ";x=1024;y=768;empty"),
    ("{?x,y}", "?x=1024&y=768"),
    ("{?x,y,empty}", "?x=1024&y=768&empty="),
    ("{?var:3}", "?var=val"),
    ("{?list*}", "?list=red&list=green&list=blue"),
    ("?fixed=yes{&x}", "?fixed=yes&x=1024"),
    ("{&var:3}", "&var=val"),
]


@pytest.mark.parametrize(("template", "expanded"), EXAMPLES)
def test_templates_are_those_of_the_standard(template, expanded):
    """RFC 6570 §3.2.2 to §3.2.9."""
    assert uritemplate.expand(template, VARIABLES) == expanded
    assert set(variables_of(template)) == set(uritemplate.variables(template))


@pytest.mark.parametrize(
    "template", ["{", "{}", "{a b}", "{?}", "a}b{c", "{a,}", "{=a}", "{a:0}", "/x y/{a}", '/"{a}']
)
def test_what_is_no_template_is_refused(template):
    """RFC 6570 §2: literals and expressions."""
    with pytest.raises(ValueError, match=r"no expression|cannot stand"):
        list(expressions(template))


MEANS = {"name": "name", "w": "width", "f": "format"}
CUTTING = {**MEANS, "cx": "crop_x", "cy": "crop_y", "cw": "crop_width", "ch": "crop_height"}


@pytest.mark.parametrize(
    ("template", "means", "said"),
    [
        ("https://p.example/a.jpg", {}, "There is no variable"),
        ("https://p.example/{name}{?w,q}", MEANS, "what {q} stands for"),
        ("https://p.example/{name}{?w}", MEANS, "There is no {f}"),
        ("https://p.example/{name}", {"name": "name"}, "how wide"),
        ("https://p.example/{?w}", {"w": "width"}, "which original"),
        ("https://p.example/{name}{?w,f}", {**MEANS, "f": "width"}, "Two variables"),
        ("p.example/{name}{?w,f}", MEANS, "begins with https://"),
        ("javascript://{name}{?w,f}", MEANS, "begins with https://"),
        ("https://{name}{?w,f}", MEANS, "begins with https://"),
        ("https://p.example/{name}{?w,f,cx}", {**MEANS, "cx": "crop_x"}, "four numbers"),
    ],
)
def test_a_template_says_which_file_and_everything_in_it_means_something(template, means, said):
    with pytest.raises(ValidationError, match=re.escape(said)):
        Service(template=template, means=means)


QUAY = Original(
    id=1, name="Kai früh.jpg", width_px=6000, height_px=4000, sha256="ab" * 32, alt="A quay"
)


def computed(service, treatments=None, **how):
    own = treatments or {"D": Treatment(original=1, height=RatioHeight(w=2, h=1))}
    placement = Placement(name="Quay", parts=(Part(treatments=own),))
    return plan(Site(hand_over=HandOver(service=service, **how)), placement, {1: QUAY})


@given(
    st.integers(0, 5000),
    st.integers(0, 3000),
    st.integers(1, 1000),
    st.sampled_from(["px", "shares"]),
)
def test_an_address_says_all_of_a_file(x, y, w, unit):
    service = Service(
        template="https://p.example/{name}{?w,f,cx,cy,cw,ch}", means=CUTTING, crop_in=unit
    )
    found = renditions(computed(service))[0][1][0]
    r = found.model_copy(update={"crop": Crop(x=x, y=y, w=w, h=w), "width_px": w})
    parts = urlsplit(at_service(service, {1: QUAY})(r))
    assert parts.path == "/Kai%20fr%C3%BCh.jpg"
    told = {k: float(v[0]) for k, v in parse_qs(parts.query).items() if k != "f"}
    over = (1, 1) if unit == "px" else (6000, 4000)
    wanted = {"w": w, "cx": x / over[0], "cy": y / over[1], "cw": w / over[0], "ch": w / over[1]}
    assert told == pytest.approx(wanted, abs=1e-4)


def test_code_asks_the_service_for_every_file():
    service = Service(template="https://p.example/{name}{?w,f,cx,cy,cw,ch}", means=CUTTING)
    found = computed(service)
    for output in ("html", "jsx", "django", "json"):
        text = text_of(written_as(found, renditions(found), output)[0].lines)
        assert "https://p.example/Kai%20fr%C3%BCh.jpg?w=" in text and "images/" not in text.replace(
            "image/", ""
        )


def test_where_the_format_is_negotiated_there_is_one_file_of_each_size_and_no_type():
    """RFC 9110 §12.5.1: the service chooses by `Accept`; a type in the markup would be a guess."""
    service = Service(template="https://p.example/{name}{?w}", means={"name": "name", "w": "width"})
    found = computed(service)
    (html, *_) = written_as(found, renditions(found), "html")
    text = text_of(html.lines)
    assert "type=" not in text and text.count("<source") == 0
    widths = re.findall(r"w=(\d+) ", text)
    assert len(widths) == len(set(widths)) > 2


def test_what_a_service_cannot_cut_css_aims_and_a_crop_is_told_of():
    service = Service(template="https://p.example/{name}{?w,f}", means=MEANS)
    crop = Treatment(crop=Rect(x=0.1, y=0.1, w=0.5, h=0.5))
    own = {"D": Treatment(original=1, height=RatioHeight(w=3, h=1)), "A": crop}
    found = computed(service, own)
    wide = found.parts[0].spans[-1]
    assert wide.cut == Rect(x=0, y=0, w=1, h=1)
    said = [f for f in findings_of(found) if f.rule == "service-cut"]
    assert [f.spans for f in said] == [("A",)]
    cutting = Service(template="https://p.example/{name}{?w,f,cx,cy,cw,ch}", means=CUTTING)
    assert not [f for f in findings_of(computed(cutting, own)) if f.rule == "service-cut"]


SIGNED = Service(
    template="https://p.example/{hash}/{name}{?w,exp,key,sig}",
    means={
        "hash": "hash",
        "name": "name",
        "w": "width",
        "exp": "expires",
        "key": "key",
        "sig": "signature",
    },
    key="b",
    seconds=3600,
)
KEYS = {"b": b"new", "a": b"old"}


def signed(now=10_000.0, key="b"):
    of = renditions(computed(SIGNED))[0][1][0]
    by = SIGNED.model_copy(update={"key": key})
    return at_service(by, {1: QUAY}, lambda said, name: signature(said, KEYS[name]), now)(of)


def test_a_signature_holds_for_one_address_and_one_key():
    address = signed()
    below, said = below_host(address), parse_qs(urlsplit(address).query)["sig"][0]
    assert UNSIGNED not in address and is_genuine(below, said, "b", KEYS)
    assert not is_genuine(below.replace("w=", "w=1"), said, "b", KEYS)
    assert not is_genuine(below, said, "a", KEYS) and not is_genuine(below, "", "b", KEYS)
    assert not is_genuine(
        below, said[:-1] + "0" * (said[-1] != "0") + "1" * (said[-1] == "0"), "b", KEYS
    )


def test_keys_take_turns_and_the_old_one_still_holds_as_long_as_it_is_kept():
    address = signed(key="a")
    below, said = below_host(address), parse_qs(urlsplit(address).query)["sig"][0]
    assert is_genuine(below, said, "a", KEYS)
    assert not is_genuine(below, said, "a", {"b": KEYS["b"]})


def test_equal_files_have_equal_addresses_as_long_as_they_hold():
    """So that caches can keep them: the time is not that of the moment."""
    assert signed(10_800.0) == signed(14_399.0) != signed(14_400.0)
    (expires,) = parse_qs(urlsplit(signed(10_800.0)).query)["exp"]
    assert 10_800 + 3600 <= int(expires) <= 10_800 + 2 * 3600


@pytest.mark.parametrize(
    ("addresses", "template", "means"),
    [
        (
            ["https://p.example/boats/quay.jpg?w=800&q=70&fit=crop"],
            "https://p.example/boats/{name}?fit=crop{&w,q}",
            {"name": "name", "w": "width", "q": "quality"},
        ),
        (
            ["https://p.example/800x600/quay.jpg"],
            "https://p.example/{width}x{height}/{name}",
            {"width": "width", "height": "height", "name": "name"},
        ),
        (
            ["https://p.example/a1b2/w_400/f", "https://p.example/c3d4/w_800/f"],
            "https://p.example/{name}/w_{width}/f",
            {"name": "name", "width": "width"},
        ),
        (
            ["https://p.example/get?src=quay.png&width=300&format=webp"],
            "https://p.example/get{?src,width,format}",
            {"src": "name", "width": "width", "format": "format"},
        ),
    ],
)
def test_a_template_is_read_off_addresses(addresses, template, means):
    found = proposed(addresses)
    assert (found.template, found.means) == (template, means)


@pytest.mark.parametrize(
    ("addresses", "said"),
    [
        ([], "Paste the address"),
        (["https://p.example/picture?w=800"], "name of a picture"),
        (["https://p.example/quay.jpg"], "looks like a width"),
        (["https://p.example/{name}?w=8"], "a space or a brace"),
        (["https://a.example/q.jpg?w=1", "https://b.example/q.jpg?w=1"], "the same service"),
        (["quay.jpg?w=800"], "whole addresses"),
    ],
)
def test_what_cannot_be_read_off_is_said(addresses, said):
    with pytest.raises(NoTemplate, match=re.escape(said)):
        proposed(addresses)


@given(st.text(max_size=60))
def test_whatever_is_pasted_is_read_or_refused_in_words(text):
    try:
        found = proposed([f"https://p.example/{text}"])
    except NoTemplate:
        return
    assert set(variables_of(found.template)) == set(found.means)

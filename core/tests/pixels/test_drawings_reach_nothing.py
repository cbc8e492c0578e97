"""What an SVG that is handed over may refer to: itself, and pictures and typefaces that it holds
(CSS Syntax 3 for how a browser reads what stands there)."""

import pytest
from hostile_drawings import PNG, drawn, hostile


@pytest.mark.parametrize("inner", hostile())
def test_nothing_of_it_refers_to_the_outside(inner):
    out = drawn(inner)
    for gone in ("a.example", "passwd", "x.svg", "svg+xml", "fetch", "import"):
        assert gone not in out.replace("\\", ""), out


@pytest.mark.parametrize(
    ("inner", "stays"),
    [
        ('<rect width="1" height="1" fill="url(#a)"/>', "url(#a)"),
        (f'<image href="{PNG}"/>', PNG),
        ('<rect width="1" height="1" style="fill: red; stroke: url(#a)"/>', "stroke: url(#a)"),
        ("<style>.a { fill: red } .b { filter: url('#a') }</style>", "fill: red"),
        ("<style>@media (prefers-color-scheme: dark) { .a { fill: white } }</style>", "white"),
        ("<style>@keyframes t { to { opacity: 0 } }</style>", "opacity: 0"),
        ("<style>@font-face { font-family: x; src: url(data:font/woff2;base64,AA) }</style>", "AA"),
        ('<g transform="translate(1 2) rotate(3)"/>', "translate(1 2) rotate(3)"),
        ('<path d="M0 0C1,1 2,2 3 3z"/>', "M0 0C1,1 2,2 3 3z"),
        (
            '<rect width="1" height="1"><animate attributeName="x" to="3" dur="1s"/></rect>',
            "animate",
        ),
        ('<text xml:space="preserve"> a </text>', "preserve"),
        ('<use href="#a"/>', 'href="#a"'),
        ('<rect width="1" height="1" style="fill: red; mask: url(//a.example/x)"/>', "fill: red"),
    ],
)
def test_what_is_inside_stays(inner, stays):
    assert stays in drawn(inner)

"""SVG files that refer to something outside of themselves, each in a way of its own (CSS Syntax 3
for how a browser reads what stands there)."""

from xml.etree import ElementTree

from skypane.pixels.svg import cleaned

OUT = "//a.example/x"
PNG = "data:image/png;base64,iVBORw0KGgo="
NESTED = "data:image/svg+xml,%3Csvg/%3E"

#: Ways to refer to the outside in a value, as a property or an attribute says it.
VALUES = [
    f"url({OUT})",
    f"url('{OUT}')",
    f'url("http:{OUT}")',
    f"URL({OUT})",
    f"u\\72l({OUT})",
    "url( \\2f\\2f a.example/x )",
    f"url(#a) url({OUT})",
    f"image-set('{OUT}' 1x)",
    f"-webkit-image-set(url({OUT}) 1x)",
    f"cross-fade(url(#a), url({OUT}))",
    f"image('{OUT}')",
    f"src('{OUT}')",
    f"url({NESTED})",
    f"var(--a, url({OUT}))",
    "url(file:///etc/passwd)",
    "url(x.svg#a)",
    f"url({OUT}",
    f"/* */url({OUT})",
]
PROPERTIES = ("fill", "filter", "mask", "clip-path", "cursor", "marker-end")
SHEETS = [
    f"@import url({OUT});",
    f"@import '{OUT}';",
    f"@im\\70ort url({OUT});",
    f"@IMPORT '{OUT}';",
    f"@font-face {{ font-family: x; src: url({OUT}) }}",
    f"@font-face {{ font-family: x; src: url(data:font/woff2;base64,AA), url({OUT}) }}",
    f"@media all {{ rect {{ fill: url({OUT}) }} }}",
    f"@namespace url({OUT});",
    f"rect {{ --a: url({OUT}) }}",
    f"rect {{ fill: red; background: image-set('{OUT}' 1x) }}",
    f"rect:hover {{ & path {{ fill: url({OUT}) }} }}",
]
ELEMENTS = [
    f'<image href="http:{OUT}"/>',
    f'<image xlink:href="{OUT}"/>',
    f'<image href="{NESTED}"/>',
    f'<image href=" &#10;{OUT}"/>',
    '<use href="x.svg#a"/>',
    f'<feImage href="{OUT}"/>',
    f'<a href="http:{OUT}"><rect width="1" height="1"/></a>',
    f'<image href="#a"><set attributeName="href" to="{OUT}"/></image>',
    f'<image href="#a"><animate attributeName="xlink:href" values="#a;{OUT}" dur="1s"/></image>',
    f'<rect width="1" height="1"><set attributeName="fill" to="url({OUT})"/></rect>',
    f'<rect width="1" height="1"><animate attributeName="style" values="fill:url({OUT})"/></rect>',
    f'<g xml:base="http:{OUT}"><use href="#a"/></g>',
    f'<html:img xmlns:html="http://www.w3.org/1999/xhtml" src="{OUT}"/>',
    f'<x:video xmlns:x="urn:x" src="{OUT}"/>',
    f'<foreignObject><p xmlns="http://www.w3.org/1999/xhtml" style="background:url({OUT})"/>'
    "</foreignObject>",
    f'<script href="{OUT}"/>',
    f'<?xml-stylesheet href="{OUT}"?>',
    '<rect width="1" height="1" onclick="fetch(1)"/>',
    f'<style><x:y xmlns:x="urn:x">@import "{OUT}";</x:y></style>',
]


def whole(inner: str) -> str:
    """A drawing as it comes."""
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
        f' viewBox="0 0 10 10"><g id="a"/>{inner}</svg>'
    )


def drawn(inner: str) -> str:
    """The same as it is handed over."""
    out = cleaned(whole(inner).encode(), (0, 0, 1, 1), (10, 10))
    assert out is not None
    ElementTree.fromstring(out)
    return out.decode()


def hostile() -> list[str]:
    """All of it, each in a drawing of its own."""
    quoted = [v.replace("&", "&amp;").replace('"', "&quot;") for v in VALUES]
    attributes = [
        f'<rect width="1" height="1" {PROPERTIES[i % len(PROPERTIES)]}="{v}"/>'
        for i, v in enumerate(quoted)
    ]
    styles = [
        f'<rect width="1" height="1" style="opacity: 1; {PROPERTIES[i % len(PROPERTIES)]}: {v}"/>'
        for i, v in enumerate(quoted)
    ]
    sheets = [f"<style>{s.replace('&', '&amp;').replace('<', '&lt;')}</style>" for s in SHEETS]
    return [*attributes, *styles, *sheets, *ELEMENTS]

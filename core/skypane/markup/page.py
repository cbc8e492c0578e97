"""Complete pages around the markup, which work from disk."""

from __future__ import annotations

import html
from collections.abc import Sequence

from skypane.markup.lines import Line
from skypane.model import PageColours
from skypane.model.colours import USUAL_COLOURS


def page_html(
    title: str,
    snippets: Sequence[str],
    *,
    stylesheets: Sequence[str] = ("picture.css",),
    scripts: Sequence[str] = (),
    fonts: Sequence[str] = (),
    first: Sequence[Line] = (),
    lang: str = "en",
    dark: bool = False,
    colours: PageColours = USUAL_COLOURS,
    colours_dark: PageColours | None = None,
) -> str:
    """A page around placements, in their order. `scripts` run once the page has been read, `fonts`
    are asked for early, `first` are links that ask for the first picture, `lang` is a language tag
    (RFC 5646). `dark`: something on it is otherwise in a dark colour scheme, so that it says that
    it is made for both (HTML Standard §4.2.5.1, `color-scheme`), and its scrollbars follow.
    `colours` are its own, `colours_dark` those in a dark colour scheme."""
    dark = dark or colours_dark is not None
    scheme = '\n    <meta name="color-scheme" content="light dark">' if dark else ""
    early = "".join(f"\n    {line.text}" for line in first)
    early += "".join(f"\n    {_preload(font)}" for font in fonts)
    links = "\n".join(
        f'    <link rel="stylesheet" href="{html.escape(sheet, quote=True)}">'
        for sheet in stylesheets
    )
    run = "".join(f"\n    {script_tag(name)}" for name in scripts)
    lines = [line for snippet in snippets for line in snippet.rstrip("\n").split("\n")]
    body = "\n".join(f"    {line}" for line in lines)
    return f"""<!DOCTYPE html>
<html lang="{html.escape(lang, quote=True)}">
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">{scheme}
    <title>{html.escape(title)}</title>{early}
{_body(dark, colours, colours_dark)}{links}{run}
  </head>
  <body>
{body}
  </body>
</html>
"""


def _body(dark: bool, colours: PageColours, colours_dark: PageColours | None) -> str:
    """The page's own rules. Where browsers may choose colours they are said: else they would choose
    others in the dark."""

    def said(of: PageColours) -> str:
        return f"background: {of.ground}; color: {of.ink};"

    if not dark and colours == USUAL_COLOURS:
        return "    <style>body { margin: 0; }</style>\n"
    rules = [f"body {{ margin: 0; {said(colours)} }}"]
    if colours_dark is not None:
        rules.append(f"@media (prefers-color-scheme: dark) {{ body {{ {said(colours_dark)} }} }}")
    inner = "".join(f"      {rule}\n" for rule in rules)
    return f"    <style>\n{inner}    </style>\n"


def _preload(font: str) -> str:
    """Fonts are fetched without credentials, a preload has to say so too (HTML Standard §4.2.4)."""
    url = html.escape(font, quote=True)
    return f'<link rel="preload" href="{url}" as="font" type="font/woff2" crossorigin>'


def script_tag(name: str) -> str:
    """Asks for a script that runs once the page has been read (HTML Standard §4.12.1, `defer`)."""
    return f'<script src="{html.escape(name, quote=True)}" defer></script>'

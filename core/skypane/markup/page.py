"""Complete pages around the markup, which work from disk."""

from __future__ import annotations

import html
from collections.abc import Sequence


def page_html(
    title: str, snippets: Sequence[str], *, stylesheet: str = "picture.css", lang: str = "en"
) -> str:
    """A page around placements, in their order."""
    lines = [line for snippet in snippets for line in snippet.rstrip("\n").split("\n")]
    body = "\n".join(f"    {line}" for line in lines)
    return f"""<!DOCTYPE html>
<html lang="{html.escape(lang, quote=True)}">
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>{html.escape(title)}</title>
    <style>body {{ margin: 0; }}</style>
    <link rel="stylesheet" href="{html.escape(stylesheet, quote=True)}">
  </head>
  <body>
{body}
  </body>
</html>
"""

"""A complete page around the markup, which works from disk."""

from __future__ import annotations

import html

from skypane.model import Placement


def page_html(
    placement: Placement, snippet: str, *, stylesheet: str = "picture.css", lang: str = "en"
) -> str:
    """A complete page around the markup, which works from disk."""
    title = html.escape(placement.name)
    body = "\n".join(f"    {line}" for line in snippet.rstrip("\n").split("\n"))
    return f"""<!DOCTYPE html>
<html lang="{html.escape(lang, quote=True)}">
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>{title}</title>
    <style>body {{ margin: 0; }}</style>
    <link rel="stylesheet" href="{html.escape(stylesheet, quote=True)}">
  </head>
  <body>
{body}
  </body>
</html>
"""

"""`skypane …`: the same rules from a shell or a build.

`plan`, `export` and `check` make a site from its file. Every other command reads JSON and writes
JSON. With `--batch` it reads JSON lines and writes one object per line in the same order; a line
that cannot be read answers `{"error": …}` and the rest goes on.
"""

from __future__ import annotations

import typer

from skypane.cli import galleries, pictures, sites, spots, widths, words

app = typer.Typer(
    no_args_is_help=True, add_completion=False, help="Rules of pictures at every viewport width."
)
for room in (pictures, widths, words, galleries, spots, sites):
    app.add_typer(room.commands)

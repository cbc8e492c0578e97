"""What whoever puts a delivery on a page has to know, in plain sentences."""

from __future__ import annotations

from collections.abc import Sequence
from textwrap import wrap

from skypane.model import HandOver

#: RFC 8246 for `immutable`, RFC 9111 §5.2.2.1 for `max-age`: a year.
IMMUTABLE = "Cache-Control: public, max-age=31536000, immutable"
COLUMNS = 80


def notes_text(
    title: str,
    how: HandOver,
    *,
    folder: str,
    sheet: str,
    scripts: Sequence[str] = (),
    fonts: bool = False,
) -> str:
    """The notes of a delivery. `folder` is where its pictures lie, `sheet` the style sheet of its
    pages; `scripts` go with it; `fonts`: typefaces do."""
    where = how.prefix or folder
    said = [
        f"The pictures are in {folder}. The pages of this delivery work from disk as they are.",
        (
            f"The code asks an image service for its pictures: {how.service.template}. Give it the"
            " originals under their names."
            if how.service
            else f"In the code they are looked for at {where} — put them there."
            if how.prefix
            else f"The code looks for them in {folder}, beside the page that it is put into."
        ),
    ]
    if how.hashed:
        said.append(
            "Every picture's name bears a hash of all that makes it: other content has another"
            f" name. They can be kept by browsers for good. Serve them with\n\n    {IMMUTABLE}"
        )
    else:
        said.append(
            "A picture that is cut anew has another name (_v2, _v3 …), one that is made anew with"
            " other settings has its old one: do not have browsers keep them for good."
        )
    of = {
        "html": f"snippets: HTML to be put into a page; {sheet} goes with it.",
        "jsx": "components: React components in TypeScript, each with its CSS module.",
        "django": "templates: fragments for {% include %}, each with its style sheet.",
        "json": "data: the same as JSON: elements, files, and the lines of the style sheet.",
    }
    said += [of[output] for output in how.outputs]
    of_host = {
        "rules": "host: style rules for the elements of the host, a file for each placement.",
        "views": "host: sheets to type from, one for each placement, which can be printed.",
        "one": "host: sheets to type from, one for each placement, which can be printed.",
    }
    said += [of_host[how.host.takes]] if how.host.takes in of_host else []
    said += [f"{name} goes into the page once, with defer." for name in scripts]
    if fonts:
        said.append("fonts holds the typefaces of the words; style sheets look for it beside them.")
    return "\n\n".join([title, *(_wrapped(s) for s in said)]) + "\n"


def _wrapped(said: str) -> str:
    """Lines that can be read anywhere; what stands further in stays as it is."""
    return "\n".join(
        line if line.startswith(" ") else "\n".join(wrap(line, COLUMNS))
        for line in said.split("\n")
    )

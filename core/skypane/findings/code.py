"""What is wrong with the markup."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.markup.picture import alt_text
from skypane.markup.ways import way_of


@rule(
    "no-alt", "wrong", "code", "Say what it shows, or mark it as decorative on purpose.", at="alt"
)
def no_alt(case: Case) -> Iterator[Found]:
    """Nobody has said what the picture shows, nor that it is decorative (WCAG 2.2, 1.1.1)."""
    is_written = case.part in case.plan.written and not _is_background(case)
    if is_written and not case.part.waiting and case.part.shown and alt_text(case.part) is None:
        yield (), "The picture has no alt text."


@rule(
    "lettering-unsaid",
    "wrong",
    "code",
    "Let the alt text say the words, or set them as text on the picture.",
    at="alt",
)
def lettering_unsaid(case: Case) -> Iterator[Found]:
    """A keep area holds lettering, but the picture is marked as decorative: its words are not there
    for those who do not see it (WCAG 2.2, 1.1.1 and 1.4.5)."""
    names = dict.fromkeys(a.name for p in case.part.shown for a in p.keeps if a.lettering)
    if names and alt_text(case.part) == "" and not _is_background(case):
        yield (
            (),
            f"{' and '.join(names)}: lettering in a picture that is marked as decorative.",
        )


@rule(
    "background-says",
    "wrong",
    "code",
    "Write it as a picture, or mark it as decorative on purpose.",
    at="way",
)
def background_says(case: Case) -> Iterator[Found]:
    """A background that shows something: it has no alt text, so that whoever does not see it is not
    told (WCAG 2.2, 1.1.1; its failure F3)."""
    if not _is_background(case):
        return
    names = dict.fromkeys(a.name for p in case.part.shown for a in p.keeps if a.lettering)
    if names:
        yield (), f"{' and '.join(names)}: lettering in a background, which nobody can be told of."
    elif alt_text(case.part):
        yield (), "The picture is a background, and its alt text is told to nobody."


def _is_background(case: Case) -> bool:
    """Whether a part of the placement is written as a background; what shows in its place is as
    well."""
    if case.part.part.of is not None:
        return False
    return way_of(case.plan, case.part, case.files) == "background"

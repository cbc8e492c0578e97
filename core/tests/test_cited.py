"""What code and tests cite is in the repository."""

import re
from pathlib import Path

ROOT = Path(__file__).parents[2]
FOLDERS = ("core", "server", "e2e", "bench", "demo")


def sources() -> list[Path]:
    return [p for folder in FOLDERS for p in (ROOT / folder).rglob("*.py")]


def test_every_section_of_the_rules_that_is_cited_is_there():
    told = set(re.findall(r"^## (\d+)\. ", (ROOT / "docs/rules.md").read_text(), re.M))
    cited = {
        n
        for path in sources()
        for of in re.findall(r"\brules\s+(§[\d§, and]+)", path.read_text())
        for n in re.findall(r"\d+", of)
    }
    assert len(cited) > 8 and cited <= told


def test_documents_that_are_named_are_there():
    named = {
        name
        for path in sources()
        for name in re.findall(r"\bdocs/[\w-]+\.(?:md|json)\b", path.read_text())
    }
    assert {"docs/rules.md", "docs/findings.md"} <= named
    assert [n for n in named if not (ROOT / n).exists()] == []


def test_files_and_folders_that_documents_name_are_there():
    gone = []
    for page in [ROOT / "README.md", *(ROOT / "docs").rglob("*.md")]:
        for name in re.findall(
            r"`((?:core|server|web|e2e|bench|demo|docs)/[\w./-]+)`", page.read_text()
        ):
            if not (ROOT / name).exists():
                gone.append(f"{page.name}: {name}")
    assert gone == []


def test_docstrings_can_be_read_without_their_neighbours():
    """None begins by pointing at one that a reader may not have before them."""
    pointing = re.compile(r'"""(?:The same\b(?! files)|Both\b|Likewise\b|As above\b).*')
    found = [
        f"{path.relative_to(ROOT)}: {said}"
        for path in sources()
        if "tests" not in path.parts and path.is_relative_to(ROOT)
        for said in pointing.findall(path.read_text())
        if path.parts[len(ROOT.parts)] in ("core", "server")
    ]
    assert found == []

"""Every rule says what it looks for, and the page about them is written from the rules."""

from pathlib import Path

from skypane.findings import documentation, rules


def test_every_rule_has_a_name_of_its_own_and_says_what_it_looks_for():
    assert len({r.id for r in rules()}) == len(rules()) >= 6
    for rule in rules():
        assert rule.about.endswith(".") or rule.about.endswith(")."), rule.id
        assert rule.remedy.endswith(".")


def test_the_page_about_findings_is_true():
    """Write it again with `python -m skypane.findings > docs/findings.md`."""
    page = Path(__file__).parents[3] / "docs/findings.md"
    assert page.read_text() == documentation()

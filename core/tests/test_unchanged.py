"""What others rely on byte for byte: the demo's delivery, and what the commands read and answer.

`delivered/` holds, per placement of the demo site, what it was asked for and what was handed over;
`answered/` holds questions to every command and its answers. A change of either is a change for
everybody who has built on it, so it is made on purpose: with new files here and a word of why.
"""

import json
import subprocess
import sys
from pathlib import Path

import pytest
from skypane.handover import blueprint
from skypane.model import Original, Placement, Site
from skypane.model.stored import lifted

HERE = Path(__file__).parent
DELIVERED = sorted((HERE / "delivered").iterdir())
COMMANDS = ("picks", "shows", "keeps", "advise", "sizes", "ladder")


@pytest.mark.parametrize("folder", DELIVERED, ids=lambda f: f.name)
def test_the_demo_is_delivered_as_ever(folder):
    asked = lifted("asked", json.loads((folder / "asked.json").read_text()))
    originals = {o["id"]: Original.model_validate(o) for o in asked["originals"]}
    found = blueprint(
        Site.model_validate(asked["site"]), Placement.model_validate(asked["placement"]), originals
    )
    manifest = json.dumps(found.manifest, indent=1, ensure_ascii=False) + "\n"
    for name, text in {**found.texts, "manifest.json": manifest}.items():
        assert text == (folder / name).read_text(), name


@pytest.mark.parametrize("command", COMMANDS)
def test_a_command_answers_as_ever(command):
    asked = (HERE / "answered" / f"{command}.asked.jsonl").read_bytes()
    run = [sys.executable, "-c", "from skypane.cli import app; app()", command, "--batch"]
    answers = subprocess.run(run, input=asked, capture_output=True, check=True).stdout.decode()
    expected = (HERE / "answered" / f"{command}.answers.jsonl").read_text()
    assert answers.splitlines() == expected.splitlines()

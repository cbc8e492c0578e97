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
from skypane.handover import Asked, FileFacts, blueprint, finish
from skypane.model.stored import lifted

HERE = Path(__file__).parent
DELIVERED = sorted((HERE / "delivered").iterdir())
COMMANDS = ("picks", "shows", "keeps", "advise", "sizes", "ladder")


@pytest.mark.parametrize("folder", DELIVERED, ids=lambda f: f.name)
def test_the_demo_is_delivered_as_ever(folder):
    asked = Asked.model_validate(lifted("asked", json.loads((folder / "asked.json").read_text())))
    found = blueprint(asked)
    # newer formats are smaller here, as they are of photographs
    sizes = {"avif": 1.0, "webp": 1.3, "jpeg": 1.9, "png": 9.0, "svg": 1.0}
    facts = {
        f.key: FileFacts(round(f.width_px**1.6 * sizes[f.format]), f.key * 2, 60, 0.956)
        for f in found.files
    }
    finished = finish(found, facts)
    assert finished.texts.keys() - {"manifest.json"} == found.texts.keys()
    for name, text in finished.texts.items():
        assert text == (folder / name).read_text(), name


@pytest.mark.parametrize("command", COMMANDS)
def test_a_command_answers_as_ever(command):
    asked = (HERE / "answered" / f"{command}.asked.jsonl").read_bytes()
    run = [sys.executable, "-c", "from skypane.cli import app; app()", command, "--batch"]
    answers = subprocess.run(run, input=asked, capture_output=True, check=True).stdout.decode()
    expected = (HERE / "answered" / f"{command}.answers.jsonl").read_text()
    assert answers.splitlines() == expected.splitlines()

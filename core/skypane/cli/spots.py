"""`spots`: frame rules read off rectangles of a design."""

from __future__ import annotations

import sys
from typing import Any

import typer

from skypane.cli.batch import Batch, run
from skypane.spots import Asked, frame_rules

commands = typer.Typer()


def answer_spots(question: Asked) -> dict[str, Any]:
    rules = frame_rules(question)
    return {"rules": [rule.model_dump(mode="json") for rule in rules]}


@commands.command()
def spots(batch: Batch = False) -> None:
    """The frame rules that give the rectangles of a spot on pictures of a design, best first.

    In: {"container", "gutter_px", "seen": [{"width", "left", "right", "top", "bottom",
    "viewport_height"}]}; out: {"rules": [{"width", "height", "stands", "column", "sentence",
    "at"}]}.
    """
    run(Asked, answer_spots, batch, sys.stdin.buffer)

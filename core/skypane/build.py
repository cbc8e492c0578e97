"""A site made in a build: from its file and a folder of originals, with no database and no server.

The same names and the same bytes as the application delivers. Only what changed is made: what each
file turned out to be is kept beside them, by the hash of all that makes it.
"""

from __future__ import annotations

import hashlib
import json
import os
import tempfile
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, Literal, NamedTuple

from skypane.comparing import why_made
from skypane.errors import NoRoom, SkyPaneError
from skypane.handover import Blueprint, FileFacts, Finished, blueprint, finish, fonts_of
from skypane.markup.addresses import FOLDER
from skypane.model import Rendition
from skypane.pixels.guarded import Guard, Limits
from skypane.pixels.several import Source, encoded, sha256_of
from skypane.sitefile import MOST_BYTES, SiteFile, read_site_file

#: What is known of the files of a folder, made or left out, by key.
KNOWN = ".skypane.json"

What = Literal["make", "keep", "remove", "missing", "foreign", "stale", "size", "text"]


class Step(NamedTuple):
    """One thing about one file: to be made or removed, kept, or wrong in a folder; and why."""

    what: What
    name: str
    why: str = ""
    size_bytes: int | None = None


class Failed(SkyPaneError):
    """A build that cannot go on; the sentence says why."""


@dataclass
class Folder:
    """A folder that is built into, and what is known of its files."""

    path: Path
    facts: dict[str, FileFacts] = field(default_factory=dict)
    names: dict[str, str] = field(default_factory=dict)  # of files and texts of ours: key or hash
    entries: dict[str, Mapping[str, Any]] = field(default_factory=dict)  # of the last manifest
    hashes: dict[str, str] = field(default_factory=dict)  # of what is there, as far as it was read

    @classmethod
    def read(cls, path: Path) -> Folder:
        found = cls(path)
        try:
            known = json.loads((path / KNOWN).read_text())
            found.facts = {k: FileFacts(*v) for k, v in known["facts"].items()}
            found.names = dict(known["names"])
            manifest = json.loads((path / "manifest.json").read_text())
            found.entries = {f["name"]: f for f in manifest["files"]}
        except (OSError, ValueError, KeyError, TypeError):
            pass  # nothing is known of it: everything is made
        return found

    def write(self) -> None:
        known = {"facts": self.facts, "names": self.names}
        _write(self.path / KNOWN, json.dumps(known).encode())

    def holds(self, name: str, sha256: str) -> bool:
        """Whether these bytes are there under this name."""
        path = self.path / name
        if not path.is_file():
            return False
        if name not in self.hashes:
            self.hashes[name] = sha256_of(path)
        return self.hashes[name] == sha256

    def put(self, name: str, data: bytes) -> None:
        self.hashes.pop(name, None)
        _write(self.path / name, data)


@dataclass(frozen=True)
class Build:
    """A site as it is to be built into a folder."""

    found: SiteFile
    blueprint: Blueprint
    sources: Mapping[int, Source]
    folder: Folder


def read_build(site: Path, originals: Path, out: Path) -> Build:
    """Read a site's file and look for its originals. Raises SkyPaneError."""
    try:
        if site.stat().st_size > MOST_BYTES:
            raise Failed(f"{site} has more than {MOST_BYTES // 1_000_000} MB.")
        text = site.read_text("utf-8")
    except UnicodeDecodeError:
        raise Failed(f"{site} is not in UTF-8.") from None
    except OSError as error:
        raise Failed(f"{site} cannot be read: {error.strerror}.") from None
    found = read_site_file(text)
    planned = blueprint(found.asked())
    planned.check_pictures()
    used = {r.original for r in planned.files}
    sources = {}
    for o in found.originals:
        if o.id not in used:
            continue
        path = _below(originals, o.file)
        if not path.is_file():
            raise Failed(f"{o.file} is not in {originals}.")
        if o.sha256 and sha256_of(path) != o.sha256:
            raise Failed(f"{o.file} in {originals} is not the picture that the site was made with.")
        sources[o.id] = Source(path, o.name)
    return Build(found, planned, sources, Folder.read(out))


def _below(folder: Path, name: str) -> Path:
    path = (folder / name).resolve()
    if not path.is_relative_to(folder.resolve()):
        raise Failed(f"{name} lies outside of {folder}.")
    return path


def planned_steps(build: Build) -> tuple[Step, ...]:
    """What a build would do, without doing it. Of files that are still to be made it is not known
    whether they are worth handing over."""
    folder, steps = build.folder, []
    hashes = {o.id: o.sha256 for o in build.found.originals}
    needed = {r.name for r in _needed(build, {})}
    for r in build.blueprint.files:
        name, fact = FOLDER + r.name, folder.facts.get(r.key)
        if r.name in needed:
            lost = r.key in folder.facts
            why = "it is gone or was changed" if lost else ""
            why = why or why_made(r, hashes[r.original], folder.entries.get(name))
            steps.append(Step("make", name, why))
        elif fact is not None:
            steps.append(Step("keep", name, size_bytes=fact.size_bytes))
    wanted = {FOLDER + r.name for r in build.blueprint.files}
    steps += [
        Step("remove", name, "no longer asked for")
        for name in folder.names
        if name.startswith(FOLDER) and name not in wanted
    ]
    return tuple(steps if needed else [*steps, *_text_steps(build)])


def _needed(build: Build, made: Mapping[str, Path]) -> list[Rendition]:
    """Files that have to be made: those of which nothing is known; and where all are known, those
    that are handed over and not there."""
    folder, files = build.folder, build.blueprint.files
    unknown = [r for r in files if r.key not in folder.facts]
    if unknown:
        return unknown
    kept = set(finish(build.blueprint, folder.facts).files)
    there = {*made, *(k for n, k in folder.names.items() if k and _is_there(folder, n, k))}
    return [r for r in files if FOLDER + r.name in kept and r.key not in there]


def _is_there(folder: Folder, name: str, key: str) -> bool:
    fact = folder.facts.get(key)
    return fact is not None and folder.holds(name, fact.sha256)


def _text_steps(build: Build) -> list[Step]:
    finished = finish(build.blueprint, build.folder.facts)
    return [
        Step("text", name, "it differs")
        for name, data in _written(finished).items()
        if not build.folder.holds(name, hashlib.sha256(data).hexdigest())
    ]


def _written(finished: Finished) -> dict[str, bytes]:
    """What goes with the pictures: texts, and the typefaces that they ask for."""
    texts = {name: text.encode() for name, text in finished.texts.items()}
    return texts | {name: path.read_bytes() for name, path in fonts_of(finished.texts).items()}


#: Hears of a step, and how many files of how many are made.
Told = Callable[[Step, int, int], None]


def export(
    build: Build, *, workers: int | None = None, told: Told = lambda step, done, total: None
) -> tuple[Step, ...]:
    """Make what is missing, remove what is no longer asked for, and say what was done. Raises
    SkyPaneError; what is made by then is made again the next time."""
    folder = build.folder
    count = workers or len(os.sched_getaffinity(0))
    guard = Guard(Limits(at_once=count))
    try:
        folder.path.mkdir(parents=True, exist_ok=True)
        steps = list(planned_steps(build))
        why = {s.name: s.why for s in steps}
        with tempfile.TemporaryDirectory(dir=folder.path, prefix=".skypane-") as work:
            made: dict[str, Path] = {}
            while needed := list({r.key: r for r in _needed(build, made)}.values()):
                run = encoded(guard, needed, build.sources, Path(work), workers=count)
                for n, one in enumerate(run, 1):
                    fact, key = one.fact, one.rendition.key
                    folder.facts[key] = FileFacts(
                        fact.size_bytes, one.sha256, fact.quality, fact.ssim
                    )
                    made[key] = one.path
                    name = FOLDER + one.rendition.name
                    told(Step("make", name, why.get(name, ""), fact.size_bytes), n, len(needed))
            finished = finish(build.blueprint, folder.facts)
            texts = _put(build, finished, made)
            removed = _remove_old(build, finished)
        for step in (*texts, *removed):
            told(step, 0, 0)
    except OSError as error:
        if NoRoom.means(error):
            raise NoRoom(NoRoom.IN_PART) from error
        raise Failed(f"{folder.path} cannot be written: {error.strerror}.") from None
    finally:
        guard.close()
    return (*(s for s in steps if s.what == "make"), *texts, *removed)


def _put(build: Build, finished: Finished, made: Mapping[str, Path]) -> list[Step]:
    """Files and texts under their names, whole or not at all."""
    folder, steps = build.folder, []
    keys = {FOLDER + r.name: r.key for r in build.blueprint.files}
    before = dict(folder.names)
    for name in finished.files:
        key = keys[name]
        if folder.holds(name, folder.facts[key].sha256):
            continue
        others = (folder.path / n for n, k in before.items() if k == key)
        source = made.get(key) or next((p for p in others if p.is_file()), None)
        if source is None:
            raise Failed(f"{name} was removed while it was built. Build again.")
        folder.put(name, source.read_bytes())
    for name, data in _written(finished).items():
        if not folder.holds(name, hashlib.sha256(data).hexdigest()):
            folder.put(name, data)
            steps.append(Step("text", name, "it differs"))
    return steps


def _remove_old(build: Build, finished: Finished) -> list[Step]:
    """Files of an earlier build that are no longer handed over; what is not ours stays."""
    folder = build.folder
    entries = json.loads(finished.texts["manifest.json"])["files"]
    names = {**dict.fromkeys(_written(finished), ""), **{f["name"]: f["key"] for f in entries}}
    steps = []
    for name in [n for n in folder.names if n not in names]:
        path = folder.path / name
        if path.is_file():
            path.unlink()
            folder.hashes.pop(name, None)
            steps.append(Step("remove", name, "no longer asked for"))
    folder.names = names
    keys = {r.key for r in build.blueprint.files}
    folder.facts = {k: v for k, v in folder.facts.items() if k in keys}
    folder.write()
    return steps


def check(build: Build) -> tuple[Step, ...]:
    """What is wrong in a folder: missing, foreign, stale (made for something else), or of another
    size than it was made with. Nothing is written."""
    folder = build.folder
    unknown = [r for r in build.blueprint.files if r.key not in folder.facts]
    if unknown:
        return tuple(Step("stale", FOLDER + r.name, "not made for what is asked") for r in unknown)
    finished = finish(build.blueprint, folder.facts)
    keys = {FOLDER + r.name: r.key for r in build.blueprint.files}
    steps = list(_wrong(folder, finished, keys))
    known = {*finished.files, *_written(finished), KNOWN}
    for path in sorted(p for p in folder.path.rglob("*") if p.is_file()):
        name = path.relative_to(folder.path).as_posix()
        if name not in known and not name.startswith(".skypane-"):
            steps.append(Step("foreign", name, "nothing of this site asks for it"))
    return tuple(steps)


def _wrong(folder: Folder, finished: Finished, keys: Mapping[str, str]) -> Iterator[Step]:
    for name in finished.files:
        path, fact = folder.path / name, folder.facts[keys[name]]
        if not path.is_file():
            yield Step("missing", name)
        elif path.stat().st_size != fact.size_bytes:
            yield Step("size", name, f"{path.stat().st_size} bytes, made with {fact.size_bytes}")
        elif sha256_of(path) != fact.sha256:
            yield Step("stale", name, "other content of the same size")
    for name, data in _written(finished).items():
        path = folder.path / name
        if not path.is_file():
            yield Step("missing", name)
        elif path.read_bytes() != data:
            yield Step("stale", name, "it differs from the plan")


def _write(path: Path, data: bytes) -> None:
    """Under this name whole or not at all."""
    path.parent.mkdir(parents=True, exist_ok=True)
    part = path.with_name(f".{path.name}.part")
    part.write_bytes(data)
    part.replace(path)

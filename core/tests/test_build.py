"""A site built from a shell: what is made, why, what is left alone, and what a check finds."""

import json
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from skypane import build
from skypane.build import KNOWN, planned_steps, read_build
from skypane.model import FixedWidth, FullWidth, Original, RatioHeight, Site, Treatment, picture
from skypane.pixels.several import sha256_of
from skypane.sitefile import (
    MISSING,
    BadSiteFile,
    FilePage,
    SiteFile,
    read_site_file,
    safe_name,
    site_file,
    text_of_site,
)

pytestmark = pytest.mark.slow

SKYPANE = [sys.executable, "-m", "skypane"]


def photo(path, seed=0, size=(400, 300)):
    y, x = np.mgrid[0 : size[1], 0 : size[0]]
    grain = np.random.default_rng(seed).normal(0, 6, (*x.shape, 3))
    px = np.stack([x * 255 / size[0], y * 255 / size[1], 128 + 60 * np.sin(x / 9)], -1) + grain
    Image.fromarray(px.clip(0, 255).astype(np.uint8)).save(path, quality=95)
    return path


class Job:
    """A site of two placements with its folder of originals."""

    def __init__(self, folder: Path) -> None:
        self.originals, self.out = folder / "originals", folder / "out"
        self.site = folder / "site.json"
        self.originals.mkdir()
        self.plan = Site(densities=(1, 2), formats=("webp", "jpeg"))
        self.pictures = [self.original(i, photo(self.originals / f"{i} 岬.jpg", i)) for i in (1, 2)]
        fixed = {"width": FixedWidth(width_px=90), "height": RatioHeight(w=3, h=2)}
        fluid = {"width": FullWidth(greatest_px=150), "height": RatioHeight(w=1, h=1)}
        self.placements = [
            picture("Boats", {"D": Treatment(original=1, **fixed)}),
            picture("Quay", {"D": Treatment(original=2, **fluid)}),
        ]
        self.write()

    @staticmethod
    def original(number, path):
        found = {"width_px": 400, "height_px": 300, "sha256": sha256_of(path)}
        return Original(id=number, name=path.name, alt="", **found)

    def write(self) -> None:
        pages = [FilePage(title="Home", placements=tuple(self.placements))]
        self.site.write_text(text_of_site(site_file("Tern", self.plan, pages, self.pictures)))

    def run(self, command, *more):
        asked = [*SKYPANE, command, str(self.site), str(self.originals), str(self.out), *more]
        done = subprocess.run(asked, capture_output=True, text=True, check=False)
        assert "Traceback" not in done.stderr, done.stderr
        return done

    def steps(self, command, *more):
        done = self.run(command, "--json", *more)
        return done.returncode, [json.loads(line) for line in done.stdout.splitlines()]

    def contents(self):
        files = (p for p in self.out.rglob("*") if p.is_file() and p.name != KNOWN)
        return {p.relative_to(self.out).as_posix(): sha256_of(p) for p in files}


@pytest.fixture
def job(tmp_path):
    return Job(tmp_path)


@pytest.fixture
def built(job):
    assert job.run("export").returncode == 0
    return job


def test_a_build_is_planned_made_and_then_nothing_is_left_to_do(job):
    status, steps = job.steps("plan")
    assert status == 3 and {s["what"] for s in steps} == {"make"}
    assert {s["why"] for s in steps} == {"not there before"}
    status, steps = job.steps("export", "--status")
    assert status == 3 and len([s for s in steps if s["what"] == "make"]) >= 6
    assert {s["name"] for s in steps if s["what"] == "text"} >= {"home.html", "manifest.json"}
    before = {n: (job.out / n).stat().st_mtime_ns for n in job.contents()}
    assert job.steps("export", "--status") == (0, [])
    assert {n: (job.out / n).stat().st_mtime_ns for n in job.contents()} == before
    status, steps = job.steps("plan")
    assert status == 0 and {s["what"] for s in steps} == {"keep"}
    assert job.steps("check") == (0, [])


def test_the_manifest_is_true_and_files_reach_the_likeness(built):
    manifest = json.loads((built.out / "manifest.json").read_text())
    for f in manifest["files"]:
        path = built.out / f["name"]
        assert (path.stat().st_size, sha256_of(path)) == (f["bytes"], f["sha256"])
        assert f["ssim"] >= built.plan.likeness


def test_two_builds_are_equal_to_the_byte_with_any_number_of_workers(built, tmp_path):
    first = built.contents()
    built.out = tmp_path / "again"
    assert built.run("export", "--workers", "1").returncode == 0
    assert built.contents() == first


def test_only_what_changed_is_made_and_what_is_no_longer_asked_for_goes(built):
    before = built.contents()
    (built.out / "images" / "mine.txt").write_text("not of the site")
    built.placements[0] = picture(
        "Boats", {"D": Treatment(original=1, width=FixedWidth(width_px=60))}
    )
    built.write()
    _, steps = built.steps("export")
    made = {s["name"] for s in steps if s["what"] == "make"}
    assert made and all("boats" in name for name in made)
    after = built.contents()
    assert {n for n in before if "quay" in n} == {n for n in after if "quay" in n}
    assert all(before[n] == after[n] for n in after if "quay" in n and n.startswith("images/"))
    assert "images/mine.txt" in after
    status, steps = built.steps("check")
    assert status == 3 and [(s["what"], s["name"]) for s in steps] == [
        ("foreign", "images/mine.txt")
    ]


def test_a_renamed_placement_needs_no_new_encodes(built):
    built.placements[0] = built.placements[0].model_copy(update={"name": "Harbour"})
    built.write()
    _, steps = built.steps("export")
    assert {s["what"] for s in steps} <= {"text", "remove"}
    assert any("harbour" in n for n in built.contents()) and built.steps("check")[0] == 0


def test_a_check_finds_what_is_missing_changed_or_of_another_size(built):
    names = sorted(n for n in built.contents() if n.startswith("images/"))
    (built.out / names[0]).unlink()
    data = bytearray((built.out / names[1]).read_bytes())
    data[-1] ^= 1
    (built.out / names[1]).write_bytes(data)
    with (built.out / names[2]).open("ab") as f:
        f.write(b"more")
    (built.out / "home.html").write_text("other")
    status, steps = built.steps("check")
    assert status == 3
    assert {(s["what"], s["name"]) for s in steps} == {
        ("missing", names[0]),
        ("stale", names[1]),
        ("size", names[2]),
        ("stale", "home.html"),
    }
    _, made = built.steps("export")
    whys = {s["name"]: s["why"] for s in made if s["what"] == "make"}
    assert whys == dict.fromkeys(names[:3], "it is gone or was changed")
    assert built.steps("check") == (0, [])


def test_another_original_is_said_as_the_reason(built):
    path = photo(built.originals / "1 岬.jpg", 7)
    done = built.run("plan")
    assert done.returncode == 1 and "is not the picture that the site was made with" in done.stderr
    built.pictures[0] = built.original(1, path)
    built.write()
    _, steps = built.steps("plan")
    # a format that was no smaller before may be now
    whys = {s["why"] for s in steps if s["what"] == "make"}
    assert "another original" in whys and whys <= {"another original", "not there before"}


@pytest.mark.parametrize(
    ("spoil", "said"),
    [
        (lambda j: j.site.unlink(), "cannot be read"),
        (lambda j: j.site.write_text("{"), "no JSON"),
        (lambda j: j.site.write_bytes(b"\xff"), "not in UTF-8"),
        (lambda j: (j.originals / "1 岬.jpg").unlink(), "1 岬.jpg is not in"),
        (
            lambda j: j.site.write_text(j.site.read_text().replace("1 岬.jpg", "../x.jpg")),
            "lies outside",
        ),
        (lambda j: j.out.write_text("a file"), "cannot be written"),
    ],
)
def test_what_cannot_be_built_is_said_in_a_sentence(job, spoil, said):
    spoil(job)
    for more in ([], ["--json"]):
        done = job.run("export", *more)
        text = json.loads(done.stdout)["error"] if more else done.stderr
        assert done.returncode == 1 and said in text, text


def test_a_span_without_a_picture_is_named(job):
    job.placements.append(picture("Half", {"A": Treatment(original=1)}))
    job.write()
    done = job.run("plan")
    assert done.returncode == 1 and "no picture in span B, C, D of Half" in done.stderr


def test_a_build_that_is_killed_is_finished_by_the_next(job, monkeypatch):
    real = build._put

    def die(*args):
        raise KeyboardInterrupt

    monkeypatch.setattr(build, "_put", die)
    with pytest.raises(KeyboardInterrupt):
        build.export(read_build(job.site, job.originals, job.out))
    assert job.contents() == {}
    monkeypatch.setattr(build, "_put", real)
    build.export(read_build(job.site, job.originals, job.out))
    assert job.steps("check") == (0, [])
    assert all(
        s.what == "keep" for s in planned_steps(read_build(job.site, job.originals, job.out))
    )


# -- the file --


def test_a_site_file_comes_back(job):
    text = job.site.read_text()
    assert text_of_site(read_site_file(text)) == text


def test_originals_are_numbered_and_their_files_told_apart():
    numbers = [17, 4, 900]
    o = [
        Original(id=n, name=name, width_px=9, height_px=9)
        for n, name in zip(numbers, ("a/b.jpg", "A-B.JPG", "con"), strict=True)
    ]
    p = picture("x", {"D": Treatment(original=4), "A": Treatment(original=900)})
    found = site_file("s", Site(), [FilePage(title="Home", placements=(p,))], o)
    assert [(x.id, x.file) for x in found.originals] == [
        (1, "a-b.jpg"),
        (2, "A-B-2.JPG"),
        (3, "con"),
    ]
    treatments = found.pages[0].placements[0].parts[0].treatments
    assert (treatments["D"].original, treatments["A"].original) == (2, 3)


def test_a_placement_names_what_is_there_or_what_is_said_to_be_missing():
    p = picture("x", {"D": Treatment(original=4), "A": Treatment(original=900)})
    o = Original(id=4, name="a.jpg", width_px=9, height_px=9)
    written = text_of_site(site_file("s", Site(), [FilePage(title="Home", placements=(p,))], [o]))
    back = read_site_file(written).pages[0].placements[0].parts[0].treatments
    assert (back["D"].original, back["A"].original) == (1, MISSING)
    with pytest.raises(BadSiteFile, match="x shows the original 7, which is not among"):
        read_site_file(written.replace('"original": 1', '"original": 7'))


@pytest.mark.parametrize(
    "name", ["../../etc/passwd", "a\\b", "c:d", "", " . ", "x" * 400, "Ü 岬.jpg"]
)
def test_names_of_files_are_safe(name):
    found = safe_name(name)
    assert found and "/" not in found and "\\" not in found and len(found) <= 200
    assert found not in (".", "..")


def test_the_schema_in_the_documentation_is_true():
    committed = Path(__file__).parents[2] / "docs/site.schema.json"
    assert json.loads(committed.read_text()) == SiteFile.model_json_schema()

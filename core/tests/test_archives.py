"""Zips from outside are counted before they are made sense of."""

import io
import struct
import zipfile

import pytest
from skypane import archives
from skypane.archives import MOST_ENTRIES, BadArchive, opened


def zipped(names, comment=b"", before=b""):
    out = io.BytesIO()
    out.write(before)
    with zipfile.ZipFile(out, "a") as z:
        for name in names:
            z.writestr(name, b"x")
        z.comment = comment
    out.seek(0)
    return out


@pytest.mark.parametrize(
    "kw", [{}, {"comment": b"c" * 60_000}, {"before": b"#!/bin/sh\n" * 99}], ids=str
)
def test_a_zip_is_read_wherever_its_directory_lies(kw):
    with opened(zipped(["a", "b/c"], **kw)) as archive:
        assert archive.namelist() == ["a", "b/c"]


def test_too_many_are_counted_whatever_the_zip_says_of_itself():
    """The directory says how many it holds (APPNOTE 6.3.10, §4.3.16), and may say one."""
    file = zipped(map(str, range(MOST_ENTRIES + 1)))
    data = bytearray(file.getvalue())
    data[-14:-10] = struct.pack("<HH", 1, 1)
    with pytest.raises(BadArchive, match="more than 25000 entries"), opened(io.BytesIO(data)):
        pass


@pytest.mark.slow
def test_what_is_counted_is_not_read(monkeypatch):
    """300 000 entries in 26 MB took 4 s to read."""
    file = zipped(map(str, range(MOST_ENTRIES + 1)))
    monkeypatch.setattr(archives.zipfile, "ZipFile", lambda *_: pytest.fail("it was read"))
    with pytest.raises(BadArchive, match="entries"), opened(file):
        pass


def test_a_directory_of_long_names_is_not_read():
    entry = struct.pack("<4s42x", b"PK\1\2") + b"n" * 65_000
    directory = entry * 300
    end = struct.pack("<4sHHHHLLH", b"PK\5\6", 0, 0, 300, 300, len(directory), 0, 0)
    with pytest.raises(BadArchive, match="has 20 MB"), opened(io.BytesIO(directory + end)):
        pass


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"PK",
        b"PK\5\6" + b"\xff" * 18,
        b"x" * 70_000,
        b"PK\6\7" + b"\xff" * 16 + b"PK\5\6" + b"\1" * 18,
    ],
    ids=len,
)
def test_what_is_no_zip_is_said_to_be_none(data):
    with pytest.raises(BadArchive, match="read"), opened(io.BytesIO(data)):
        pass

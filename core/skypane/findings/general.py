"""The rules that look at placements of all kinds."""

from skypane.findings import aim, code, files, frame, items, page, sets, words

__all__ = ["aim", "code", "files", "frame", "items", "page", "sets", "words"]

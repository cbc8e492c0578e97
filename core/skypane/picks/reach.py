"""At which widths each source of a picture is taken."""

from __future__ import annotations


def reach(media: list[str | None], narrowest: int, widest: int) -> list[list[tuple[int, int]]]:
    """For each condition in testing order, the runs of widths at which it is the first that holds;
    `[]` means never.

    Finds sources that the wrong order makes unreachable.
    """
    from skypane.picks.media import Environment, media_matches

    runs: list[list[tuple[int, int]]] = [[] for _ in media]
    for width in range(narrowest, widest + 1):
        env = Environment(width=width, height=800)
        for i, condition in enumerate(media):
            if condition is None or media_matches(condition, env):
                if runs[i] and runs[i][-1][1] == width - 1:
                    runs[i][-1] = (runs[i][-1][0], width)
                else:
                    runs[i].append((width, width))
                break
    return runs

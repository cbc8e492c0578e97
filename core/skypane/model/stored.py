"""Nouns as JSON that outlives the code that wrote it: what is stored says its version, and is
lifted here and nowhere else.

Versions: 1 had none written on it. 2 has bounds: no empty list of viewport heights, no areas and
crops narrower than a hairline, no ratios beyond what a frame can have, at most eight densities.
3 has placements of parts. 4 says how files
are offered: what was stored before goes on to offer them by density. Its typed qualities give way
to the likeness that is asked for. 5 says of slides how long it is from one change to the next,
where it said how long they stand still. 6 has pictures that stand in for others under conditions,
where a logo had one for portrait orientation. 7 says of originals what medium they are, where it
said whether they are a drawing. 8 has values of kinds under conditions; what was stored before has
none. 9 says how code is handed over; what was stored before is handed over as HTML.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal

from skypane.errors import SkyPaneError
from skypane.model.site import MOST_DENSITIES, USUAL_HEIGHTS
from skypane.values import FLATTEST, LEAST_SHARE, NARROWEST

VERSION = 9

#: What is stored: a site's plan, a placement, a page's layout, originals, the areas of one, the
#: looks of several by id, and a delivery's question and answer.
Kind = Literal["site", "placement", "originals", "areas", "looks", "page", "asked", "written"]


class TooNew(SkyPaneError):
    """Stored by a newer version of this program."""


def stored(value: Any) -> dict[str, Any]:
    """As it is to be stored: an object with its version, a list inside of one."""
    return (
        {"version": VERSION, **value}
        if isinstance(value, dict)
        else {"version": VERSION, "list": value}
    )


def lifted(kind: Kind, data: Any) -> Any:
    """What was stored, in the present version and without its number. Raises TooNew."""
    if isinstance(data, dict):
        version = data.get("version", 1)
        value = {k: v for k, v in data.items() if k != "version"}
        if version > 1 and set(value) == {"list"}:
            value = value["list"]
    else:
        version, value = 1, data
    if version > VERSION:
        raise TooNew(
            f"This was stored by a newer version of Sky Pane ({version}; this one reads {VERSION})."
            " Bring it up to date."
        )
    for step in range(version, VERSION):
        value = _LIFTS[step](kind, value)
    return value


def _bounded(kind: Kind, value: Any) -> Any:
    """From 1 to 2."""
    match kind:
        case "site":
            heights = value.get("heights", [None]) or [
                h.model_dump(mode="json") for h in USUAL_HEIGHTS
            ]
            return {
                **value,
                **({"heights": heights} if "heights" in value else {}),
                **(
                    {"densities": value["densities"][:MOST_DENSITIES]}
                    if "densities" in value
                    else {}
                ),
            }
        case "placement":
            return {
                **value,
                "treatments": {k: _treatment(t) for k, t in value.get("treatments", {}).items()},
            }
        case "areas":
            return [{**a, "rect": _rect(a["rect"])} for a in value]
        case "looks":
            return {
                k: {**look, "areas": _bounded("areas", look.get("areas", []))}
                for k, look in value.items()
            }
        case "asked":
            return {
                "site": _bounded("site", value["site"]),
                "placement": _bounded("placement", value["placement"]),
                "originals": _bounded("originals", value["originals"]),
            }
        case "originals":
            return [{**o, "areas": _bounded("areas", o.get("areas", []))} for o in value]
    return value


def _rect(rect: dict[str, float]) -> dict[str, float]:
    w, h = max(LEAST_SHARE, rect["w"]), max(LEAST_SHARE, rect["h"])
    return {"x": min(rect["x"], 1 - w), "y": min(rect["y"], 1 - h), "w": w, "h": h}


def _treatment(treatment: dict[str, Any]) -> dict[str, Any]:
    out = dict(treatment)
    if out.get("crop"):
        out["crop"] = _rect(out["crop"])
    height = out.get("height") or {}
    if height.get("kind") == "ratio":
        w, h = max(0.001, height["w"]), max(0.001, height["h"])
        out["height"] = {**height, "w": w, "h": h}
        if not NARROWEST <= w / h <= FLATTEST:
            del out["height"]
    return out


def _in_parts(kind: Kind, value: Any) -> Any:
    """From 2 to 3: what a placement was is its one part."""
    match kind:
        case "placement" if "parts" not in value:
            part = {k: value[k] for k in ("alt", "treatments") if k in value}
            rest = {k: v for k, v in value.items() if k not in part}
            return {**rest, "kind": "picture", "parts": [part]}
        case "asked":
            return {**value, "placement": _in_parts("placement", value["placement"])}
    return value


def _by_density(kind: Kind, value: Any) -> Any:
    """From 3 to 4: files are offered as they were."""
    match kind:
        case "site":
            return {"lists": "densities", **{k: v for k, v in value.items() if k != "quality"}}
        case "asked":
            placement = value["placement"]
            return {
                "scope": "placement",
                "title": placement.get("name", ""),
                "site": _by_density("site", value["site"]),
                "pages": [{"title": "", "placements": [placement]}],
                "originals": value["originals"],
            }
    return value


def _every(kind: Kind, value: Any) -> Any:
    """From 4 to 5: a pause and the change after it are one time."""
    match kind:
        case "placement" if value.get("kind") == "slides":
            return {**value, "layout": _layout_every(value.get("layout", {}))}
        case "asked":
            pages = [
                {**page, "placements": [_every("placement", p) for p in page["placements"]]}
                for page in value["pages"]
            ]
            return {**value, "pages": pages}
    return value


def _layout_every(layout: dict[str, dict[str, Any]]) -> dict[str, dict[str, Any]]:
    """Wider spans hand down: where any of the three is set, their sum is."""
    held: dict[str, Any] = {"pause_s": 5, "change_s": 0.4, "change": "slide"}
    out = dict(layout)
    for letter in sorted(layout, reverse=True):
        own = {k: v for k, v in layout[letter].items() if v is not None}
        said = {k: own[k] for k in held if k in own}
        held |= said
        rest = {k: v for k, v in layout[letter].items() if k != "pause_s"}
        takes = 0 if held["change"] == "none" else held["change_s"]
        out[letter] = {**rest, **({"every_s": round(held["pause_s"] + takes, 3)} if said else {})}
    return out


#: What a part is called by one that was the role *portrait* before.
_UPRIGHT = "picture"


def _under_conditions(kind: Kind, value: Any) -> Any:
    """From 5 to 6: what shows in portrait stands in for the logo while that holds; where it showed
    nothing the logo itself was seen."""
    match kind:
        case "placement" if any(p.get("role") == "portrait" for p in value.get("parts", ())):
            return {**value, "parts": [_variant(i, p) for i, p in enumerate(value["parts"])]}
        case "asked":
            pages = [
                {
                    **page,
                    "placements": [_under_conditions("placement", p) for p in page["placements"]],
                }
                for page in value["pages"]
            ]
            return {**value, "pages": pages}
    return value


def _variant(index: int, part: dict[str, Any]) -> dict[str, Any]:
    if part.get("role") != "portrait":
        return part if index else {**part, "key": _UPRIGHT}
    treatments = {
        letter: {**own, "show": "usual"} if own.get("show") == "nothing" else own
        for letter, own in part.get("treatments", {}).items()
    }
    rest = {k: v for k, v in part.items() if k not in ("role", "treatments")}
    return {**rest, "of": _UPRIGHT, "when": ["portrait"], "treatments": treatments}


def _of_medium(kind: Kind, value: Any) -> Any:
    """From 6 to 7."""
    match kind:
        case "originals":
            return [_with_medium(o) for o in value]
        case "asked":
            return {**value, "originals": _of_medium("originals", value["originals"])}
    return value


def _with_medium(original: dict[str, Any]) -> dict[str, Any]:
    rest = {k: v for k, v in original.items() if k != "vector"}
    return {**rest, "medium": "drawing"} if original.get("vector") else rest


_LIFTS: dict[int, Callable[[Kind, Any], Any]] = {
    1: _bounded,
    2: _in_parts,
    3: _by_density,
    4: _every,
    5: _under_conditions,
    6: _of_medium,
    7: lambda kind, value: value,
    8: lambda kind, value: value,
}

"""Draw a scene as SVG, true to the screen: the same places, colours, dashes, flags and labels."""

from __future__ import annotations

import base64
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from html import escape
from pathlib import Path
from typing import Any

from axis_path.picture.formula import plain_text, typeset_formula
from axis_path.picture.palette import DARK, DASHES, LIGHT, WHITE, Palette, tone_of

FONTS = Path(__file__).parent / "fonts"
#: Data begin with another tone than curves do, as on the page.
_FIRST_TONE_OF_DATA = 3
_FACE = "Atkinson Hyperlegible Next"
_LINE_PX, _TITLE_PX = 2.4, 20
#: The widths of thin, usual and thick lines, as ``curves.paint.js`` has them.
_WEIGHTS = {1: 1.4, 2: _LINE_PX, 3: 4.0}
Row = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Look:
    """How a picture looks.

    Attributes:
        is_white: whether it stands on white, in place of the screen's paper.
        with_reading: whether the reading line is drawn.
        is_dark: whether the screen's look is the dark one; on white there is none.
    """

    is_white: bool = False
    with_reading: bool = False
    is_dark: bool = False

    @property
    def inks(self) -> Palette:
        """Return the colours."""
        return WHITE if self.is_white else DARK if self.is_dark else LIGHT


@cache
def _faces() -> str:
    """Return the text face inside the file, so that the picture needs nothing else."""
    rules = []
    for weight in (400, 600):
        data = (FONTS / f"atkinson-hyperlegible-next-{weight}.ttf").read_bytes()
        encoded = base64.b64encode(data).decode()
        rules.append(
            f'@font-face{{font-family:"{_FACE}";font-weight:{weight};'
            f'src:url("data:font/ttf;base64,{encoded}") format("truetype")}}'
        )
    return "".join(rules)


def draw_svg(scene: dict[str, Any], look: Look | None = None, *, metadata: str = "") -> str:
    """Draw a scene.

    Args:
        scene: what ``Scene.to_dict`` gives.
        look: how it looks.
        metadata: a text that the file carries along.
    """
    look = look or Look()
    width, height = scene["window"]["width"], scene["window"]["height"]
    inks = look.inks
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" '
        f'viewBox="0 0 {width} {height}" font-family="\'{_FACE}\', sans-serif" font-size="13">',
        f"<metadata>{escape(metadata)}</metadata>" if metadata else "",
        f"<style>{_faces()}</style>",
        f'<clipPath id="frame"><rect width="{width}" height="{height}"/></clipPath>',
        f'<g clip-path="url(#frame)"><rect width="{width}" height="{height}" fill="{inks.paper}"/>',
        *_grid(scene["axes"], width, height, inks),
        *(part for row in scene["rows"] if row["curve"] for part in _fills(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _trail(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _family(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _lines(row, inks)),
        *(_guides(scene, height, inks)),
        *_labels(scene["axes"], width, height, inks),
        *(part for row in scene["rows"] if row["curve"] for part in _values(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _marks(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _runner(row, inks)),
        *_check(scene.get("check"), inks),
        *(part for each in scene.get("data", ()) for part in _data(each, inks)),
        *(_reading(scene, height, inks) if look.with_reading else ()),
        *_title(scene["axes"]["title"], width, inks),
        *_legend(scene, inks),
        "</g></svg>",
    ]
    return "".join(parts)


def _points(flat: list[int]) -> Iterator[str]:
    return (f"{flat[k] / 10:g} {flat[k + 1] / 10:g}" for k in range(0, len(flat), 2))


def _path(pieces: list[list[int]], *, closed: bool = False) -> str:
    end = "Z" if closed else ""
    return "".join(f"M{'L'.join(_points(piece))}{end}" for piece in pieces if piece)


def _line(x1: float, y1: float, x2: float, y2: float, colour: str, width: float = 1) -> str:
    return (
        f'<path d="M{x1:g} {y1:g}L{x2:g} {y2:g}" stroke="{colour}" stroke-width="{width:g}" '
        'fill="none"/>'
    )


def _text(
    x: float, y: float, text: str, *, colour: str, anchor: str = "middle", more: str = ""
) -> str:
    return (
        f'<text x="{x:g}" y="{y:g}" fill="{colour}" text-anchor="{anchor}"{more}>'
        f"{escape(text)}</text>"
    )


def _halo(paper: str, width: float = 4) -> str:
    return (
        f' paint-order="stroke" stroke="{paper}" stroke-width="{width:g}" stroke-linejoin="round"'
    )


def _grid(axes: dict[str, Any], width: int, height: int, inks: Palette) -> Iterator[str]:
    if axes["grid"] == "fine":
        for name, colour in (("finer", inks.grid_faint),):
            yield from (_line(x / 10, 0, x / 10, height, colour) for x in axes["x"][name])
            yield from (_line(0, y / 10, width, y / 10, colour) for y in axes["y"][name])
    if axes["grid"] in ("fine", "coarse"):
        yield from (_line(x / 10, 0, x / 10, height, inks.grid) for x in axes["x"]["places"])
        yield from (_line(0, y / 10, width, y / 10, inks.grid) for y in axes["y"]["places"])
    if axes["polar"]:
        yield from _polar(axes["polar"], inks)
    if axes["left_edge"]:
        yield _line(0.5, 0, 0.5, height, inks.ink, 1.4)
    if axes["lower_edge"]:
        yield _line(0, height - 0.5, width, height - 0.5, inks.ink, 1.4)
    if axes["y_axis"] is not None:
        yield _line(axes["y_axis"] / 10, 0, axes["y_axis"] / 10, height, inks.ink, 1.4)
    if axes["x_axis"] is not None:
        yield _line(0, axes["x_axis"] / 10, width, axes["x_axis"] / 10, inks.ink, 1.4)


def _polar(grid: dict[str, Any], inks: Palette) -> Iterator[str]:
    x, y = grid["x"] / 10, grid["y"] / 10
    for circle in grid["circles"]:
        yield (
            f'<ellipse cx="{x:g}" cy="{y:g}" rx="{circle["rx"] / 10:g}" ry="{circle["ry"] / 10:g}" '
            f'fill="none" stroke="{inks.grid}"/>'
        )
    for spoke in grid["spokes"]:
        colour = inks.grid if spoke["text"] else inks.grid_faint
        yield _line(x, y, spoke["x"] / 10, spoke["y"] / 10, colour)


def _labels(axes: dict[str, Any], width: int, height: int, inks: Palette) -> Iterator[str]:
    more = _halo(inks.paper)
    x_axis = height - 21 if axes["x_axis"] is None else axes["x_axis"] / 10
    y_axis = 0 if axes["y_axis"] is None else axes["y_axis"] / 10
    y = min(max(x_axis + 15, 14), height - 6)
    for place, label in zip(axes["x"]["places"], axes["x"]["labels"], strict=True):
        half = 3.6 * len(label) + 2
        if label == "0" and place > 200:
            yield _text(place / 10 - 5, y, label, colour=inks.ink_soft, anchor="end", more=more)
        else:
            x = min(max(place / 10, half), width - half)
            yield _text(x, y, label, colour=inks.ink_soft, more=more)
    longest = max([4, *map(len, axes["y"]["labels"])])
    x = min(max(y_axis - 6, 7.2 * longest + 5), width - 6)
    for place, label in zip(axes["y"]["places"], axes["y"]["labels"], strict=True):
        if label != "0" and 22 < place / 10 < height - 8:
            yield _text(x, place / 10 + 4, label, colour=inks.ink_soft, anchor="end", more=more)
    for spoke in (axes["polar"] or {"spokes": []})["spokes"]:
        if spoke["label"]:
            a, b = (each / 10 for each in spoke["label"])
            yield _text(a, b + 4, spoke["text"], colour=inks.ink_soft, more=more)
    name_y = min(max((height - 14 if axes["x_axis"] is None else x_axis) - 7, 16), height - 12)
    yield _name(axes["x"]["name"], width - 8, name_y, inks.ink, anchor="end")
    below = _TITLE_PX * len(axes["title"]) + 8 if axes["title"] else 0
    yield _name(axes["y"]["name"], max(y_axis + 8, 8), 16 + below, inks.ink)


def _name(
    name: str, x: float, y: float, colour: str, *, anchor: str = "start", size: float = 16
) -> str:
    """Write a name as a formula, slanted as a variable is."""
    made = typeset_formula(f"<mi>{escape(name)}</mi>", size, colour) if name else None
    if made is None:
        return _text(x, y, name, colour=colour, anchor=anchor, more=' font-style="italic"')
    shift = {
        "start": made.left,
        "end": made.left - made.width,
        "middle": made.left - made.width / 2,
    }
    return f'<g transform="translate({x + shift[anchor]:g} {y:g})">{made.body}</g>'


def _fills(row: Row, inks: Palette) -> Iterator[str]:
    curve, colour = row["curve"], inks.tones[tone_of(row)]
    if curve.get("fills"):
        yield (
            f'<path d="{_path(curve["fills"], closed=True)}" fill="{colour}" fill-opacity="0.16" '
            'fill-rule="evenodd"/>'
        )
    levels = curve.get("levels") or []
    for k, level in enumerate(levels):
        shade = 0.04 + 0.42 * k / max(len(levels) - 1, 1)
        yield (
            f'<path d="{_path(level["fills"], closed=True)}" fill="{colour}" '
            f'fill-opacity="{shade:.3f}" fill-rule="evenodd"/>'
        )
    dense = curve.get("dense") or []
    for k in range(0, len(dense), 4):
        x, y, width, height = (each / 10 for each in dense[k : k + 4])
        yield (
            f'<rect x="{x:g}" y="{y:g}" width="{width:g}" height="{height:g}" fill="{colour}" '
            'fill-opacity="0.4"/>'
        )
    if curve["bands"]:
        yield f'<path d="{_path(curve["bands"], closed=True)}" fill="{colour}" fill-opacity="0.4"/>'


def _lines(row: Row, inks: Palette) -> Iterator[str]:
    curve, tone = row["curve"], tone_of(row)
    levels = [line for level in curve.get("levels") or [] for line in level["lines"]]
    dashes = _dashes(row)
    weight = _WEIGHTS[row["style"]["weight"]]
    parts: tuple[tuple[list[list[int]], float, tuple[float, ...]], ...] = (
        (levels, 1.3, ()),
        (curve.get("dashed") or [], 1.6, (5.0, 5.0)),
        (curve["pieces"], weight, dashes),
    )
    for pieces, width, pattern in parts:
        if pieces:
            yield (
                f'<path d="{_path(pieces)}" fill="none" stroke="{inks.tones[tone]}" '
                f'stroke-width="{width:g}" stroke-linejoin="round"{_dash(pattern)}/>'
            )


#: How strong the first and the last curve of a family are, as ``curves.paint.js`` has them.
_FAINT, _STRONG = 0.22, 0.75


def _family(row: Row, inks: Palette) -> Iterator[str]:
    """Return the curves of a family, the later their value the stronger."""
    members = (row.get("family") or {}).get("members") or []
    colour = inks.tones[tone_of(row)]
    for k, member in enumerate(members):
        alpha = _FAINT + (_STRONG - _FAINT) * (k + 1) / len(members)
        if member["bands"]:
            yield (
                f'<path d="{_path(member["bands"], closed=True)}" fill="{colour}" '
                f'fill-opacity="{0.4 * alpha:.2f}"/>'
            )
        lines = [*member["pieces"], *member["dashed"]]
        if lines:
            dash = _dash((5.0, 5.0)) if member["dashed"] else ""
            yield (
                f'<path d="{_path(lines)}" fill="none" stroke="{colour}" stroke-width="1.5" '
                f'stroke-opacity="{alpha:.2f}"{dash}/>'
            )


def _values(row: Row, inks: Palette) -> Iterator[str]:
    """Return the values of a family, each on its curve."""
    for member in (row.get("family") or {}).get("members") or []:
        if member["flag"]:
            yield _value_flag(member, inks.tones[tone_of(row)], inks)


def _value_flag(member: dict[str, Any], colour: str, inks: Palette) -> str:
    x, y, width = (member["flag"][name] for name in ("x", "y", "width"))
    return (
        f'<rect x="{x}" y="{y}" width="{width}" height="18" rx="2" fill="{inks.paper}" '
        f'fill-opacity="0.88" stroke="{colour}"/>'
        + _text(x + width / 2, y + 13, member["text"], colour=colour, more=' font-size="12"')
    )


def _trail(row: Row, inks: Palette) -> Iterator[str]:
    """Return where a point has been: dots that grow fainter with age."""
    dots = (row.get("trail") or {}).get("dots") or []
    colour = inks.tones[tone_of(row)]
    for k in range(0, len(dots), 2):
        alpha = 0.25 + 0.5 * (k + 2) / len(dots)
        yield (
            f'<circle cx="{dots[k] / 10:g}" cy="{dots[k + 1] / 10:g}" r="2.2" fill="{colour}" '
            f'fill-opacity="{alpha:.2f}"/>'
        )


def _runner(row: Row, inks: Palette) -> Iterator[str]:
    runner = row.get("runner") or {}
    if runner.get("is_set") and runner["x"] is not None:
        yield (
            f'<circle cx="{runner["x"] / 10:g}" cy="{runner["y"] / 10:g}" r="5.5" '
            f'fill="{inks.tones[tone_of(row)]}" stroke="{inks.paper}" stroke-width="2"/>'
        )


def _guides(scene: dict[str, Any], height: int, inks: Palette) -> Iterator[str]:
    for row in scene["rows"] if scene["axes"]["guides"] else ():
        for x in (row["curve"] or {}).get("guides") or []:
            yield (
                f'<path d="M{x / 10:g} 0v{height}" stroke="{inks.tones[tone_of(row)]}" '
                'stroke-width="1.2" stroke-dasharray="3 5" opacity="0.75" fill="none"/>'
            )


def _dashes(row: Row) -> tuple[float, ...]:
    """Return the dashes of a line; a border's would say that it is left out."""
    chosen = row["style"]["stroke"]
    if chosen is None and row["kind"] == "region":
        return ()
    return DASHES[tone_of(row) if chosen is None else chosen]


def _dash(pattern: tuple[float, ...]) -> str:
    lengths = " ".join(f"{each:g}" for each in pattern)
    return f' stroke-dasharray="{lengths}"' if pattern else ""


def _marks(row: Row, inks: Palette) -> Iterator[str]:
    curve, colour = row["curve"], inks.tones[tone_of(row)]
    for end in curve["ends"]:
        fill = colour if end["closed"] else inks.paper
        yield (
            f'<circle cx="{end["x"] / 10:g}" cy="{end["y"] / 10:g}" r="4.5" fill="{fill}" '
            f'stroke="{colour}" stroke-width="2"/>'
        )
    yield from _dots(row, colour, inks)
    for level in curve.get("levels") or []:
        for label in level["labels"]:
            x, y = label["x"] / 10, label["y"] / 10
            turn = f' transform="rotate({label["angle"]:g} {x:g} {y:g})"{_halo(inks.paper, 3)}'
            yield _text(x, y + 4, level["text"], colour=colour, more=turn)
    flag = row["flag"]
    if flag:
        yield (
            f'<rect x="{flag["x"]}" y="{flag["y"]}" width="{flag["width"]}" height="18" rx="2" '
            f'fill="{colour}"/>'
        )
        middle = flag["x"] + flag["width"] / 2
        yield _name(row["name"] or "", middle, flag["y"] + 13, inks.paper, anchor="middle", size=14)


def _dots(row: Row, colour: str, inks: Palette) -> Iterator[str]:
    dots = row["curve"].get("dots") or []
    if row["style"]["joined"] and len(dots) > 2:
        width = _WEIGHTS[row["style"]["weight"]] - 0.4
        yield (
            f'<path d="{_path([dots])}" fill="none" stroke="{colour}" stroke-width="{width:g}"'
            f"{_dash(_dashes(row))}/>"
        )
    specks = row["curve"].get("specks") or []
    for k in range(0, len(specks), 2):
        yield _point("dot", (specks[k] / 10, specks[k + 1] / 10), 1.6, colour, inks)
    r = 1.2 if len(dots) > 160 else 3 if len(dots) > 2 else 4.5
    for k in range(0, len(dots), 2):
        yield _point(row["style"]["mark"], (dots[k] / 10, dots[k + 1] / 10), r, colour, inks)


def _point(mark: str, at: tuple[float, float], r: float, colour: str, inks: Palette) -> str:
    x, y = at
    if mark == "ring":
        return (
            f'<circle cx="{x:g}" cy="{y:g}" r="{r:g}" fill="{inks.paper}" stroke="{colour}" '
            'stroke-width="2"/>'
        )
    if mark == "cross":
        return (
            f'<path d="M{x - r:g} {y - r:g}l{2 * r:g} {2 * r:g}m0 {-2 * r:g}l{-2 * r:g} {2 * r:g}" '
            f'fill="none" stroke="{colour}" stroke-width="2.2"/>'
        )
    if mark == "square":
        side = 2 * r
        return (
            f'<rect x="{x - r:g}" y="{y - r:g}" width="{side:g}" height="{side:g}" '
            f'fill="{colour}"/>'
        )
    return f'<circle cx="{x:g}" cy="{y:g}" r="{r:g}" fill="{colour}"/>'


def _check(check: dict[str, Any] | None, inks: Palette) -> Iterator[str]:
    points = (check or {}).get("points") or []
    if points:
        yield (
            f'<path d="{_path([points])}" fill="none" stroke="{inks.amber_deep}" '
            'stroke-width="1.8"/>'
        )
    for k in range(0, len(points), 2):
        yield (
            f'<rect x="{points[k] / 10 - 3.5:g}" y="{points[k + 1] / 10 - 3.5:g}" width="7" '
            f'height="7" fill="{inks.amber}" stroke="{inks.ink}"/>'
        )


def _data(data: dict[str, Any], inks: Palette) -> Iterator[str]:
    """Draw columns of data as crosses with their error bars, as the page does."""
    colour = inks.tones[(data["tone"] + _FIRST_TONE_OF_DATA) % len(inks.tones)]
    flat = data["points"]
    marks = [
        f"M{flat[k] / 10 - 3:g} {flat[k + 1] / 10:g}h6m-3 -3v6" for k in range(0, len(flat), 2)
    ]
    for x, y, end, _ in data.get("x_bars", ()):
        marks.append(f"M{x / 10:g} {y / 10 - 3:g}v6m0 -3H{end / 10:g}m0 -3v6")
    for x, y, _, end in data.get("y_bars", ()):
        marks.append(f"M{x / 10 - 3:g} {y / 10:g}h6m-3 0V{end / 10:g}m-3 0h6")
    yield f'<path d="{"".join(marks)}" fill="none" stroke="{colour}" stroke-width="2"/>'


def _reading(scene: dict[str, Any], height: int, inks: Palette) -> Iterator[str]:
    reading = scene["reading"]
    if reading:
        x = reading["x"] / 10
        yield _line(x, 0, x, height, inks.amber, 2)
        yield _text(x, 17, reading["text"], colour=inks.ink)


def _title(lines: list[dict[str, str]], width: int, inks: Palette) -> Iterator[str]:
    for k, each in enumerate(lines):
        line = each["text"]
        made = typeset_formula(each["mathml"], 16, inks.ink) if each["mathml"] else None
        if made is not None:
            x, y = width / 2 + made.left - made.width / 2, 24 + _TITLE_PX * k
            yield f'<g transform="translate({x:g} {y:g})">{made.body}</g>'
            continue
        more = f' font-weight="600" font-size="16"{_halo(inks.paper)}'
        yield _text(width / 2, 24 + _TITLE_PX * k, line, colour=inks.ink, more=more)


def _legend(scene: dict[str, Any], inks: Palette) -> Iterator[str]:
    """Draw the legend where the screen has it: a sample of each stroke, and its formula."""
    legend = scene.get("legend")
    if not legend:
        return
    rows = {row["id"]: row for row in scene["rows"]}
    x, y = legend["x"], legend["y"]
    yield (
        f'<rect x="{x}" y="{y}" width="{legend["width"]}" height="{legend["height"]}" rx="2" '
        f'fill="{inks.paper}" fill-opacity="0.92" stroke="{inks.grid}"/>'
    )
    for k, line in enumerate(legend["rows"]):
        row = rows[line]
        colour, dashes = inks.tones[tone_of(row)], _dashes(row)
        middle = y + 6 + legend["row"] * (k + 0.5)
        yield (
            f'<path d="M{x + 10} {middle:g}h26" stroke="{colour}" stroke-width="{_LINE_PX}" '
            f'fill="none"{_dash(dashes)}/>'
        )
        made = typeset_formula(row["mathml"], 15, inks.ink) if row["mathml"] else None
        if made is None:
            text = plain_text(row["mathml"]) or row["text"]
            yield _text(x + 46, middle + 4, text, colour=inks.ink, anchor="start")
        else:
            # A tall formula is made smaller, so that the lines keep apart.
            scale = min(1.0, (legend["row"] - 2) / made.height, (legend["width"] - 54) / made.width)
            down = middle + scale * (made.top - made.height / 2)
            yield (
                f'<g transform="translate({x + 46 + scale * made.left:g} {down:g}) '
                f'scale({scale:g})">{made.body}</g>'
            )

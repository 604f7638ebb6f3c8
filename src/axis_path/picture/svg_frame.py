"""The axes, the grid, the title and the legend of a picture as SVG."""

from __future__ import annotations

from collections.abc import Iterator
from html import escape
from typing import Any

from axis_path.picture.formula import plain_text, typeset_formula
from axis_path.picture.palette import Palette, tone_of
from axis_path.picture.svg_parts import (
    dash_attribute,
    dashes_of,
    halo,
    line_element,
    text_element,
)

LINE_PX, _TITLE_PX = 2.4, 20


def draw_grid(axes: dict[str, Any], width: int, height: int, inks: Palette) -> Iterator[str]:
    """Draw the lines of the grid, and the axes."""
    if axes["grid"] == "fine":
        for name, colour in (("finer", inks.grid_faint),):
            yield from (line_element(x / 10, 0, x / 10, height, colour) for x in axes["x"][name])
            yield from (line_element(0, y / 10, width, y / 10, colour) for y in axes["y"][name])
    if axes["grid"] in ("fine", "coarse"):
        yield from (
            line_element(x / 10, 0, x / 10, height, inks.grid) for x in axes["x"]["positions"]
        )
        yield from (
            line_element(0, y / 10, width, y / 10, inks.grid) for y in axes["y"]["positions"]
        )
    if axes["polar"]:
        yield from _polar(axes["polar"], inks)
    if axes["left_edge"]:
        yield line_element(0.5, 0, 0.5, height, inks.ink, 1.4)
    if axes["lower_edge"]:
        yield line_element(0, height - 0.5, width, height - 0.5, inks.ink, 1.4)
    if axes["y_axis"] is not None:
        yield line_element(axes["y_axis"] / 10, 0, axes["y_axis"] / 10, height, inks.ink, 1.4)
    if axes["x_axis"] is not None:
        yield line_element(0, axes["x_axis"] / 10, width, axes["x_axis"] / 10, inks.ink, 1.4)


def _polar(grid: dict[str, Any], inks: Palette) -> Iterator[str]:
    x, y = grid["x"] / 10, grid["y"] / 10
    for circle in grid["circles"]:
        yield (
            f'<ellipse cx="{x:g}" cy="{y:g}" rx="{circle["rx"] / 10:g}" ry="{circle["ry"] / 10:g}" '
            f'fill="none" stroke="{inks.grid}"/>'
        )
    for spoke in grid["spokes"]:
        colour = inks.grid if spoke["text"] else inks.grid_faint
        yield line_element(x, y, spoke["x"] / 10, spoke["y"] / 10, colour)


def draw_labels(axes: dict[str, Any], width: int, height: int, inks: Palette) -> Iterator[str]:
    """Draw the numbers and the names of the axes."""
    more = halo(inks.paper)
    x_axis = height - 21 if axes["x_axis"] is None else axes["x_axis"] / 10
    y_axis = 0 if axes["y_axis"] is None else axes["y_axis"] / 10
    y = min(max(x_axis + 15, 14), height - 6)
    for position, label in zip(axes["x"]["positions"], axes["x"]["labels"], strict=True):
        half = 3.6 * len(label) + 2
        if label == "0" and position > 200:
            yield text_element(
                position / 10 - 5, y, label, colour=inks.ink_soft, anchor="end", more=more
            )
        else:
            x = min(max(position / 10, half), width - half)
            yield text_element(x, y, label, colour=inks.ink_soft, more=more)
    longest = max([4, *map(len, axes["y"]["labels"])])
    x = min(max(y_axis - 6, 7.2 * longest + 5), width - 6)
    for position, label in zip(axes["y"]["positions"], axes["y"]["labels"], strict=True):
        if label != "0" and 22 < position / 10 < height - 8:
            yield text_element(
                x, position / 10 + 4, label, colour=inks.ink_soft, anchor="end", more=more
            )
    for spoke in (axes["polar"] or {"spokes": []})["spokes"]:
        if spoke["label"]:
            a, b = (tenths / 10 for tenths in spoke["label"])
            yield text_element(a, b + 4, spoke["text"], colour=inks.ink_soft, more=more)
    name_y = min(max((height - 14 if axes["x_axis"] is None else x_axis) - 7, 16), height - 12)
    yield draw_name(axes["x"]["name"], width - 8, name_y, inks.ink, anchor="end")
    below = _TITLE_PX * len(axes["title"]) + 8 if axes["title"] else 0
    yield draw_name(axes["y"]["name"], max(y_axis + 8, 8), 16 + below, inks.ink)


def draw_name(
    name: str, x: float, y: float, colour: str, *, anchor: str = "start", size: float = 16
) -> str:
    """Write a name as a formula, slanted as a variable is."""
    made = typeset_formula(f"<mi>{escape(name)}</mi>", size, colour) if name else None
    if made is None:
        return text_element(x, y, name, colour=colour, anchor=anchor, more=' font-style="italic"')
    shift = {
        "start": made.left,
        "end": made.left - made.width,
        "middle": made.left - made.width / 2,
    }
    return f'<g transform="translate({x + shift[anchor]:g} {y:g})">{made.body}</g>'


def draw_title(lines: list[dict[str, str]], width: int, inks: Palette) -> Iterator[str]:
    """Draw the title."""
    for k, entry in enumerate(lines):
        line = entry["text"]
        made = typeset_formula(entry["mathml"], 16, inks.ink) if entry["mathml"] else None
        if made is not None:
            x, y = width / 2 + made.left - made.width / 2, 24 + _TITLE_PX * k
            yield f'<g transform="translate({x:g} {y:g})">{made.body}</g>'
            continue
        more = f' font-weight="600" font-size="16"{halo(inks.paper)}'
        yield text_element(width / 2, 24 + _TITLE_PX * k, line, colour=inks.ink, more=more)


def draw_legend(scene: dict[str, Any], inks: Palette) -> Iterator[str]:
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
        colour, dashes = inks.tones[tone_of(row)], dashes_of(row)
        middle = y + 6 + legend["row"] * (k + 0.5)
        yield (
            f'<path d="M{x + 10} {middle:g}h26" stroke="{colour}" stroke-width="{LINE_PX}" '
            f'fill="none"{dash_attribute(dashes)}/>'
        )
        made = typeset_formula(row["mathml"], 15, inks.ink) if row["mathml"] else None
        if made is None:
            text = plain_text(row["mathml"]) or row["text"]
            yield text_element(x + 46, middle + 4, text, colour=inks.ink, anchor="start")
        else:
            # A tall formula is made smaller, so that the lines keep apart.
            scale = min(1.0, (legend["row"] - 2) / made.height, (legend["width"] - 54) / made.width)
            down = middle + scale * (made.top - made.height / 2)
            yield (
                f'<g transform="translate({x + 46 + scale * made.left:g} {down:g}) '
                f'scale({scale:g})">{made.body}</g>'
            )

"""Draw a scene as SVG, true to the screen: the same places, colours, dashes, flags and labels."""

from __future__ import annotations

import base64
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from html import escape
from pathlib import Path
from typing import Any

from axis_path.picture.palette import DARK, LIGHT, WHITE, Palette, tone_of
from axis_path.picture.svg_findings import draw_findings
from axis_path.picture.svg_frame import (
    LINE_PX,
    draw_grid,
    draw_labels,
    draw_legend,
    draw_name,
    draw_title,
)
from axis_path.picture.svg_parts import (
    Row,
    dash_attribute,
    dashes_of,
    halo,
    line_element,
    path_data,
    point_mark,
    text_element,
)

FONTS = Path(__file__).parent / "fonts"
#: Data begin with another tone than curves do, as on the page.
_FIRST_TONE_OF_DATA = 3
#: So do the columns of the what-if table, as ``what_if.paint.js`` has them.
_FIRST_TONE_OF_WHAT_IF = 5
_LETTER_PX = 7.2
_FACE = "Atkinson Hyperlegible Next"
#: The widths of thin, usual and thick lines, as ``curves.paint.js`` has them.
_WEIGHTS = {1: 1.4, 2: LINE_PX, 3: 4.0}


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
        *draw_grid(scene["axes"], width, height, inks),
        *(part for row in scene["rows"] if row["curve"] for part in _fills(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _trail(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _family(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _lines(row, inks)),
        *(_guides(scene, height, inks)),
        *draw_labels(scene["axes"], width, height, inks),
        *(part for row in scene["rows"] if row["curve"] for part in _values(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _marks(row, inks)),
        *(part for row in scene["rows"] if row["curve"] for part in _runner(row, inks)),
        *_check(scene.get("check"), inks),
        *(part for plot in scene.get("data", ()) for part in _data(plot, inks)),
        *(part for curve in scene.get("what_if", ()) for part in _what_if(curve, width, inks)),
        *draw_findings(scene.get("findings"), scene["axes"]["x_axis"], inks),
        *(_reading(scene, height, inks) if look.with_reading else ()),
        *draw_title(scene["axes"]["title"], width, inks),
        *draw_legend(scene, inks),
        "</g></svg>",
    ]
    return "".join(parts)


def _fills(row: Row, inks: Palette) -> Iterator[str]:
    curve, colour = row["curve"], inks.tones[tone_of(row)]
    if curve.get("fills"):
        area = path_data(curve["fills"], closed=True)
        yield (f'<path d="{area}" fill="{colour}" fill-opacity="0.16" fill-rule="evenodd"/>')
    levels = curve.get("levels") or []
    for k, level in enumerate(levels):
        shade = 0.04 + 0.42 * k / max(len(levels) - 1, 1)
        yield (
            f'<path d="{path_data(level["fills"], closed=True)}" fill="{colour}" '
            f'fill-opacity="{shade:.3f}" fill-rule="evenodd"/>'
        )
    dense = curve.get("dense") or []
    for k in range(0, len(dense), 4):
        x, y, width, height = (tenths / 10 for tenths in dense[k : k + 4])
        yield (
            f'<rect x="{x:g}" y="{y:g}" width="{width:g}" height="{height:g}" fill="{colour}" '
            'fill-opacity="0.4"/>'
        )
    if curve["bands"]:
        area = path_data(curve["bands"], closed=True)
        yield f'<path d="{area}" fill="{colour}" fill-opacity="0.4"/>'


def _lines(row: Row, inks: Palette) -> Iterator[str]:
    curve, tone = row["curve"], tone_of(row)
    levels = [line for level in curve.get("levels") or [] for line in level["lines"]]
    dashes = dashes_of(row)
    weight = _WEIGHTS[row["style"]["weight"]]
    parts: tuple[tuple[list[list[int]], float, tuple[float, ...]], ...] = (
        (levels, 1.3, ()),
        (curve.get("dashed") or [], 1.6, (5.0, 5.0)),
        (curve["pieces"], weight, dashes),
    )
    for pieces, width, pattern in parts:
        if pieces:
            yield (
                f'<path d="{path_data(pieces)}" fill="none" stroke="{inks.tones[tone]}" '
                f'stroke-width="{width:g}" stroke-linejoin="round"{dash_attribute(pattern)}/>'
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
                f'<path d="{path_data(member["bands"], closed=True)}" fill="{colour}" '
                f'fill-opacity="{0.4 * alpha:.2f}"/>'
            )
        lines = [*member["pieces"], *member["dashed"]]
        if lines:
            dash = dash_attribute((5.0, 5.0)) if member["dashed"] else ""
            yield (
                f'<path d="{path_data(lines)}" fill="none" stroke="{colour}" stroke-width="1.5" '
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
        + text_element(x + width / 2, y + 13, member["text"], colour=colour, more=' font-size="12"')
    )


def _trail(row: Row, inks: Palette) -> Iterator[str]:
    """Return where a point has been: strokes that grow fainter with age."""
    strokes = (row.get("trail") or {}).get("strokes") or []
    colour = inks.tones[tone_of(row)]
    for k, stroke in enumerate(strokes):
        # A single place is a dot.
        line = stroke if len(stroke) > 2 else stroke * 2
        alpha = 0.3 + 0.45 * (k + 1) / len(strokes)
        yield (
            f'<path d="{path_data([line])}" fill="none" stroke="{colour}" stroke-width="3" '
            f'stroke-linecap="round" stroke-linejoin="round" stroke-opacity="{alpha:.2f}"/>'
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
            turn = f' transform="rotate({label["angle"]:g} {x:g} {y:g})"{halo(inks.paper, 3)}'
            yield text_element(x, y + 4, level["text"], colour=colour, more=turn)
    flag = row["flag"]
    if flag:
        yield (
            f'<rect x="{flag["x"]}" y="{flag["y"]}" width="{flag["width"]}" height="18" rx="2" '
            f'fill="{colour}"/>'
        )
        middle = flag["x"] + flag["width"] / 2
        yield draw_name(
            row["name"] or "", middle, flag["y"] + 13, inks.paper, anchor="middle", size=14
        )


def _dots(row: Row, colour: str, inks: Palette) -> Iterator[str]:
    dots = row["curve"].get("dots") or []
    if row["style"]["joined"] and len(dots) > 2:
        width = _WEIGHTS[row["style"]["weight"]] - 0.4
        yield (
            f'<path d="{path_data([dots])}" fill="none" stroke="{colour}" stroke-width="{width:g}"'
            f"{dash_attribute(dashes_of(row))}/>"
        )
    specks = row["curve"].get("specks") or []
    for k in range(0, len(specks), 2):
        yield point_mark("dot", (specks[k] / 10, specks[k + 1] / 10), 1.6, colour, inks)
    r = 1.2 if len(dots) > 160 else 3 if len(dots) > 2 else 4.5
    for k in range(0, len(dots), 2):
        yield point_mark(row["style"]["mark"], (dots[k] / 10, dots[k + 1] / 10), r, colour, inks)


def _check(check: dict[str, Any] | None, inks: Palette) -> Iterator[str]:
    points = (check or {}).get("points") or []
    if points:
        yield (
            f'<path d="{path_data([points])}" fill="none" stroke="{inks.amber_deep}" '
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


def _what_if(curve: dict[str, Any], width: int, inks: Palette) -> Iterator[str]:
    """Draw a column of the what-if table as the page does."""
    colour = inks.tones[(curve["tone"] + _FIRST_TONE_OF_WHAT_IF) % len(inks.tones)]
    flat, name = curve["dots"], curve["label"]
    yield (
        f'<path d="{path_data(curve["lines"])}" fill="none" stroke="{colour}" stroke-width="1.8" '
        'stroke-dasharray="1.5 3" stroke-linecap="round"/>'
    )
    places = [(flat[k] / 10, flat[k + 1] / 10) for k in range(0, len(flat), 2)]
    dots = "".join(f"M{x - 3:g} {y:g}l3 -3l3 3l-3 3z" for x, y in places)
    yield f'<path d="{dots}" fill="{inks.paper}" stroke="{colour}" stroke-width="1.6"/>'
    x, y = places[-1]
    size = _LETTER_PX * len(name) + 12
    left, top = min(x + 6, width - size - 4), max(y - 26, 4)
    yield (
        f'<rect x="{left:g}" y="{top:g}" width="{size:g}" height="18" rx="2" fill="{inks.paper}" '
        f'stroke="{colour}"/>'
    )
    yield text_element(left + size / 2, top + 13, name, colour=colour)


def _reading(scene: dict[str, Any], height: int, inks: Palette) -> Iterator[str]:
    reading = scene["reading"]
    if reading:
        x = reading["x"] / 10
        yield line_element(x, 0, x, height, inks.amber, 2)
        yield text_element(x, 17, reading["text"], colour=inks.ink)

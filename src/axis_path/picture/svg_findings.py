"""What was located, in a picture: the marks, labels and intervals that stand on the plane."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from axis_path.picture.palette import Palette
from axis_path.picture.svg_parts import text_element

_LETTER_PX, _LABEL_HEIGHT_PX = 7.4, 18
_ROUND = "M-4.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0"
_RINGS = "M-6.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0M-2.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0"
#: The shapes of the page, about the place (0, 0).
_SHAPES = {
    "minimum": "M-5 -4.5H5L0 4.5Z",
    "maximum": "M-5 4.5H5L0 -4.5Z",
    "inflections": "M0 -5.5L5.5 0L0 5.5L-5.5 0Z",
    "pole": "M-4.5 -4.5L4.5 4.5M-4.5 4.5L4.5 -4.5",
    "jump": "M0 -6V6M-3 -6H3M-3 6H3",
    "end": "M3 -6H-2V6H3",
    "intersections": _RINGS,
}


def draw_findings(
    findings: dict[str, Any] | None, x_axis: int | None, inks: Palette
) -> Iterator[str]:
    """Draw marks with their labels, and the intervals of inequalities on the x axis.

    Args:
        findings: the marks and spans, in tenths of px; None if they are not wanted.
        x_axis: how high the x axis is, in tenths of px; None if it is out of sight.
        inks: the colours.
    """
    if findings is None:
        return
    if x_axis is not None:
        for span in findings["spans"]:
            yield from _span(span, x_axis / 10, inks)
    for mark in findings["marks"]:
        x, y = mark["x"] / 10, mark["y"] / 10
        if mark["text"]:
            yield from _label(mark, x, y, inks)
        dash = ' stroke-dasharray="2.5 2"' if mark["proved"] is False else ""
        yield (
            f'<path d="{_SHAPES.get(mark["kind"], _ROUND)}" transform="translate({x:g} {y:g})" '
            f'fill="{inks.paper}" fill-opacity="0.85" stroke="{inks.amber_deep}" '
            f'stroke-width="1.8" stroke-linejoin="round"{dash}/>'
        )


def _label(mark: dict[str, Any], x: float, y: float, inks: Palette) -> Iterator[str]:
    at_x, at_y = (tenths / 10 for tenths in mark["at"])
    width = _LETTER_PX * len(mark["text"]) + 8
    yield (
        f'<line x1="{x:g}" y1="{y:g}" x2="{at_x:g}" y2="{at_y:g}" stroke="{inks.amber_deep}"/>'
        f'<rect x="{at_x - width / 2:g}" y="{at_y - _LABEL_HEIGHT_PX / 2:g}" width="{width:g}" '
        f'height="{_LABEL_HEIGHT_PX}" rx="3" fill="{inks.paper}" fill-opacity="0.92" '
        f'stroke="{inks.amber_deep}"/>'
    )
    yield text_element(at_x, at_y + 4.5, mark["text"], colour=inks.ink)


def _span(span: dict[str, Any], y: float, inks: Palette) -> Iterator[str]:
    low, high = span["low"] / 10, span["high"] / 10
    yield (
        f'<line x1="{low:g}" x2="{high:g}" y1="{y:g}" y2="{y:g}" stroke="{inks.amber}" '
        'stroke-width="5" stroke-opacity="0.85"/>'
    )
    for x, end in ((low, span["low_end"]), (high, span["high_end"])):
        if end:
            fill = inks.amber if end == "closed" else inks.paper
            yield (
                f'<circle cx="{x:g}" cy="{y:g}" r="4.5" fill="{fill}" stroke="{inks.amber_deep}" '
                'stroke-width="1.5"/>'
            )

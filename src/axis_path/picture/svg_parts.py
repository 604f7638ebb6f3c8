"""The small parts of a drawing as SVG: paths, lines, texts, points."""

from __future__ import annotations

from collections.abc import Iterator
from html import escape
from typing import Any

from axis_path.picture.palette import DASHES, Palette, tone_of

Row = dict[str, Any]


def _points(flat: list[int]) -> Iterator[str]:
    return (f"{flat[k] / 10:g} {flat[k + 1] / 10:g}" for k in range(0, len(flat), 2))


def path_data(pieces: list[list[int]], *, closed: bool = False) -> str:
    """Return the path of several pieces in tenths of a pixel."""
    end = "Z" if closed else ""
    return "".join(f"M{'L'.join(_points(piece))}{end}" for piece in pieces if piece)


def line_element(x1: float, y1: float, x2: float, y2: float, colour: str, width: float = 1) -> str:
    """Return a straight line."""
    return (
        f'<path d="M{x1:g} {y1:g}L{x2:g} {y2:g}" stroke="{colour}" stroke-width="{width:g}" '
        'fill="none"/>'
    )


def text_element(
    x: float, y: float, text: str, *, colour: str, anchor: str = "middle", more: str = ""
) -> str:
    """Return a text."""
    return (
        f'<text x="{x:g}" y="{y:g}" fill="{colour}" text-anchor="{anchor}"{more}>'
        f"{escape(text)}</text>"
    )


def halo(paper: str, width: float = 4) -> str:
    """Return the attributes of a halo in the colour of the paper."""
    return (
        f' paint-order="stroke" stroke="{paper}" stroke-width="{width:g}" stroke-linejoin="round"'
    )


def dashes_of(row: Row) -> tuple[float, ...]:
    """Return the dashes of a line; a border's would say that it is left out."""
    chosen = row["style"]["stroke"]
    if chosen is None and row["kind"] == "region":
        return ()
    return DASHES[tone_of(row) if chosen is None else chosen]


def dash_attribute(pattern: tuple[float, ...]) -> str:
    """Return the attribute of dashes; nothing for a solid line."""
    lengths = " ".join(f"{length:g}" for length in pattern)
    return f' stroke-dasharray="{lengths}"' if pattern else ""


def point_mark(mark: str, at: tuple[float, float], r: float, colour: str, inks: Palette) -> str:
    """Return the mark of a point."""
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

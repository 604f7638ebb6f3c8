"""Formulas as outlines, so that they look the same wherever a picture is opened."""

from __future__ import annotations

import re
import warnings
from dataclasses import dataclass
from functools import lru_cache
from html import unescape
from zlib import crc32

_VIEW = re.compile(r'viewBox="(\S+) (\S+) (\S+) (\S+)"')
_FILL = re.compile(r' (?:fill|stroke)="(?:black|#000000|#000)"')
_TAGS = re.compile(r"<[^>]+>")


@dataclass(frozen=True, slots=True)
class Formula:
    """A typeset formula.

    Attributes:
        body: SVG elements, drawn from the origin.
        left: how far it reaches to the left of the origin, in px; ``top`` above it.
        width: its whole width; ``height`` its whole height.
    """

    body: str
    left: float
    top: float
    width: float
    height: float


@lru_cache(maxsize=512)
def typeset_formula(mathml: str, size: float, colour: str) -> Formula | None:
    """Return a formula as outlines, None if it cannot be typeset.

    Args:
        mathml: the inside of a formula, as the core gives it.
        size: the size of its letters in px.
        colour: as ``#rrggbb``.
    """
    with warnings.catch_warnings():
        # It takes a while to load, and asks for its font in a way that Python is about to give up.
        warnings.simplefilter("ignore", DeprecationWarning)
        from ziamath import zmath

    text = unescape(mathml) if "<" not in mathml else mathml
    source = text if text.startswith("<math") else f"<math><mrow>{text}</mrow></math>"
    try:
        svg = zmath.Math(source, size=size).svg()
    except (ValueError, KeyError, IndexError, AttributeError, TypeError):
        # What the typesetter does not know is written plainly by whoever asks.
        return None
    view = _VIEW.search(svg)
    if view is None:
        return None
    left, top, width, height = map(float, view.groups())
    body = svg[svg.index(">") + 1 : svg.rindex("</svg>")]
    # Each formula brings its own outlines, under names that no other formula has.
    own = f"{crc32(f'{source} {size}'.encode()):08x}-"
    body = body.replace('id="', f'id="{own}').replace('href="#', f'href="#{own}')
    body = _FILL.sub("", body)
    return Formula(f'<g fill="{colour}">{body}</g>', -left, -top, width, height)


def plain_text(mathml: str) -> str:
    """Return the letters of a formula, for where it cannot be typeset."""
    return unescape(_TAGS.sub("", mathml))

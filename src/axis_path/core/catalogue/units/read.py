"""Read units as they are written: ``kg m/s^2``, ``J/(kg K)``, ``N·m``, ``1/s``.

Signs are read from left to right, as in the rest of the language: ``J/kg K`` is (J/kg) K.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from axis_path.core.catalogue.units.entry import Unit
from axis_path.core.catalogue.units.lookup import find_unit
from axis_path.core.catalogue.units.product import NO_UNIT, UnitProduct

#: Decides whether a run of letters between two places of a text may be a unit there.
Accepts = Callable[[str, int, int], bool]
_RUN = re.compile(r"°[CFR](?![A-Za-z0-9_])|[°℃℉]|[A-Za-zµμΩΩÅ][A-Za-z_µμΩΩÅ]*(?![A-Za-z0-9_µμΩΩÅ])")
_WHOLE = r"-?[0-9]{1,3}"
_POWER = re.compile(rf"(?:\^|\*\*)(?:({_WHOLE})|\(\s*({_WHOLE}(?:/[0-9]{{1,3}})?)\s*\))")
_RAISED = re.compile(r"⁻?[⁰¹²³⁴⁵⁶⁷⁸⁹]{1,3}")
_DIGITS = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")
#: What may stand between two units that are multiplied; a star only without spaces.
_BETWEEN = re.compile(r"\s*[·⋅]\s*|\*(?![*\s])|\s+")
_STROKE = re.compile(r"\s*/\s*")
_ONE_OVER = re.compile(r"1\s*/\s*")


@dataclass(frozen=True, slots=True)
class UnitMatch:
    """A unit that was read, and where it ends in the text."""

    unit: UnitProduct
    end: int
    #: Where each of its symbols stands.
    spans: tuple[tuple[int, int], ...]


@lru_cache(maxsize=2048)
def read_unit(text: str) -> UnitProduct | None:
    """Return the unit that a whole text is; None if it is none."""
    stripped = text.strip()
    match = match_unit(stripped, 0, lambda *_: True, with_one=True)
    return match.unit if match is not None and match.end == len(stripped) else None


def match_unit(text: str, at: int, accepts: Accepts, *, with_one: bool = False) -> UnitMatch | None:
    """Read the longest unit that begins at a place; None if none does.

    Args:
        text: where it stands.
        at: where it begins.
        accepts: decides of each symbol whether it may be a unit.
        with_one: whether it may begin with ``1/``.
    """
    return _Reader(text, accepts).product(at, with_one=with_one)


class _Reader:
    def __init__(self, text: str, accepts: Accepts) -> None:
        self._text = text
        self._accepts = accepts

    def product(self, at: int, *, with_one: bool = False) -> UnitMatch | None:
        one = _ONE_OVER.match(self._text, at) if with_one else None
        first = self._term(at) if one is None else self._below(one.end())
        if first is None:
            return None
        unit = first.unit if one is None else _typed(NO_UNIT, first.unit, -1)
        end, spans = first.end, [*first.spans]
        while True:
            stroke = _STROKE.match(self._text, end)
            between = _BETWEEN.match(self._text, end)
            if stroke is not None:
                following = self._below(stroke.end())
            else:
                following = None if between is None else self._term(between.end())
            if following is None:
                return UnitMatch(unit, end, tuple(spans))
            unit = _typed(unit, following.unit, 1 if stroke is None else -1)
            end = following.end
            spans += following.spans

    def _below(self, at: int) -> UnitMatch | None:
        """Read what stands behind a stroke: a unit, or a product in brackets."""
        if not self._text.startswith("(", at):
            return self._term(at)
        inner = self.product(at + 1)
        if inner is None or not self._text.startswith(")", inner.end):
            return None
        return UnitMatch(inner.unit, inner.end + 1, inner.spans)

    def _term(self, at: int) -> UnitMatch | None:
        run = _RUN.match(self._text, at)
        unit = None if run is None else find_unit(run[0])
        if run is None or unit is None or not self._accepts(run[0], at, run.end()):
            return None
        exponent, end = self._exponent(run.end())
        return _match(unit, exponent, end, (at, run.end()))

    def _exponent(self, at: int) -> tuple[Fraction, int]:
        power = _POWER.match(self._text, at)
        if power is not None:
            return Fraction(power[1] or power[2]), power.end()
        raised = _RAISED.match(self._text, at)
        if raised is not None:
            return Fraction(int(raised[0].translate(_DIGITS))), raised.end()
        return Fraction(1), at


def _typed(unit: UnitProduct, other: UnitProduct, power: int) -> UnitProduct:
    """Return a product of units as it was typed: degrees in it stay degrees."""
    return UnitProduct.of(
        *unit.parts, *((part, exponent * power) for part, exponent in other.parts)
    )


@lru_cache(maxsize=2048)
def _single(unit: Unit, exponent: Fraction) -> UnitProduct:
    return UnitProduct.of((unit, exponent))


def _match(unit: Unit, exponent: Fraction, end: int, span: tuple[int, int]) -> UnitMatch:
    return UnitMatch(_single(unit, exponent), end, (span,))

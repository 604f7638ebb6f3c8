"""Which letters are units: those behind a number, unless the study has a name of these letters."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from axis_path.core.catalogue.units import UnitMatch, match_unit, unit_names
from axis_path.core.errors import UnknownNameError
from axis_path.core.language import messages
from axis_path.core.language.scanning.tokens import Kind, Token
from axis_path.core.language.vocabulary import NAME_PATTERN, Vocabulary, nearest, spelled

#: What a unit may stand behind, other than a number.
_MEASURED = {
    Kind.NAME, Kind.NUMBER, Kind.CLOSE, Kind.SUPERSCRIPT, Kind.CLOSE_LIST, Kind.CLOSE_INDEX,
    Kind.PHYSICAL,
}  # fmt: skip
_INCH, _RADIAN = "in", "rad"
#: What a unit of temperature may begin with.
_DEGREES = ("°", "℃", "℉")
_IN = re.compile(r"in(?![A-Za-z0-9_])\s*")
_POINTS = re.compile(r"\s*\bpoints(?![A-Za-z0-9_])")
#: Words that go on behind a value.
_GOES_ON = re.compile(r"(?:for|in|to|and|step|points|otherwise|with)(?![A-Za-z0-9_])")
_BEGINS_VALUE = re.compile(r"[^\W]|[(|√∛\[.]")
_CONVERTED = {*_MEASURED, Kind.UNIT, Kind.DEGREE, Kind.RADIANS, Kind.PERCENT, Kind.LEFT_BAR}


def may_begin_unit(sign: str) -> bool:
    """Check whether a unit, or the word ``in`` before one, can begin with a sign."""
    return sign.isalpha() or sign in _DEGREES


def unit_token(text: str, at: int, before: Sequence[Token], vocabulary: Vocabulary) -> list[Token]:
    """Read a unit, or ``in`` with the unit that a value is shown in; nothing for anything else.

    Args:
        text: the line.
        at: where a unit may begin.
        before: the tokens before it, at least one.
        vocabulary: the names that are known.

    Raises:
        UnknownNameError: what follows ``in`` is no unit.
    """
    last = before[-1]
    if _IN.match(text, at) and any(token.kind is Kind.FOR for token in before):
        return []
    if last.kind in _CONVERTED and not _is_inch(text, at, last):
        converted = _converted(text, at, before)
        if converted:
            return converted
    is_function = last.kind is Kind.NAME and vocabulary.is_function(last.text)
    if last.kind is not Kind.NUMBER and (not _ends_measured(before) or is_function):
        return []
    place = _Place(text, last, _is_number(before), last.end < at, vocabulary)
    match = _product_of_units(place, at)
    if match is None:
        match = match_unit(text, at, lambda run, start, end: place.accepts(run, start, end, at))
    if match is None:
        _refuse_misspelt(place, at)
        return []
    if _is_angle_sign(text[at : match.end]) or _is_factor(text, match, vocabulary):
        return []
    return [Token(Kind.UNIT, text[at : match.end], at, match.end, text[at : match.end])]


def _product_of_units(place: _Place, at: int) -> UnitMatch | None:
    """Return a product of units of which not all are names of the study; None if there is none.

    Where ``m`` has a value and ``s`` has none, ``3 m/s^2`` can only be meant in units.
    """
    if not (place.is_number and place.is_apart):
        return None
    match = match_unit(place.text, at, lambda run, start, _: place.may_be_unit(run, start == at))
    if match is None or len(match.spans) < 2:
        return None
    runs = [spelled(place.text[slice(*span)]) for span in match.spans]
    names = [run for run in runs if place.vocabulary.is_known(run)]
    return match if names and len(names) < len(runs) else None


def _ends_measured(before: Sequence[Token]) -> bool:
    """Check whether what stands before can have a unit, though it is no number."""
    kind = before[-1].kind
    if kind is Kind.LEFT_BAR:
        # Bars are told apart later; the second one closes.
        return sum(token.kind is Kind.LEFT_BAR for token in before) % 2 == 0
    return kind in _MEASURED


def _is_number(before: Sequence[Token]) -> bool:
    """Check whether a number stands before, and not the exponent of a name."""
    if before[-1].kind is not Kind.NUMBER:
        return False
    is_exponent = len(before) > 2 and before[-2].kind is Kind.POWER
    return not is_exponent or before[-3].kind is Kind.NUMBER


@dataclass(frozen=True, slots=True)
class _Place:
    """What a symbol may be where it stands.

    Attributes:
        is_number: whether it stands behind a number.
        is_apart: whether there is a space before it.
    """

    text: str
    last: Token
    is_number: bool
    is_apart: bool
    vocabulary: Vocabulary

    def may_be_unit(self, run: str, is_first: bool) -> bool:
        """Check whether letters can be a unit, whatever names the study has."""
        return (run != _INCH or is_first) and run not in self.vocabulary.variables

    def accepts(self, run: str, start: int, end: int, begin: int) -> bool:
        """Check whether letters mean a unit; the first of a product stands at ``begin``."""
        if run == _INCH:
            return start == begin and _is_inch(self.text, start, self.last)
        name = spelled(run)
        if run == _RADIAN:
            return True
        if self.vocabulary.hides_unit(name):
            return False
        if self.vocabulary.is_function(name) and self._applies(name, end):
            return False
        is_apart = self.is_apart or start > begin
        if self.is_number and is_apart:
            return True
        if len(run) == 1 and run.isalpha() and start == begin:
            # m behind a name is a factor; behind brackets with a space between it is the metre.
            return self.last.kind is Kind.CLOSE and is_apart
        return not _is_product(run, start, self.vocabulary)

    def _applies(self, name: str, end: int) -> bool:
        """Check whether a function's name is followed by what it could be applied to."""
        rest = self.text[end:].lstrip()
        if self.is_number and rest[:1].isdigit() and name in self.vocabulary.functions:
            # 1 h 30 min is a time, even where a function is called h.
            return False
        return bool(_BEGINS_VALUE.match(rest)) and not _GOES_ON.match(rest)


def _refuse_misspelt(place: _Place, at: int) -> None:
    """Refuse letters behind a number and a space that are nearly a unit.

    Raises:
        UnknownNameError: they are.
    """
    run = NAME_PATTERN.match(place.text, at)
    if run is None or len(run[0]) < 2 or _GOES_ON.match(run[0]):
        return
    if not (place.is_number and place.is_apart):
        return
    span = (at, run.end())
    try:
        pieces = place.vocabulary.cut(run[0], at)
    except UnknownNameError as err:
        error = unknown_unit(run[0], span)
        if error.suggestion is not None and (err.suggestion is None or err.letters):
            raise error from None
        return
    if run[0] in _MEANT and not all(place.vocabulary.is_known(piece.name) for piece in pieces):
        raise unknown_unit(run[0], span)


def _is_product(run: str, at: int, vocabulary: Vocabulary) -> bool:
    """Check whether letters are a product of names that the study knows."""
    try:
        pieces = vocabulary.cut(run, at)
    except UnknownNameError:
        return False
    return all(vocabulary.is_known(piece.name) for piece in pieces)


def _is_angle_sign(typed: str) -> bool:
    """Check whether it is the sign of an angle alone, which the language reads itself."""
    return typed in ("°", _RADIAN)


def _is_factor(text: str, match: UnitMatch, vocabulary: Vocabulary) -> bool:
    """Check whether one letter behind a number is rather a factor, as g in ``1/2 g t^2``.

    It is where it touches a variable of the line.
    """
    symbol = match.unit.symbol
    if len(symbol) > 1 or not symbol.isalpha() or len(match.spans) > 1:
        return False
    rest = text[match.end :].lstrip()
    if rest.startswith("("):
        inner = rest[1:].partition(")")[0]
        return any(spelled(run) in vocabulary.variables for run in NAME_PATTERN.findall(inner))
    name = NAME_PATTERN.match(rest)
    return name is not None and spelled(name[0]) in vocabulary.variables


def _is_inch(text: str, at: int, last: Token) -> bool:
    """Check whether ``in`` is the inch: directly behind a number, with no unit to follow."""
    match = _IN.match(text, at)
    if match is None or last.kind is not Kind.NUMBER:
        return False
    rest = text[match.end() :]
    if _POINTS.search(rest):
        # from 0 to 5 in 100 points
        return False
    return not (rest[:1].isalnum() or rest[:1] in _DEGREES) or bool(_GOES_ON.match(rest))


def _converted(text: str, at: int, before: Sequence[Token]) -> list[Token]:
    word = _IN.match(text, at)
    if word is None:
        return []
    match = match_unit(text, word.end(), lambda *_: True, with_one=True)
    if match is not None and not _POINTS.match(text, match.end):
        return [
            Token(Kind.CONVERT, text[word.end() : match.end], at, match.end, text[at : match.end])
        ]
    if any(token.kind is Kind.FROM for token in before):
        return []
    raise _no_unit(text, word.end())


def _no_unit(text: str, at: int) -> UnknownNameError:
    run = NAME_PATTERN.match(text, at)
    end = len(text.rstrip()) if run is None else run.end()
    if run is None:
        return UnknownNameError(messages.WRITE_UNIT_AFTER, position=(at, end))
    return unknown_unit(run[0], (at, end))


#: What is often written for a unit.
_MEANT = {
    "kmh": "km/h", "kmph": "km/h", "mps": "m/s", "sqm": "m^2", "sqft": "ft^2", "cc": "cm^3",
    "kgs": "kg", "hrs": "h", "mins": "min", "secs": "s", "kts": "kn",
    "celcius": "celsius", "sqkm": "km^2", "Kg": "kg", "KG": "kg", "Km": "km", "KM": "km",
    "Mtr": "m", "gm": "g", "oC": "°C", "mtr": "m", "ltr": "L",
}  # fmt: skip


def unknown_unit(run: str, span: tuple[int, int]) -> UnknownNameError:
    """Make the error of what should be a unit and is none, with the nearest spelling."""
    near = _MEANT.get(run) or nearest_unit(run)
    if near is not None:
        message = messages.UNIT_NOT_UNIT_DID(unit=run, near=near)
        return UnknownNameError(message, position=span, suggestion=near)
    return UnknownNameError(messages.UNIT_NOT_UNIT(unit=run), position=span)


@lru_cache(maxsize=1_000)
def nearest_unit(run: str) -> str | None:
    """Return the unit whose symbol or name differs from a text by one slip; None if none does."""
    return nearest(run, unit_names())

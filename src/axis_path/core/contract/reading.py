"""Validate plain data: the one place where data from outside become typed structs."""

from __future__ import annotations

import re
from collections.abc import Callable
from fractions import Fraction
from typing import Any, TypeVar

import msgspec

from axis_path.core.contract import messages
from axis_path.core.contract.exact import exact_from_text

T = TypeVar("T")
#: Makes an error from a sentence and the path of the field that is wrong.
Refused = Callable[[str, str], Exception]

_PATH = re.compile(r" - at `\$\.?(?P<path>[^`]*)`$")
_TYPES = {
    "int": messages.WHOLE_NUMBER, "float": "a number", "str": "a text", "bool": messages.TRUE_FALSE,
    "null": "nothing", "array": "a list", "object": messages.OBJECT,
}  # fmt: skip
_EXPECTED = re.compile(r"Expected `(?P<wanted>[^`]+)`, got `(?P<given>[^`]+)`")
_MISSING = re.compile(r"Object missing required field `(?P<name>[^`]+)`")
_UNKNOWN = re.compile(r"Object contains unknown field `(?P<name>[^`]+)`")
_LONG = re.compile(r"Expected `str` of length <= (?P<most>\d+)")
_MANY = re.compile(r"Expected `array` of length <= (?P<most>\d+)")
_FEW = re.compile(r"Expected `(?:array|str)` of length >= (?P<least>\d+)")
_BOUND = re.compile(r"Expected `(?:int|float)` (?P<sign>[<>]=?) (?P<bound>\S+)")
_ENUM = re.compile(r"Invalid (?:enum )?value (?P<value>.+)")
_SIGNS = {
    "<=": messages.AT_MOST,
    ">=": messages.AT_LEAST,
    "<": messages.LESS_THAN,
    ">": messages.GREATER_THAN,
}


def read(given: object, kind: type[T], refused: Refused) -> T:
    """Return plain data as a typed struct.

    Args:
        given: from JSON.
        kind: the struct.
        refused: makes the error of this border.

    Raises:
        Exception: what ``refused`` makes, where a field is missing, unknown or wrong.
    """
    try:
        return msgspec.convert(given, kind, dec_hook=_decode)
    except msgspec.ValidationError as err:
        raise refused(*describe(str(err))) from err


def describe(text: str) -> tuple[str, str]:
    """Return a sentence for an error of msgspec, and the path of its field."""
    match = _PATH.search(text)
    path = match["path"] if match else ""
    problem = text[: match.start()] if match else text
    named = _MISSING.search(problem) or _UNKNOWN.search(problem)
    if named is not None:
        path = f"{path}.{named['name']}" if path else named["name"]
    return _sentence(problem, path), path


def _sentence(problem: str, path: str) -> str:
    field = messages.FIELD_PATH(path=path) if path else messages.WHOLE
    if _MISSING.search(problem):
        return messages.FIELD_MISSING(field=field)
    if _UNKNOWN.search(problem):
        return messages.FIELD_UNKNOWN(field=field)
    if match := _LONG.search(problem):
        return messages.FIELD_HAS_MORE_THAN(field=field, most=int(match["most"]))
    if match := _MANY.search(problem):
        return messages.FIELD_HAS_MORE_THAN_MOST(field=field, most=int(match["most"]))
    if match := _FEW.search(problem):
        return messages.FIELD_MUST_HAVE_AT(field=field, least=int(match["least"]))
    if match := _BOUND.search(problem):
        return messages.FIELD_MUST_RELATION_BOUND(
            field=field, relation=_SIGNS[match["sign"]], bound=match["bound"]
        )
    if match := _EXPECTED.search(problem):
        expected = " or ".join(_TYPES.get(name, name) for name in match["wanted"].split(" | "))
        return messages.FIELD_MUST_EXPECTED_NOT(
            field=field, expected=expected, given=_TYPES.get(match["given"], match["given"])
        )
    if match := _ENUM.search(problem):
        return messages.FIELD_CANNOT_VALUE(field=field, value=match["value"])
    # A rule of our own says what is wrong in a sentence.
    return problem if problem.endswith(".") else f"{problem}."


def _decode(kind: type, given: Any) -> Any:  # noqa: ANN401 - msgspec's own
    """Read a type that JSON does not have: exact numbers are texts."""
    if kind is Fraction:
        if not isinstance(given, str):
            raise TypeError(messages.WRITE_EXACT_NUMBER_TEXT)
        try:
            return exact_from_text(given)
        except OverflowError as err:
            raise ValueError(str(err)) from err
    raise NotImplementedError

"""The Reference as data: it says what the catalogue says, and is the same for every study."""

from __future__ import annotations

from fractions import Fraction
from functools import cache
from typing import Any

from flask import Response

from axis_path.core.catalogue import (
    CONSTANTS,
    DEGREE,
    FUNCTIONS,
    SUMMARY_ENTRIES,
    FunctionEntry,
    Group,
    SummaryEntry,
)
from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS, PhysicalConstant
from axis_path.core.catalogue.units import UNITS, Prefixes, Unit, UnitEntry, UnitProduct, unit_of
from axis_path.core.dimensions import base_unit, described
from axis_path.core.language import (
    Vocabulary,
    read_expression,
    typeset,
    typeset_signature,
    typeset_unit,
)
from axis_path.web.answers import json_answer

_OPTIONAL = " (may be left out)"


def show() -> Response:
    """Return all entries, group by group."""
    response = json_answer({"groups": [group.value for group in Group], "entries": _entries()})
    response.headers["Cache-Control"] = "private, max-age=3600"
    return response


@cache
def _entries() -> list[dict[str, Any]]:
    called = [_called(entry) for entry in FUNCTIONS.values()]
    summaries = [_called(entry) for entry in SUMMARY_ENTRIES]
    return (
        [*called, *summaries]
        + [
            {
                "name": entry.name,
                "group": entry.group.value,
                "spellings": list(entry.spellings),
                "signature": typeset_signature(entry.name, ()),
                "arguments": [],
                "meaning": entry.meaning,
                "defined": "",
                "returns": "",
                "example": entry.example,
                "typeset": _example(entry.example),
                "insert": entry.name,
            }
            for name, entry in CONSTANTS.items()
            if name != DEGREE
        ]
        + [*map(_physical, PHYSICAL_CONSTANTS.values()), *map(_unit, UNITS)]
    )


def _physical(constant: PhysicalConstant) -> dict[str, Any]:
    example = f"{constant.name} in {constant.unit.symbol}" if constant.unit.parts else constant.name
    certainty = "exact" if constant.is_exact else f"± {_number(constant.uncertainty)}"
    return {
        "name": constant.name,
        "group": Group.PHYSICS.value,
        "spellings": [],
        "signature": typeset_signature(constant.name, ()),
        "arguments": [],
        "meaning": constant.meaning,
        "defined": f"{constant.shown} ({certainty}); {constant.source}",
        "returns": described(constant.unit.dimension),
        "example": example,
        "typeset": _example(example),
        "insert": constant.name,
    }


def _number(value: Fraction) -> str:
    mantissa, _, power = f"{float(value):.2g}".partition("e")
    return f"{mantissa}·10^{int(power)}".replace("-", "−") if power else mantissa


def _unit(entry: UnitEntry) -> dict[str, Any]:
    unit = unit_of(entry)
    example = f"1 {entry.symbol} in {base_unit(unit.dimension).symbol or '°'}"
    words = [entry.names[0].replace("_", " ")]
    if entry.prefixes is not Prefixes.NONE:
        words.append(f"also with prefixes, as in {_PREFIXED[entry.prefixes]}{entry.symbol}")
    if entry.remark:
        words.append(entry.remark)
    return {
        "name": entry.symbol,
        "group": Group.UNITS.value,
        "spellings": [*entry.others, *entry.names],
        "signature": typeset_unit(UnitProduct.of((unit, Fraction(1)))),
        "arguments": [],
        "meaning": "; ".join(words),
        "defined": f"{entry.measured.value}: {_in_base(unit)}",
        "returns": described(unit.dimension),
        "example": example,
        "typeset": _example(example),
        "insert": entry.symbol,
    }


#: A prefix as an example.
_PREFIXED = {Prefixes.DECIMAL: "k", Prefixes.BINARY: "M"}


def _in_base(unit: Unit) -> str:
    """Write a unit in base units, exactly."""
    base = base_unit(unit.dimension).printed or "rad"
    pi = "π" if unit.factor.pi else ""
    number = f"{unit.factor.number}".replace("1/", f"{pi or 1}/") if pi else str(unit.factor.number)
    zero = f", zero at {float(unit.offset):g} K" if unit.offset else ""
    return f"1 {unit.symbol} = {number} {base}{zero}"


def _called(entry: FunctionEntry | SummaryEntry) -> dict[str, Any]:
    names = tuple(argument.name for argument in entry.arguments)
    return {
        "name": entry.name,
        "group": entry.group.value,
        "spellings": list(getattr(entry, "spellings", ())),
        "signature": typeset_signature(entry.name, names),
        "arguments": [
            {
                "name": argument.name,
                "meaning": argument.meaning
                + (" (may be left out)" if argument.is_optional else ""),
            }
            for argument in entry.arguments
        ],
        "meaning": entry.meaning,
        "defined": entry.defined,
        "returns": entry.returns,
        "example": entry.example,
        "typeset": _example(entry.example),
        "insert": f"{entry.name}(",
    }


def _example(text: str) -> str:
    return typeset(read_expression(text, Vocabulary(variables=frozenset({"x"}))))

"""Units by their symbols and names, with prefixes."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from functools import cache, lru_cache

from axis_path.core.catalogue.units.definitions import DEFINITIONS
from axis_path.core.catalogue.units.dimension import read_dimension
from axis_path.core.catalogue.units.entry import Factor, Prefixes, Unit, UnitEntry
from axis_path.core.catalogue.units.shelf import BINARY_PREFIXES, DECIMAL_PREFIXES, UNITS

#: Letters that are typed for the sign of micro.
_MICRO = ("µ", "μ", "u")


@lru_cache(maxsize=4096)
def find_unit(text: str) -> Unit | None:
    """Return the unit that a symbol or a name means, with or without a prefix; None if none."""
    entry = _bare().get(text)
    if entry is not None:
        return unit_of(entry)
    for prefix, power, is_symbol in _prefixes_of(text):
        stem = text[len(prefix) :]
        known = _bare().get(stem)
        if known is None or stem not in (_symbols(known) if is_symbol else known.names):
            continue
        if known.prefixes is Prefixes.NONE or (power[0] == 2 and known.prefixes is not _BINARY):
            continue
        return _prefixed(known, prefix, power, is_symbol=is_symbol)
    return None


_BINARY = Prefixes.BINARY


@lru_cache(maxsize=256)
def unit_of(entry: UnitEntry) -> Unit:
    """Return a unit of the catalogue without a prefix."""
    number, pi, powers, *zero = DEFINITIONS[entry.definition]
    factor, dimension = Factor(Fraction(number), int(pi)), read_dimension(powers)
    offset = Fraction(zero[0]) if zero else Fraction(0)
    return Unit(entry.symbol, entry.names[0], factor, dimension, offset)


@cache
def unit_names() -> frozenset[str]:
    """Return all symbols and names without prefixes, for suggestions."""
    return frozenset(_bare())


@cache
def _bare() -> dict[str, UnitEntry]:
    by_name: dict[str, UnitEntry] = {}
    for entry in UNITS:
        for text in (entry.symbol, *entry.others, *entry.names):
            by_name.setdefault(text, entry)
    return by_name


def _prefixes_of(text: str) -> Iterator[tuple[str, tuple[int, int], bool]]:
    """Return the prefixes that a text begins with, as symbols and as words."""
    for symbol, name, power in BINARY_PREFIXES:
        if text.startswith(symbol):
            yield symbol, (2, power), True
        if text.startswith(name):
            yield name, (2, power), False
    for symbol, name, power in DECIMAL_PREFIXES:
        for typed in _MICRO if symbol in _MICRO else (symbol,):
            if text.startswith(typed):
                yield typed, (10, power), True
        if text.startswith(name):
            yield name, (10, power), False


def _symbols(entry: UnitEntry) -> tuple[str, ...]:
    return (entry.symbol, *entry.others)


def _prefixed(entry: UnitEntry, prefix: str, power: tuple[int, int], *, is_symbol: bool) -> Unit:
    unit = unit_of(entry)
    times = Factor(Fraction(power[0]) ** power[1]) * unit.factor
    names = {symbol: name for symbol, name, _ in (*DECIMAL_PREFIXES, *BINARY_PREFIXES)}
    symbols = {name: symbol for symbol, name in names.items()}
    typed = _MICRO[0] if prefix in _MICRO else prefix
    symbol = typed if is_symbol else symbols[prefix]
    return Unit(f"{symbol}{entry.symbol}", names[symbol] + unit.name, times, unit.dimension)

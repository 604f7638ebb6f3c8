"""Choose the unit that a value is shown in."""

from __future__ import annotations

from functools import cache

from axis_path.core.catalogue.units import (
    BASE_UNITS,
    NO_UNIT,
    ONE,
    UNITS,
    Dimension,
    UnitProduct,
    find_unit,
    read_unit,
    unit_of,
)

#: The units of the SI with a name of their own, the usual one of each dimension first.
_NAMED = (
    "N", "J", "W", "Pa", "C", "V", "Ω", "F", "S", "Wb", "T", "H", "Hz", "lm", "lx", "kat",
)  # fmt: skip
#: So many units in a product are more than one reads at a glance.
_MANY = 3
#: Units offered for each shelf of the catalogue beside the plain symbols, with prefixes.
_USUAL = {
    "m": ("mm", "cm", "m", "km"), "m^2": ("mm^2", "cm^2", "m^2", "km^2"),
    "m^3": ("mL", "cm^3", "L", "m^3"), "kg": ("mg", "g", "kg", "t"),
    "s": ("µs", "ms", "s", "min", "h", "d"), "m s^-1": ("m/s", "km/h"),
    "m s^-2": ("m/s^2", "km/h^2"), "kg m s^-2": ("mN", "N", "kN", "MN"),
    "kg m^-1 s^-2": ("Pa", "hPa", "kPa", "MPa", "bar"),
    "kg m^2 s^-2": ("J", "kJ", "MJ", "Wh", "kWh"), "kg m^2 s^-3": ("mW", "W", "kW", "MW"),
    "s^-1": ("Hz", "kHz", "MHz", "1/s", "1/min"), "kg m^-3": ("kg/m^3", "g/cm^3", "kg/L"),
    "m^3 s^-1": ("m^3/s", "L/s", "L/min", "L/h"), "kg s^-1": ("kg/s", "kg/h", "t/h"),
    "A": ("mA", "A", "kA"), "A s": ("C", "mC", "µC", "mAh", "Ah"),
    "kg m^2 s^-3 A^-1": ("mV", "V", "kV"), "kg m^2 s^-3 A^-2": ("Ω", "kΩ", "MΩ"),
    "kg^-1 m^-2 s^4 A^2": ("pF", "nF", "µF", "mF", "F"),
    "kg m^2 s^-2 A^-2": ("µH", "mH", "H"), "bit": ("bit", "B", "kB", "MB", "GB", "MiB", "GiB"),
    "bit s^-1": ("bit/s", "kbit/s", "Mbit/s", "MB/s"), "mol": ("mmol", "mol"),
    "rad": ("°", "rad", "gon", "rev"), "s^-1 rad": ("rad/s", "°/s", "rpm"),
    "kg m^2 s^-2 K^-1": ("J/K", "kJ/K"), "m^2 s^-2 K^-1": ("J/(kg K)", "kJ/(kg K)"),
    "kg s^-2": ("N/m", "kN/m", "N/cm"), "kg m^-1": ("kg/m", "g/m"),
    "kg m^-2": ("kg/m^2", "t/m^2"), "K": ("K", "°C", "°F"),
}  # fmt: skip


def tidied(unit: UnitProduct | None, dimension: Dimension) -> UnitProduct:
    """Return the unit in which a value is shown if nothing else was chosen.

    Args:
        unit: the one that follows from how the value is written; None if none does.
        dimension: of the value.
    """
    if dimension.is_plain:
        return NO_UNIT
    if dimension.angle and dimension.without_angle.is_plain and dimension.angle != 1:
        return NO_UNIT
    if unit is not None:
        merged = _merged(unit if _is_turning(dimension) else _without_angles(unit))
        if _fits(merged, dimension) and not _is_awkward(merged, dimension):
            return merged
    return named_unit(dimension)


def _fits(unit: UnitProduct, dimension: Dimension) -> bool:
    own, wanted = unit.dimension, dimension
    return unit.factor is not None and own.without_angle == wanted.without_angle


def _is_awkward(unit: UnitProduct, dimension: Dimension) -> bool:
    """Check whether a product of units has a name of its own, or is too long to read."""
    named = _coherent().get(dimension.without_angle)
    if len(unit.parts) == 1 or dimension.angle:
        return False
    return named is not None and (unit.factor == ONE or len(unit.parts) >= _MANY)


def _merged(unit: UnitProduct) -> UnitProduct:
    """Return a product in which units that measure the same are one: km min/h is in km."""
    powers: dict[Dimension, tuple[int, int]] = {}
    parts = list(unit.parts)
    for index, (part, power) in enumerate(parts):
        first = powers.get(part.dimension)
        if first is None or part.offset:
            powers[part.dimension] = (index, index)
            continue
        kept, total = parts[first[0]]
        larger = kept if abs(total) >= abs(power) else part
        parts[first[0]] = (larger, total + power)
        parts[index] = (part, power - power)
    return UnitProduct.of(*parts)


def named_unit(dimension: Dimension) -> UnitProduct:
    """Return the unit of the SI for a dimension: N for a force, else a product of base units."""
    known = _coherent().get(dimension)
    if known is None and dimension.angle:
        known = _coherent().get(dimension.without_angle)
    return known or base_unit(dimension if _is_turning(dimension) else dimension.without_angle)


def _without_angles(unit: UnitProduct) -> UnitProduct:
    """Return a unit without radians, which are the number 1 in it."""
    return UnitProduct.of(*((part, power) for part, power in unit.parts if part.symbol != "rad"))


def _is_turning(dimension: Dimension) -> bool:
    """Check whether an angle is named in a unit: in rad/s, but not in rad m/s."""
    return set(dimension.powers) <= {"rad", "s"}


def base_unit(dimension: Dimension) -> UnitProduct:
    """Return a dimension as a product of base units."""
    pairs = zip(BASE_UNITS, dimension.exponents, strict=True)
    parts = [(find_unit(symbol), exponent) for symbol, exponent in pairs]
    return UnitProduct.of(*((unit, power) for unit, power in parts if unit is not None))


@cache
def _coherent() -> dict[Dimension, UnitProduct]:
    by_dimension: dict[Dimension, UnitProduct] = {}
    for symbol in _NAMED:
        unit = read_unit(symbol)
        if unit is not None:
            by_dimension.setdefault(unit.dimension, unit)
    hertz = read_unit("1/s")
    if hertz is not None:
        # A rate is in 1/s; that it is a frequency has to be said.
        by_dimension[hertz.dimension] = hertz
    return by_dimension


@cache
def fitting_units(dimension: Dimension) -> tuple[UnitProduct, ...]:
    """Return the units that a value can be shown in, the usual ones first."""
    texts = list(_USUAL.get(str(dimension), ()))
    if not texts:
        texts = list(_USUAL.get(str(dimension.without_angle), ()))
    units = [unit for unit in map(read_unit, texts) if unit is not None]
    units += [named_unit(dimension), base_unit(dimension.without_angle)]
    for entry in UNITS:
        alone = unit_of(entry)
        if alone.dimension == dimension:
            units.append(UnitProduct.of((alone, units[0].parts[0][1] ** 0)))
    unique: dict[str, UnitProduct] = {}
    for unit in units:
        if unit.parts:
            unique.setdefault(unit.symbol, unit)
    return tuple(unique.values())

"""Dimensions in words."""

from __future__ import annotations

from axis_path.core.catalogue.units import Dimension, read_dimension

#: What is measured in these base units.
_NAMES = {
    "m": "a length", "m^2": "an area", "m^3": "a volume", "kg": "a mass", "s": "a time",
    "s^-1": "a frequency", "m s^-1": "a speed", "m s^-2": "an acceleration",
    "kg m s^-2": "a force", "kg m s^-1": "a momentum", "kg m^2 s^-2": "an energy",
    "kg m^2 s^-3": "a power", "kg m^-1 s^-2": "a pressure", "kg m^-3": "a density",
    "kg m^-1": "a mass per length", "kg m^-2": "a mass per area", "kg s^-1": "a mass flow",
    "m^3 s^-1": "a volume flow", "m^-1": "a number per length", "kg s^-2": "a stiffness",
    "kg m^2": "a moment of inertia", "kg m^2 s^-1": "an angular momentum",
    "kg m^-1 s^-1": "a viscosity", "A": "an electric current", "A s": "an electric charge",
    "kg m^2 s^-3 A^-1": "a voltage", "kg m^2 s^-3 A^-2": "an electric resistance",
    "kg^-1 m^-2 s^3 A^2": "an electric conductance", "kg^-1 m^-2 s^4 A^2": "a capacitance",
    "kg m^2 s^-2 A^-2": "an inductance", "kg s^-2 A^-1": "a magnetic flux density",
    "kg m^2 s^-2 A^-1": "a magnetic flux", "kg m s^-3 A^-1": "an electric field strength",
    "K": "a temperature", "m^2 s^-2": "an energy per mass", "m^2 s^-2 K^-1": "a specific heat",
    "kg m^2 s^-2 K^-1": "a heat capacity", "mol": "an amount of substance",
    "kg mol^-1": "a molar mass", "mol m^-3": "a concentration", "mol s^-1": "a catalytic activity",
    "kg s^-3": "a power per area", "cd": "a luminous intensity", "bit": "an amount of data",
    "bit s^-1": "a data rate", "rad": "an angle", "s^-1 rad": "an angular velocity",
    "s^-2 rad": "an angular acceleration",
}  # fmt: skip
_BY_DIMENSION = {read_dimension(text): name for text, name in _NAMES.items()}


def name_of(dimension: Dimension) -> str:
    """Return what is measured, with its article; empty if there is no word for it."""
    if dimension.is_plain:
        return "a plain number"
    return _BY_DIMENSION.get(dimension) or _BY_DIMENSION.get(dimension.without_angle, "")


def noun_of(dimension: Dimension) -> str:
    """Return what is measured without an article; empty if there is no word for it."""
    return name_of(dimension).partition(" ")[2]


def described(dimension: Dimension) -> str:
    """Return a dimension in words and base units: ``a force (kg m/s²)``."""
    name = name_of(dimension)
    if dimension.is_plain:
        return name
    return f"{name} ({dimension.printed})" if name else f"in {dimension.printed}"

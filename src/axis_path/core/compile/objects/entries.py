"""The entries of lists and matrices as floats, as fractions and as texts."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from flint import fmpq

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar
from axis_path.core.evaluate import ExactForm
from axis_path.core.evaluate.objects.values import Coordinates, Value
from axis_path.core.evaluate.result import known_form

#: So many entries of a list or a matrix are results with digits and forms of their own.
_MOST_PARTS = 400
_SHOWN_SIDE = 20


def shown_shape(shape: tuple[int, ...]) -> tuple[int, ...]:
    """Return the shape of the entries that have digits and forms of their own."""
    if math.prod(shape) <= _MOST_PARTS:
        return shape
    return tuple(min(side, _SHOWN_SIDE) for side in shape)


def shown_indices(shape: tuple[int, ...], shown: tuple[int, ...]) -> list[int]:
    """Return where the first entries stand among all."""
    if len(shape) == 1:
        return list(range(shown[0]))
    return [row * shape[1] + column for row in range(shown[0]) for column in range(shown[1])]


def floats_of(value: Array[Value]) -> np.ndarray:
    """Return the entries as an array of floats, or of complex numbers, or of points (n, 2)."""
    if value.bounded is not None:
        return value.bounded.nearest().reshape(value.shape)
    if isinstance(value.entries[0], Coordinates):
        pairs = [(_float(e.first), _float(e.second)) for e in value.entries]
        return np.array(pairs)
    numbers = [_float(entry) for entry in value.entries]
    return np.array(numbers).reshape(value.shape)


def _float(value: Scalar) -> float | complex:
    if value.defined is not Defined.YES:
        return float("nan")
    if isinstance(value, ComplexBall):
        return complex(float(value.value.real.mid()), float(value.value.imag.mid()))
    return 0.0 if value.value.contains(0) else float(value.value.mid())


def exact_complex(value: ComplexBall) -> Callable[[], ExactForm] | None:
    """Return the exact form of a complex number of fractions."""
    if value.exact is None:
        return None
    real, imaginary = value.exact
    size = "" if abs(imaginary) == 1 else str(abs(imaginary)) if imaginary.q == 1 else ""
    unit = f"{size}i"
    if not size and abs(imaginary) != 1:
        top = "" if abs(imaginary.p) == 1 else str(abs(imaginary.p))
        unit = f"{top}i/{imaginary.q}"
    sign = "-" if imaginary < 0 else "+"
    alone = f"-{unit}" if sign == "-" else unit
    text = alone if real == 0 else f"{real} {sign} {unit}"
    return lambda: ExactForm(text)


def fractions_of(value: Value) -> Array[fmpq] | None:
    """Return a list or a matrix of which all entries are known fractions, as those; else None."""
    if not isinstance(value, Array):
        return None
    found = [entry.exact for entry in value.entries if isinstance(entry, Ball)]
    exact = tuple(number for number in found if number is not None)
    return Array(value.shape, exact) if len(exact) == len(value.entries) else None


def exact_text(value: Array[Value]) -> str | None:
    """Return all entries as a text of our language, if each is known to be a fraction."""
    texts: list[str] = []
    for entry in value.entries:
        form = known_form(entry) if isinstance(entry, Ball) and entry.is_defined else None
        if form is None:
            return None
        texts.append(form)
    if not value.is_matrix:
        return f"[{', '.join(texts)}]"
    width = value.column_count
    rows = [texts[k : k + width] for k in range(0, len(texts), width)]
    return "[" + ", ".join(f"[{', '.join(row)}]" for row in rows) + "]"

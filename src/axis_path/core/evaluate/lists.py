"""The elements of lists: written out one by one, or evenly spaced."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.arithmetic.arrays.array import check_same_length
from axis_path.core.arithmetic.bounded import entrywise, totals
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_ball, from_common
from axis_path.core.arithmetic.conversion import to_fraction, whole_number
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.errors import LimitError, ListError
from axis_path.core.evaluate.constants import evaluate_constant, sample_inputs
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.function import VALUE_BITS
from axis_path.core.evaluate.graph.shapes import SECOND, ListSource, Shaped
from axis_path.core.limits import LIST_LENGTH, written_count
from axis_path.core.threads import lazy_property

Floats = NDArray[np.float64]
Values = Parameters


@dataclass(frozen=True)
class Elements:
    """The elements of one list, in the present state of the sliders.

    Attributes:
        count: how many there are.
        find_floats: gives the nearest floats, (n,).
        exact: gives an element as a ball, at so many binary digits.
        bounded: gives all of them as floats with error bounds; None where that is not served.
    """

    count: int
    find_floats: Callable[[], Floats]
    exact: Callable[[int, int], Ball]
    bounded: Callable[[], BoundedEntries | None] = lambda: None

    @lazy_property
    def floats(self) -> Floats:
        """Return the nearest floats, (n,)."""
        return self.find_floats()


def elements(source: ListSource, coordinate: int, at: Expression, values: Values) -> Elements:
    """Return the elements of a list, or of points the coordinate number ``coordinate`` (0 or 1).

    Args:
        source: where they come from.
        coordinate: which coordinate.
        at: any expression of the graph in which the source's steps stand.
        values: the sliders.

    Raises:
        ListError: an end, a step or a count that makes no list. LimitError: it is too long.
    """
    if source.start is not None and source.stop is not None:
        return _spaced(source, at, values)
    parts = [at.sibling(item[coordinate]) for item in source.items]
    if len(parts) > LIST_LENGTH.value:
        raise LimitError(f"A list can have {LIST_LENGTH.value:,} elements.")

    def floats() -> Floats:
        return np.array([float(sample_inputs(part, values, {"": np.zeros(())})) for part in parts])

    def exact(index: int, bits: int) -> Ball:
        return evaluate_constant(parts[index], values, bits=bits)

    return Elements(len(parts), floats, exact)


def _spaced(source: ListSource, at: Expression, values: Values) -> Elements:
    names = ("start", "stop", "step", "count")
    parts = {
        name: at.sibling(step) for name in names if (step := getattr(source, name)) is not None
    }
    parts_values = {
        name: evaluate_constant(part, values, bits=VALUE_BITS) for name, part in parts.items()
    }
    for name, value in parts_values.items():
        if value.defined is not Defined.YES or not value.value.is_finite():
            raise ListError(f"The {name} of a list has no value: {value.reason or 'not decided'}.")
    with precision(VALUE_BITS):
        count = _count(parts_values)
    if count > LIST_LENGTH.value:
        raise LimitError(
            f"A list of {written_count(count)} elements is too long; "
            f"{LIST_LENGTH.value:,} is the most."
        )

    def exact(index: int, bits: int) -> Ball:
        ends = {name: evaluate_constant(part, values, bits=bits) for name, part in parts.items()}
        with precision(bits):
            if "step" in ends:
                step = ends["step"]
            else:
                whole = ball.subtract(ends["stop"], ends["start"])
                step = ball.divide(whole, ball.from_fraction(count - 1))
            return ball.add(ends["start"], ball.multiply(ball.from_fraction(index), step))

    start, stop = (float(parts_values[name].value.mid()) for name in ("start", "stop"))
    if "step" in parts_values:
        floats = start + np.arange(count, dtype=np.float64) * float(
            parts_values["step"].value.mid()
        )
    else:
        floats = np.linspace(start, stop, count, dtype=np.float64)

    def bounded() -> BoundedEntries | None:
        with precision(VALUE_BITS):
            first, second = exact(0, VALUE_BITS), exact(1, VALUE_BITS)
            return _bounded(first, ball.subtract(second, first), count)

    return Elements(count, lambda: floats, exact, bounded)


def spaced_elements(ends: Mapping[str, object], bits: int) -> list[Ball]:
    """Return the elements of a list of even steps, given its ends and its step or its count.

    Raises:
        ListError: an end, a step or a count that makes no list. LimitError: it is too long.
    """
    known: dict[str, Ball] = {}
    for name, value in ends.items():
        if not isinstance(value, Ball) or value.defined is not Defined.YES:
            raise ListError(f"The {name} of a list is no real number.")
        known[name] = value
    with precision(bits):
        count = _count(known)
        if count > LIST_LENGTH.value:
            raise LimitError(f"A list can have {LIST_LENGTH.value:,} elements.")
        step = known.get("step")
        if step is None:
            whole = ball.subtract(known["stop"], known["start"])
            step = ball.divide(whole, ball.from_fraction(count - 1))
        return [
            ball.add(known["start"], ball.multiply(ball.from_fraction(index), step))
            for index in range(count)
        ]


def _bounded(start: Ball, step: Ball, count: int) -> BoundedEntries | None:
    if start.exact is not None and step.exact is not None:
        return totals.evenly_spaced(to_fraction(start.exact), to_fraction(step.exact), count)
    indices = from_common(np.arange(count, dtype=np.int64))
    steps = entrywise.multiply(indices, from_ball(step))
    return None if steps is None else entrywise.add(steps, from_ball(start))


def _count(values: dict[str, Ball]) -> int:
    if "count" in values:
        count = values["count"].exact
        if count is None or count.q != 1 or count < 2:
            raise ListError("A list in points needs a whole number of them, at least 2.")
        return int(count.p)
    step, length = values["step"], ball.subtract(values["stop"], values["start"])
    if step.sign() in (0, None):
        raise ListError("The step of a list is not 0.")
    steps = ball.divide(length, step)
    if bool(steps.value < 0):
        raise ListError("The step of a list leads away from its end.")
    # An end that is met within all digits is met: from 0 to 2π in steps of π/6.
    upper = steps.value.upper() if steps.exact is None else steps.value
    whole = steps.exact.floor() if steps.exact is not None else whole_number(upper.floor())
    if whole is None:
        raise LimitError(f"A list can have {LIST_LENGTH.value:,} elements.")
    return int(whole) + 1


def inputs_of(
    value: Shaped, sources: Mapping[str, ListSource], at: Expression, values: Values
) -> dict[str, Elements]:
    """Return the elements of all lists over which a value runs, by the names of its inputs.

    Raises:
        ListError: the lists have different lengths.
    """
    inputs: dict[str, Elements] = {}
    for name in sorted(value.lists):
        source = sources[name]
        inputs[name] = elements(source, 0, at, values)
        if source.items and len(source.items[0]) > 1:
            inputs[name + SECOND] = elements(source, 1, at, values)
    check_same_length(operand.count for operand in inputs.values())
    return inputs

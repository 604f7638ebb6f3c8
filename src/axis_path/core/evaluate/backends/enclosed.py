"""Enclosures of a program over columns: compiled where all of its steps are, else with NumPy."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cache
from types import MappingProxyType, ModuleType
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure, enclosure, opcodes
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.catalogue import CONSTANTS, OPERATIONS
from axis_path.core.deadline import check
from axis_path.core.evaluate.backends.backends import Enclosing, float_bounds
from axis_path.core.evaluate.graph.graph import Fence, Op, Split, Step
from axis_path.core.evaluate.graph.program import Program, run

Floats = NDArray[np.float64]
Whole = NDArray[np.int32]
#: Columns as bounds, (n,) each.
Bounds = tuple[Floats, Floats]
_ENCLOSING = Enclosing()
_NO_BOUND, _OPEN, _CLOSED, _ELSEWHERE = 0, 1, 2, -1


@dataclass(frozen=True, slots=True)
class _Encoded:
    """A program as numbers, for ``kernel.enclose``.

    Attributes:
        sliders: the places of the sliders, with their names.
        inputs: the names of the inputs in the order of their rows, after the variable.
    """

    codes: Whole
    arguments: Whole
    starts: Whole
    extra: Whole
    extra_starts: Whole
    low: Floats
    high: Floats
    results: Whole
    sliders: tuple[tuple[int, str], ...]
    inputs: tuple[str, ...]


def enclose_columns(
    program: Program,
    columns: Bounds,
    parameters: Parameters,
    inputs: Mapping[str, Bounds] = MappingProxyType({}),
) -> list[Enclosure]:
    """Enclose the results of a program over columns, (n,) each.

    Args:
        program: what to compute.
        columns: what the variable takes.
        parameters: the values of the sliders.
        inputs: what further variables take, (n,) each.
    """
    encoded = _encoded(program)
    if encoded is None:
        return _with_numpy(program, columns, parameters, inputs)
    check()
    # Copies: what is given may not be written, and would be another type then.
    lower, upper = np.array(columns[0], ndmin=2), np.array(columns[1], ndmin=2)
    if encoded.inputs:
        lower = np.array([columns[0], *(inputs[name][0] for name in encoded.inputs)])
        upper = np.array([columns[1], *(inputs[name][1] for name in encoded.inputs)])
    *steps, results = _form(encoded, parameters)
    low, high, partial, nowhere, broken = _kernel().enclose(*steps, lower, upper, results)
    return [
        Enclosure(low[k], high[k], partial[k], nowhere[k], broken[k]) for k in range(len(results))
    ]


def compiled_form(program: Program, parameters: Parameters) -> tuple[Any, ...] | None:
    """Return a program of one variable as ``arithmetic.kernel.enclose`` takes it.

    Returns:
        Its arguments but for the columns; None if some of the steps are not compiled.
    """
    encoded = _encoded(program)
    return None if encoded is None or encoded.inputs else _form(encoded, parameters)


def _form(encoded: _Encoded, parameters: Parameters) -> tuple[Any, ...]:
    low, high = encoded.low, encoded.high
    if encoded.sliders:
        low, high = low.copy(), high.copy()
        for position, name in encoded.sliders:
            low[position], high[position] = float_bounds(parameters[name])
    return (
        encoded.codes, encoded.arguments, encoded.starts, encoded.extra, encoded.extra_starts,
        low, high, encoded.results,
    )  # fmt: skip


@cache
def _kernel() -> ModuleType:
    """Return the compiled code; only what needs it pays for loading it."""
    from axis_path.core.arithmetic import kernel

    return kernel


def middles(midpoints: Enclosure) -> Floats:
    """Return the middles of enclosures, (n,); NaN where there is no value or no bound."""
    return _kernel().middles(midpoints.low, midpoints.high, np.asarray(midpoints.nowhere))  # type: ignore[no-any-return]


def _with_numpy(
    program: Program,
    columns: Bounds,
    parameters: Parameters,
    inputs: Mapping[str, Bounds],
) -> list[Enclosure]:
    used = {
        name: enclosure.constant(*float_bounds(parameters[name])) for name in program.parameters
    }
    used |= {name: enclosure.between(*bounds) for name, bounds in inputs.items()}
    with np.errstate(all="ignore"):
        results = run(program, _ENCLOSING, enclosure.between(*columns), used)
    shape = np.shape(columns[0])
    # Copies: what is compiled further up takes arrays that can be written only.
    return [
        Enclosure(
            np.array(np.broadcast_to(result.low, shape)),
            np.array(np.broadcast_to(result.high, shape)),
            np.array(np.broadcast_to(result.partial | result.nowhere, shape)),
            np.array(np.broadcast_to(result.nowhere, shape)),
            np.array(np.broadcast_to(result.broken, shape)),
        )
        for result in results
    ]


def _encoded(program: Program) -> _Encoded | None:
    """Return a program as numbers, None if it has steps that are not compiled; it is stored."""
    cache = program.cache
    if "encoded" not in cache:
        cache["encoded"] = _encode(program)
    cached = cache["encoded"]
    return cached if isinstance(cached, _Encoded) else None


def _encode(program: Program) -> _Encoded | None:
    table = _table()
    inputs = tuple(sorted(program.inputs))
    codes, extra, sliders = [], [], []
    low, high = np.zeros(len(program.steps)), np.zeros(len(program.steps))
    for position, step in enumerate(program.steps):
        code = table.get(step.op)
        if code is None:
            return None
        codes.append(code)
        more = _extra(step, inputs)
        if more is None:
            return None
        extra.append(more)
        if step.op == Op.PARAMETER:
            sliders.append((position, str(step.payload)))
        elif step.op == Op.NUMBER and isinstance(step.payload, Fraction):
            low[position], high[position] = float_bounds(step.payload)
        elif step.op == Op.CONSTANT:
            constant = CONSTANTS.get(str(step.payload))
            if constant is None:
                return None
            low[position], high[position] = constant.low, constant.high
    arguments = [list(step.arguments) for step in program.steps]
    return _Encoded(
        _whole(codes), *_flat(arguments), *_flat(extra), low, high, _whole(program.results),
        tuple(sliders), inputs,
    )  # fmt: skip


def _table() -> dict[str, int]:
    kernel = _kernel()
    return {
        Op.NUMBER: opcodes.CONSTANT, Op.PARAMETER: opcodes.CONSTANT, Op.CONSTANT: opcodes.CONSTANT,
        Op.VARIABLE: opcodes.INPUT, Op.INPUT: opcodes.INPUT, Op.ADD: opcodes.ADD,
        Op.SUBTRACT: opcodes.SUBTRACT, Op.MULTIPLY: opcodes.MULTIPLY, Op.DIVIDE: opcodes.DIVIDE,
        Op.NEGATIVE: opcodes.NEGATIVE, Op.POWER: opcodes.POWER,
        Op.INTEGER_POWER: opcodes.INTEGER_POWER, Op.ROOT: opcodes.ROOT, Op.WITHIN: opcodes.WITHIN,
        Op.PIECES: opcodes.PIECES, Op.GUARD: opcodes.GUARD,
    } | {
        name: kernel.CODES[backends.enclosing]
        for name, backends in OPERATIONS.items()
        if backends.enclosing in kernel.CODES
    }  # fmt: skip


def _extra(step: Step, inputs: tuple[str, ...]) -> list[int] | None:
    """Return what a step needs besides its arguments; None if that is not compiled."""
    payload = step.payload
    if step.op == Op.VARIABLE:
        return [0]
    if step.op == Op.INPUT:
        return [1 + inputs.index(str(payload))]
    if isinstance(payload, Fence):
        return _fence(payload)
    if isinstance(payload, Split):
        return [x for fence in payload.fences for x in _fence(fence)]
    if isinstance(payload, tuple):
        return list(payload)
    if isinstance(payload, int):
        return [payload]
    return [] if payload is None or isinstance(payload, (Fraction, str)) else None


def _fence(fence: Fence | None) -> list[int]:
    if fence is None:
        return [_ELSEWHERE, _NO_BOUND, 0]
    ends = [
        _NO_BOUND if end is None else _CLOSED if end else _OPEN for end in (fence.low, fence.high)
    ]
    return [*ends, fence.without]


def _whole(numbers: list[int] | tuple[int, ...]) -> Whole:
    return np.array(numbers, dtype=np.int32)


def _flat(lists: list[list[int]]) -> tuple[Whole, Whole]:
    """Return lists one after the other, and where each begins."""
    starts = np.cumsum([0, *(len(item) for item in lists)])
    return _whole([item for part in lists for item in part]), starts.astype(np.int32)

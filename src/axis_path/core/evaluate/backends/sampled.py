"""Values of a program at many points: compiled where it is arithmetic only, else with NumPy."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from functools import cache
from types import ModuleType
from typing import cast

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.catalogue import CONSTANTS
from axis_path.core.deadline import check
from axis_path.core.evaluate.backends.backends import Fast, nearest_float
from axis_path.core.evaluate.graph.graph import Op
from axis_path.core.evaluate.graph.program import Program, run

Floats = NDArray[np.float64]
_FAST = Fast()


@dataclass(frozen=True, slots=True)
class _Arithmetic:
    """A program as numbers, for ``point_kernel.values``; ``sliders`` are their places and names."""

    steps: NDArray[np.int32]
    numbers: Floats
    sliders: tuple[tuple[int, str], ...]


def sample(program: Program, xs: Floats, parameters: Parameters) -> Floats:
    """Return the first result of a program at ``xs``, of any shape; NaN where none is finite.

    Args:
        program: what to compute; it has no inputs but its variable.
        xs: the values of the variable.
        parameters: the values of all sliders that the program reads.
    """
    kernel = _kernel()
    contiguous = xs if xs.flags.carray and xs.dtype == np.float64 else np.array(xs, np.float64)
    arithmetic = _arithmetic(program)
    if arithmetic is None or contiguous.ndim != 1:
        ys = _with_numpy(program, contiguous, parameters)
        kernel.drop_infinite(ys if ys.ndim == 1 else ys.reshape(-1))
        return ys
    check()
    numbers = arithmetic.numbers
    if arithmetic.sliders:
        numbers = numbers.copy()
        for position, name in arithmetic.sliders:
            numbers[position] = nearest_float(parameters[name])
    return kernel.values(  # type: ignore[no-any-return]
        arithmetic.steps, numbers, contiguous, program.results[0]
    )


def is_arithmetic(program: Program) -> bool:
    """Check whether a program takes its values from compiled code alone."""
    return _arithmetic(program) is not None


@cache
def _kernel() -> ModuleType:
    """Return the compiled code; only what needs it pays for loading it."""
    from axis_path.core.arithmetic import point_kernel

    return point_kernel


def _with_numpy(program: Program, xs: Floats, parameters: Parameters) -> Floats:
    used = {
        name: cast(Floats, np.float64(nearest_float(parameters[name])))
        for name in program.parameters
    }
    with np.errstate(all="ignore"):
        ys = run(program, _FAST, xs, used)[0]
    if ys is xs or ys.shape != xs.shape or not ys.flags.carray:
        return np.array(np.broadcast_to(ys, xs.shape), dtype=np.float64)
    return ys


def _arithmetic(program: Program) -> _Arithmetic | None:
    """Return a program as numbers, None if it is more than arithmetic; it is stored."""
    cache = program.cache
    if "arithmetic" not in cache:
        cache["arithmetic"] = _encode(program)
    cached = cache["arithmetic"]
    return cached if isinstance(cached, _Arithmetic) else None


def _encode(program: Program) -> _Arithmetic | None:
    point_kernel = _kernel()
    codes: dict[str, int] = {
        Op.NUMBER: point_kernel.NUMBER, Op.CONSTANT: point_kernel.NUMBER,
        Op.PARAMETER: point_kernel.NUMBER, Op.VARIABLE: point_kernel.VARIABLE,
        Op.ADD: point_kernel.ADD, Op.SUBTRACT: point_kernel.SUBTRACT,
        Op.MULTIPLY: point_kernel.MULTIPLY, Op.DIVIDE: point_kernel.DIVIDE,
        Op.NEGATIVE: point_kernel.NEGATIVE, Op.INTEGER_POWER: point_kernel.POWER,
    }  # fmt: skip
    steps = np.zeros((len(program.steps), 4), dtype=np.int32)
    numbers, sliders = np.zeros(len(program.steps)), []
    for position, step in enumerate(program.steps):
        if step.op not in codes:
            return None
        steps[position, 0] = codes[step.op]
        steps[position, 1 : 1 + len(step.arguments)] = step.arguments
        if step.op == Op.PARAMETER:
            sliders.append((position, str(step.payload)))
        elif step.op == Op.CONSTANT:
            constant = CONSTANTS.get(str(step.payload))
            if constant is None:
                return None
            numbers[position] = constant.low
        elif isinstance(step.payload, Fraction):
            numbers[position] = nearest_float(step.payload)
        elif step.op == Op.INTEGER_POWER:
            exponent = _exponent(step.payload)
            if not 0 < abs(exponent) <= point_kernel.LARGEST_POWER:
                return None
            steps[position, 3] = exponent
    return _Arithmetic(steps, numbers, tuple(sliders))


def _exponent(payload: object) -> int:
    return payload if isinstance(payload, int) else 0

"""The enclosures of ``enclosure.py``, compiled: a whole program over all columns in one call.

NumPy makes a dozen passes over its arrays for each operation; on the few hundred columns of a
picture these cost more than the arithmetic itself. Here Numba compiles one loop that runs the steps
of any program over blocks of columns. It knows the operations that curves are made of; a program
with others is run by ``enclosure.py``, which also says what each operation means.

Flags are bits: 1 for ``partial``, 2 for ``nowhere``, 4 for ``broken``.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numba import njit

from axis_path.core.arithmetic import enclosure, enclosure_waves
from axis_path.core.arithmetic.fence_kernel import pieces, within
from axis_path.core.arithmetic.opcodes import (
    ABSOLUTE,
    ADD,
    ARCCOSINE,
    ARCSINE,
    ARCTANGENT,
    CEILING,
    CONSTANT,
    COSINE,
    DECIMAL_LOGARITHM,
    DIVIDE,
    EXPONENTIAL,
    FLOOR,
    GUARD,
    HYPERBOLIC_COSINE,
    HYPERBOLIC_SINE,
    HYPERBOLIC_TANGENT,
    INPUT,
    INTEGER_POWER,
    LOGARITHM,
    MAXIMUM,
    MINIMUM,
    MULTIPLY,
    PIECES,
    ROOT,
    SIGN,
    SINE,
    SQUARE_ROOT,
    SUBTRACT,
    TANGENT,
    WITHIN,
)
from axis_path.core.arithmetic.scalar_kernel import (
    BROKEN,
    INF,
    LEAST,
    NOWHERE,
    PARTIAL,
    ULP,
    above,
    below,
    binary,
    cosine,
    exponential,
    integer_power,
    logarithm,
    product,
    reciprocal,
    root,
    scalar,
    sine,
    unary,
)

#: Columns that are computed together: their numbers stay in the processor's cache.
_BLOCK = 512


#: The functions of the catalogue that are compiled, by how they are enclosed with NumPy.
CODES: dict[Callable[..., Any], int] = {
    enclosure.absolute: ABSOLUTE,
    enclosure.sign: SIGN,
    enclosure.floor: FLOOR,
    enclosure.ceiling: CEILING,
    enclosure.minimum: MINIMUM,
    enclosure.maximum: MAXIMUM,
    enclosure.square_root: SQUARE_ROOT,
    enclosure.exponential: EXPONENTIAL,
    enclosure.logarithm: LOGARITHM,
    enclosure.decimal_logarithm: DECIMAL_LOGARITHM,
    enclosure_waves.sine: SINE,
    enclosure_waves.cosine: COSINE,
    enclosure_waves.tangent: TANGENT,
    enclosure_waves.arcsine: ARCSINE,
    enclosure_waves.arccosine: ARCCOSINE,
    enclosure_waves.arctangent: ARCTANGENT,
    enclosure_waves.hyperbolic_sine: HYPERBOLIC_SINE,
    enclosure_waves.hyperbolic_cosine: HYPERBOLIC_COSINE,
    enclosure_waves.hyperbolic_tangent: HYPERBOLIC_TANGENT,
}


@scalar
def _sum(a_low, a_high, b_low, b_high, low, high, count):
    """Add rows; written so that the processor takes several columns at once."""
    odd = False
    for i in range(count):
        one, other = a_low[i] + b_low[i], a_high[i] + b_high[i]
        lower, upper = one - (abs(one) * ULP + LEAST), other + (abs(other) * ULP + LEAST)
        odd |= (lower != lower) | (upper != upper)
        low[i], high[i] = lower, upper
    if odd:
        for i in range(count):
            low[i] = below(a_low[i] + b_low[i], ULP)
            high[i] = above(a_high[i] + b_high[i], ULP)


@scalar
def _difference(a_low, a_high, b_low, b_high, low, high, count):
    """Subtract rows, in the same way."""
    odd = False
    for i in range(count):
        one, other = a_low[i] - b_high[i], a_high[i] - b_low[i]
        lower, upper = one - (abs(one) * ULP + LEAST), other + (abs(other) * ULP + LEAST)
        odd |= (lower != lower) | (upper != upper)
        low[i], high[i] = lower, upper
    if odd:
        for i in range(count):
            low[i] = below(a_low[i] - b_high[i], ULP)
            high[i] = above(a_high[i] - b_low[i], ULP)


@scalar
def _products(a_low, a_high, b_low, b_high, low, high, count):
    """Multiply rows, in the same way."""
    odd = False
    for i in range(count):
        one, two = a_low[i] * b_low[i], a_low[i] * b_high[i]
        three, four = a_high[i] * b_low[i], a_high[i] * b_high[i]
        least, most = min(min(one, two), min(three, four)), max(max(one, two), max(three, four))
        lower, upper = least - (abs(least) * ULP + LEAST), most + (abs(most) * ULP + LEAST)
        total = one + two + three + four
        odd |= (total != total) | (lower != lower) | (upper != upper)
        low[i], high[i] = lower, upper
    if odd:
        for i in range(count):
            low[i], high[i] = product(a_low[i], a_high[i], b_low[i], b_high[i])


@scalar
def _two_rows(code, a, b, k, flag_of, count):
    """Enclose an operation on two rows, each given as its bounds; tell whether it set flags."""
    a_low, a_high = a
    b_low, b_high = b
    low, high = k
    if code == ADD:
        _sum(a_low, a_high, b_low, b_high, low, high, count)
        return False
    if code == SUBTRACT:
        _difference(a_low, a_high, b_low, b_high, low, high, count)
        return False
    if code == MULTIPLY:
        _products(a_low, a_high, b_low, b_high, low, high, count)
        return False
    flags = 0
    if code == DIVIDE:
        for i in range(count):
            lower, upper, flag = reciprocal(b_low[i], b_high[i])
            low[i], high[i] = product(a_low[i], a_high[i], lower, upper)
            flag_of[i] = flag
            flags |= flag
        return flags != 0
    for i in range(count):
        low[i], high[i], flag = binary(code, a_low[i], a_high[i], b_low[i], b_high[i])
        flag_of[i] = flag
        flags |= flag
    return flags != 0


@scalar
def _one_row(code, more, a, k, flag_of, count):
    """Enclose a function of one row, given as its bounds; tell whether it set flags of its own."""
    a_low, a_high = a
    low, high = k
    if code == SINE:
        for i in range(count):
            low[i], high[i] = sine(a_low[i], a_high[i])
        return False
    if code == COSINE:
        for i in range(count):
            low[i], high[i] = cosine(a_low[i], a_high[i])
        return False
    if code == EXPONENTIAL:
        for i in range(count):
            low[i], high[i] = exponential(a_low[i], a_high[i])
        return False
    flags = 0
    for i in range(count):
        if code == LOGARITHM:
            low[i], high[i], flag = logarithm(a_low[i], a_high[i])
        elif code == INTEGER_POWER:
            low[i], high[i], flag = integer_power(a_low[i], a_high[i], more[0])
        elif code == SQUARE_ROOT:
            low[i], high[i], flag = root(a_low[i], a_high[i], 1, 2)
        elif code == ROOT:
            low[i], high[i], flag = root(a_low[i], a_high[i], more[0], more[1])
        else:
            low[i], high[i], flag = unary(code, a_low[i], a_high[i])
        flag_of[i] = flag
        flags |= flag
    return flags != 0


@scalar
def _guard(body, witness, low, high, flags, k, count):
    for i in range(count):
        flag = flags[witness, i] & (PARTIAL | NOWHERE)
        low[k, i], high[k, i] = low[body, i], high[body, i]
        flags[k, i] = flags[body, i] | flag | (PARTIAL if flag else 0)


@scalar
def _take_over(flags, dirty, inputs, k, has_own, count):
    """Add the flags of the arguments of a step to its own; most rows have none at all."""
    is_clean = not has_own
    for input_row in inputs:
        if dirty[input_row]:
            own, other = flags[k], flags[input_row]
            for i in range(count):
                own[i] = other[i] if is_clean else own[i] | other[i]
            is_clean = False
    dirty[k] = not is_clean


@scalar
def middles(low, high, nowhere):
    """Return the middles of enclosures, (n,); NaN where there is no value or no bound."""
    midpoints = np.empty(len(low))
    for i in range(len(low)):
        middle = (low[i] + high[i]) / 2
        midpoints[i] = np.nan if nowhere[i] or not abs(middle) < INF else middle
    return midpoints


@njit(
    "Tuple((f8[:,::1], f8[:,::1], b1[:,::1], b1[:,::1], b1[:,::1]))"
    "(i4[::1], i4[::1], i4[::1], i4[::1], i4[::1], f8[::1], f8[::1], f8[:,::1], f8[:,::1],"
    " i4[::1])",
    cache=True, error_model="numpy",
)  # fmt: skip
def enclose(
    codes, arguments, starts, extra, extra_starts, const_low, const_high, in_low, in_high, results
):
    """Run the steps of a program over columns.

    Args:
        codes: what each of the m steps does.
        arguments: the places of the arguments of all steps, one after the other.
        starts: where those of each step begin, (m + 1,).
        extra: exponents, fences and numbers of inputs, likewise; ``extra_starts`` their beginnings.
        const_low: the lower bounds of constants and sliders, (m,); ``const_high`` the upper ones.
        in_low: the lower bounds of the inputs, (k, n); ``in_high`` the upper ones.
        results: the places of the r steps that are wanted.

    Returns:
        Lower and upper bounds, and the flags ``partial`` (also where ``nowhere``), ``nowhere`` and
        ``broken``, (r, n) each.
    """
    size, columns = len(codes), in_low.shape[1]
    out_low = np.empty((len(results), columns))
    out_high = np.empty((len(results), columns))
    partial = np.zeros((len(results), columns), dtype=np.bool_)
    nowhere = np.zeros((len(results), columns), dtype=np.bool_)
    broken = np.zeros((len(results), columns), dtype=np.bool_)
    block = min(columns, _BLOCK)
    low, high = np.empty((size, block)), np.empty((size, block))
    flags = np.zeros((size, block), dtype=np.int64)
    # A row of flags counts only if it is dirty: most are not, and are not even looked at.
    dirty = np.zeros(size, dtype=np.bool_)
    for k in range(size):
        if codes[k] == CONSTANT:
            low[k, :], high[k, :] = const_low[k], const_high[k]
    for start in range(0, columns, _BLOCK):
        count = min(_BLOCK, columns - start)
        for k in range(size):
            code = codes[k]
            inputs = arguments[starts[k] : starts[k + 1]]
            more = extra[extra_starts[k] : extra_starts[k + 1]]
            if code == CONSTANT:
                continue
            if code == INPUT:
                # Parts of their own: an index that might be negative is not vectorised.
                low[k, :count] = in_low[more[0], start : start + count]
                high[k, :count] = in_high[more[0], start : start + count]
            elif code in (WITHIN, PIECES, GUARD):
                for input_row in inputs:
                    if not dirty[input_row]:
                        flags[input_row, :count] = 0
                if code == WITHIN:
                    within(more, inputs, low, high, flags, k, count)
                elif code == PIECES:
                    pieces(more, inputs, low, high, flags, k, count)
                else:
                    _guard(inputs[0], inputs[1], low, high, flags, k, count)
                dirty[k] = False
                for i in range(count):
                    dirty[k] |= flags[k, i] != 0
            elif len(inputs) == 2:
                a, b = inputs[0], inputs[1]
                if code == MULTIPLY and a == b:
                    # A square is never below 0.
                    for i in range(count):
                        low[k, i], high[k, i], _ = integer_power(low[a, i], high[a, i], 2)
                    has_own = False
                else:
                    has_own = _two_rows(
                        code, (low[a], high[a]), (low[b], high[b]), (low[k], high[k]), flags[k],
                        count,
                    )  # fmt: skip
                _take_over(flags, dirty, inputs, k, has_own, count)
            else:
                a = inputs[0]
                has_own = _one_row(
                    code, more, (low[a], high[a]), (low[k], high[k]), flags[k], count
                )
                _take_over(flags, dirty, inputs, k, has_own, count)
        for r in range(len(results)):
            result = results[r]
            stop = start + count
            out_low[r, start:stop], out_high[r, start:stop] = (
                low[result, :count],
                high[result, :count],
            )
            if dirty[result]:
                row, part = flags[result], partial[r, start:stop]
                none, cut = nowhere[r, start:stop], broken[r, start:stop]
                for i in range(count):
                    part[i] = (row[i] & (PARTIAL | NOWHERE)) != 0
                    none[i] = (row[i] & NOWHERE) != 0
                    cut[i] = (row[i] & BROKEN) != 0
    return out_low, out_high, partial, nowhere, broken

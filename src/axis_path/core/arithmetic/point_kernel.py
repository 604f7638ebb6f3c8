"""Values of arithmetic at many points, compiled: a whole program in one call.

NumPy's call costs as much as the arithmetic of a thousand sums or products, and its test for a
division by zero more than that. Transcendental functions are quicker in NumPy, which takes several
values at once; a program with any of them stays there (``Fast``).
"""

from __future__ import annotations

import math

import numpy as np
from numba import njit

(NUMBER, VARIABLE, ADD, SUBTRACT, MULTIPLY, DIVIDE, NEGATIVE, POWER) = range(8)
#: Points that are computed together: their numbers stay in the processor's cache.
_BLOCK = 512
#: Greater powers are left to the library, which is nearer than so many products.
LARGEST_POWER = 64

_inner = njit(cache=True, error_model="numpy")


@_inner
def _divide(a, b, to, count):
    for i in range(count):
        # A division by zero is undefined here, not infinite: 1/(1/x) has no value at 0.
        quotient = a[i] / b[i]
        to[i] = quotient if b[i] != 0.0 else math.nan


@_inner
def _power(a, exponent, to, count):
    for i in range(count):
        to[i] = a[i]
    # From the second binary digit of the exponent on: squared for each, and times a for a one.
    size = abs(exponent)
    digit = 1
    while 2 * digit <= size:
        digit *= 2
    while digit > 1:
        digit //= 2
        if size & digit:
            for i in range(count):
                to[i] = to[i] * to[i] * a[i]
        else:
            for i in range(count):
                to[i] = to[i] * to[i]
    if exponent < 0:
        for i in range(count):
            reciprocal = 1.0 / to[i]
            to[i] = reciprocal if to[i] != 0.0 else math.nan


@njit("f8[::1](i4[:,::1], f8[::1], f8[::1], i8)", cache=True, error_model="numpy")
def values(steps, numbers, xs, result):
    """Run the steps of a program at points.

    Args:
        steps: what each of the m steps does, the places of its two arguments and its exponent,
            (m, 4).
        numbers: the values of numbers, constants and sliders at their places, (m,).
        xs: the values of the variable, (n,).
        result: the place of the step that is wanted.

    Returns:
        The values, (n,); NaN where there is none or none that is finite.
    """
    size, points = len(steps), len(xs)
    output = np.empty(points)
    block = min(points, _BLOCK)
    rows = np.empty((size, block))
    for k in range(size):
        if steps[k, 0] == NUMBER:
            rows[k, :] = numbers[k]
    for start in range(0, points, _BLOCK):
        count = min(_BLOCK, points - start)
        # Parts of their own, read from 0 on: an index that might be negative is not vectorised.
        xs_here, finite = xs[start : start + count], output[start : start + count]
        for k in range(size):
            code = steps[k, 0]
            a, b, to = rows[steps[k, 1]], rows[steps[k, 2]], rows[k]
            if code == VARIABLE:
                for i in range(count):
                    to[i] = xs_here[i]
            elif code == ADD:
                for i in range(count):
                    to[i] = a[i] + b[i]
            elif code == SUBTRACT:
                for i in range(count):
                    to[i] = a[i] - b[i]
            elif code == MULTIPLY:
                for i in range(count):
                    to[i] = a[i] * b[i]
            elif code == NEGATIVE:
                for i in range(count):
                    to[i] = -a[i]
            elif code == DIVIDE:
                _divide(a, b, to, count)
            elif code == POWER:
                _power(a, steps[k, 3], to, count)
        result_row = rows[result]
        for i in range(count):
            value = result_row[i]
            finite[i] = value if abs(value) < math.inf else math.nan
    return output


@njit("void(f8[::1])", cache=True, error_model="numpy")
def drop_infinite(ys):
    """Put NaN in place of what is not finite."""
    for i in range(len(ys)):
        ys[i] = ys[i] if abs(ys[i]) < math.inf else math.nan

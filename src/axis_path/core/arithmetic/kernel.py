"""The enclosures of ``enclosure.py``, compiled: a whole program over all columns in one call.

NumPy makes a dozen passes over its arrays for each operation; on the few hundred columns of a
picture these cost more than the arithmetic itself. Here Numba compiles one loop that runs the steps
of any program over blocks of columns. It knows the operations that curves are made of; a program
with others is run by ``enclosure.py``, which also says what each operation means.

Flags are bits: 1 for ``partial``, 2 for ``nowhere``, 4 for ``broken``.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
from numba import njit

from axis_path.core.arithmetic import enclosure

PARTIAL, NOWHERE, BROKEN = 1, 2, 4
_ULP, _LIBRARY = enclosure.ONE_ULP, enclosure.LIBRARY_ERROR
_LEAST, _MOST = 1e-307, float(np.finfo(np.float64).max)
_INF = math.inf
_TURN = 1 / (2 * math.pi)
_LN10 = (2.302585092994045, 2.302585092994046)
#: Columns that are computed together: their numbers stay in the processor's cache.
_BLOCK = 512
#: Powers up to this are products of few factors, with an error of a few roundings.
_LARGEST_PRODUCT = 8

(
    CONSTANT, INPUT, ADD, SUBTRACT, MULTIPLY, DIVIDE, NEGATIVE, POWER, INTEGER_POWER, ROOT, WITHIN,
    PIECES, GUARD, ABSOLUTE, SIGN, FLOOR, CEILING, MINIMUM, MAXIMUM, SQUARE_ROOT, EXPONENTIAL,
    LOGARITHM, DECIMAL_LOGARITHM, SINE, COSINE, TANGENT, ARCSINE, ARCCOSINE, ARCTANGENT,
    HYPERBOLIC_SINE, HYPERBOLIC_COSINE, HYPERBOLIC_TANGENT,
) = range(32)  # fmt: skip

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
    enclosure.sine: SINE,
    enclosure.cosine: COSINE,
    enclosure.tangent: TANGENT,
    enclosure.arcsine: ARCSINE,
    enclosure.arccosine: ARCCOSINE,
    enclosure.arctangent: ARCTANGENT,
    enclosure.hyperbolic_sine: HYPERBOLIC_SINE,
    enclosure.hyperbolic_cosine: HYPERBOLIC_COSINE,
    enclosure.hyperbolic_tangent: HYPERBOLIC_TANGENT,
}

_scalar = njit(cache=True, error_model="numpy")


@_scalar
def _below(low, error):
    lower = low - (abs(low) * error + _LEAST)
    if lower != lower:
        return _MOST if low == _INF else -_INF
    return lower


@_scalar
def _above(high, error):
    upper = high + (abs(high) * error + _LEAST)
    if upper != upper:
        return -_MOST if high == -_INF else _INF
    return upper


@_scalar
def _product(a, b, c, d):
    one, two, three, four = a * c, a * d, b * c, b * d
    if one + two + three + four != one + two + three + four:
        # 0 times an unbounded end is 0: the bound is never attained, the zero is.
        one = 0.0 if one != one else one
        two = 0.0 if two != two else two
        three = 0.0 if three != three else three
        four = 0.0 if four != four else four
    low = min(min(one, two), min(three, four))
    high = max(max(one, two), max(three, four))
    return _below(low, _ULP), _above(high, _ULP)


@_scalar
def _reciprocal(low, high):
    if not (low <= 0 and high >= 0):
        return _below(1 / high, _ULP), _above(1 / low, _ULP), 0
    flag = PARTIAL
    inside = low < 0 < high
    if inside:
        flag |= BROKEN
    if low == 0 and high == 0:
        flag |= NOWHERE
    lower = -_INF if inside or high == 0 else _below(1 / high, _ULP)
    upper = _INF if inside or low == 0 else _above(1 / low, _ULP)
    return lower, upper, flag


@_scalar
def _whole_power(base, n):
    if n > _LARGEST_PRODUCT:
        return base ** float(n)
    result = 1.0
    for _ in range(n):
        result *= base
    return result


@_scalar
def _integer_power(low, high, n):
    if n == 0:
        return 1.0, 1.0, 0
    size = abs(n)
    if size % 2 == 0:
        low, high = max(max(low, -high), 0.0), max(-low, high)
    # Products one after the other are off by as many roundings as there are factors.
    error = _ULP if size <= 2 else _LIBRARY
    low, high = _below(_whole_power(low, size), error), _above(_whole_power(high, size), error)
    if size % 2 == 0:
        low = max(low, 0.0)
    return _reciprocal(low, high) if n < 0 else (low, high, 0)


@_scalar
def _odd_power(base, exponent):
    """Return the power that keeps the sign, and how far it may be off for its rounded exponent."""
    size = abs(base)
    power = size**exponent
    error = 0.0
    if 0 < size < _INF:
        error = abs(math.log(size)) * exponent * _ULP * power
    return (-power if base < 0 else power), error


@_scalar
def _root(low, high, numerator, denominator):
    flag = 0
    size = abs(numerator)
    is_even = denominator % 2 == 0
    if is_even:
        if low < 0:
            flag |= PARTIAL
        if high < 0:
            flag |= NOWHERE
        low, high = max(low, 0.0), max(high, 0.0)
    elif size % 2 == 0:
        low, high = max(max(low, -high), 0.0), max(-low, high)
    if size == 1 and denominator == 2:
        lower, upper = _below(math.sqrt(low), _ULP), _above(math.sqrt(high), _ULP)
    else:
        power, error = _odd_power(low, size / denominator)
        lower = _below(power - error, _LIBRARY)
        power, error = _odd_power(high, size / denominator)
        upper = _above(power + error, _LIBRARY)
    if is_even or size % 2 == 0:
        lower = max(lower, 0.0)
    if numerator < 0:
        lower, upper, more = _reciprocal(lower, upper)
        flag |= more
    return lower, upper, flag


@_scalar
def _exponential(low, high):
    return max(_below(math.exp(low), _LIBRARY), 0.0), _above(math.exp(high), _LIBRARY)


@_scalar
def _logarithm(low, high):
    flag = 0
    if low <= 0:
        flag |= PARTIAL
    if high <= 0:
        flag |= NOWHERE
    lower = math.log(low) if low > 0 else -_INF
    upper = math.log(high) if high > 0 else -_INF
    return _below(lower, _LIBRARY), _above(upper, _LIBRARY), flag


@_scalar
def _power(a_low, a_high, b_low, b_high):
    if b_low == b_high and math.floor(b_low) == b_low and abs(b_low) < 1e9:
        return _integer_power(a_low, a_high, int(b_low))
    log_low, log_high, flag = _logarithm(a_low, a_high)
    low, high = _product(b_low, b_high, log_low, log_high)
    low, high = _exponential(low, high)
    if a_low <= 0 <= a_high:
        low = min(low, 0.0)
    whole = math.floor(b_high) >= b_low
    flag = PARTIAL if a_low <= 0 else 0
    if a_high < 0 and not whole:
        flag |= NOWHERE
    if a_low < 0 and whole:
        return -_INF, _INF, flag | BROKEN
    return low, high, flag


@_scalar
def _holds_multiple(low, high, offset):
    margin = 1e-9 + 1e-15 * max(abs(low), abs(high))
    first = math.ceil((low - offset) * _TURN - margin)
    last = math.floor((high - offset) * _TURN + margin)
    return first <= last


@_scalar
def _is_wild(low, high):
    return not (abs(low) < 1e8 and abs(high) < 1e8)


@_scalar
def _sine(low, high):
    if _is_wild(low, high):
        return -1.0, 1.0
    one, other = math.sin(low), math.sin(high)
    lower = -1.0 if _holds_multiple(low, high, -math.pi / 2) else min(one, other)
    upper = 1.0 if _holds_multiple(low, high, math.pi / 2) else max(one, other)
    return max(_below(lower, _LIBRARY), -1.0), min(_above(upper, _LIBRARY), 1.0)


@_scalar
def _cosine(low, high):
    if _is_wild(low, high):
        return -1.0, 1.0
    one, other = math.cos(low), math.cos(high)
    lower = -1.0 if _holds_multiple(low, high, math.pi) else min(one, other)
    upper = 1.0 if _holds_multiple(low, high, 0.0) else max(one, other)
    return max(_below(lower, _LIBRARY), -1.0), min(_above(upper, _LIBRARY), 1.0)


@_scalar
def _tangent(low, high):
    if (
        _is_wild(low, high)
        or _holds_multiple(low, high, math.pi / 2)
        or _holds_multiple(low, high, -math.pi / 2)
    ):
        return -_INF, _INF, PARTIAL | BROKEN
    return _below(math.tan(low), _LIBRARY), _above(math.tan(high), _LIBRARY), 0


@_scalar
def _arc(low, high):
    """Cut to [-1, 1], with the flags of what lies outside."""
    flag = 0
    if low < -1 or high > 1:
        flag |= PARTIAL
    if low > 1 or high < -1:
        flag |= NOWHERE
    return min(max(low, -1.0), 1.0), min(max(high, -1.0), 1.0), flag


@_scalar
def _unary(code, low, high):
    """Enclose a function of one argument; its own flags come last."""
    if code == NEGATIVE:
        return -high, -low, 0
    if code == ABSOLUTE:
        return max(max(low, -high), 0.0), max(-low, high), 0
    if code == SIGN:
        low, high = np.sign(low), np.sign(high)
        return low, high, (BROKEN if low != high else 0)
    if code == FLOOR:
        low, high = np.floor(low), np.floor(high)
        return low, high, (BROKEN if low != high else 0)
    if code == CEILING:
        low, high = np.ceil(low), np.ceil(high)
        return low, high, (BROKEN if low != high else 0)
    if code == TANGENT:
        return _tangent(low, high)
    if code == ARCSINE:
        low, high, flag = _arc(low, high)
        return _below(math.asin(low), _LIBRARY), _above(math.asin(high), _LIBRARY), flag
    if code == ARCCOSINE:
        low, high, flag = _arc(low, high)
        return _below(math.acos(high), _LIBRARY), _above(math.acos(low), _LIBRARY), flag
    if code == ARCTANGENT:
        return _below(math.atan(low), _LIBRARY), _above(math.atan(high), _LIBRARY), 0
    if code == HYPERBOLIC_SINE:
        return _below(math.sinh(low), _LIBRARY), _above(math.sinh(high), _LIBRARY), 0
    if code == HYPERBOLIC_COSINE:
        low, high = max(max(low, -high), 0.0), max(-low, high)
        return (
            max(_below(math.cosh(low), _LIBRARY), 1.0), _above(math.cosh(high), _LIBRARY), 0,
        )  # fmt: skip
    if code == HYPERBOLIC_TANGENT:
        return _below(math.tanh(low), _LIBRARY), _above(math.tanh(high), _LIBRARY), 0
    if code == DECIMAL_LOGARITHM:
        low, high, flag = _logarithm(low, high)
        low, high = _product(low, high, _below(1 / _LN10[1], _ULP), _above(1 / _LN10[0], _ULP))
        return low, high, flag
    return -_INF, _INF, PARTIAL | BROKEN


@_scalar
def _binary(code, a, b, c, d):
    """Enclose an operation on [a, b] and [c, d]; its own flags come last."""
    if code == MINIMUM:
        return min(a, c), min(b, d), 0
    if code == MAXIMUM:
        return max(a, c), max(b, d), 0
    return _power(a, b, c, d)


@_scalar
def _inside(kind_low, kind_high, without, low, high, lows, highs, column, places, at):
    """Check whether a subject lies wholly inside, and wholly outside, a fence.

    ``kind_low`` is 0 for no lower end, 1 for an open and 2 for a closed one; from ``at`` on stand
    the places of the bounds.
    """
    inside, outside = low == low, low != low
    if kind_low:
        end_low, end_high = lows[places[at], column], highs[places[at], column]
        at += 1
        inside &= low >= end_high if kind_low == 2 else low > end_high
        outside |= high < end_low if kind_low == 2 else high <= end_low
    if kind_high:
        end_low, end_high = lows[places[at], column], highs[places[at], column]
        at += 1
        inside &= high <= end_low if kind_high == 2 else high < end_low
        outside |= low > end_high if kind_high == 2 else low >= end_high
    for _ in range(without):
        end_low, end_high = lows[places[at], column], highs[places[at], column]
        at += 1
        inside &= low > end_high or high < end_low
        outside |= low == high and low == end_low and end_low == end_high
    return inside, outside


@_scalar
def _within(fence, arguments, lows, highs, flags, place, count):
    body, subject, bounds = arguments[0], arguments[1], arguments[2:]
    for i in range(count):
        inside, outside = _inside(
            fence[0],
            fence[1],
            fence[2],
            lows[subject, i],
            highs[subject, i],
            lows,
            highs,
            i,
            arguments,
            2,
        )
        flag = flags[body, i] | flags[subject, i]
        for bound in bounds:
            flag |= flags[bound, i]
        if not inside:
            flag |= PARTIAL
        if outside:
            flag |= NOWHERE
        lows[place, i], highs[place, i], flags[place, i] = lows[body, i], highs[body, i], flag


@_scalar
def _pieces(fences, arguments, lows, highs, flags, place, count):
    """Join the bodies that may hold in a column; ``fences`` has -1 for one that holds elsewhere."""
    subject = arguments[0]
    for i in range(count):
        low, high, flag = _INF, -_INF, 0
        covered, some, held_count, at = False, False, 0, 1
        for piece in range(len(fences) // 3):
            body = arguments[at]
            kind_low, kind_high, without = (
                fences[3 * piece],
                fences[3 * piece + 1],
                fences[3 * piece + 2],
            )
            if kind_low < 0:
                size = 0
                inside, outside = lows[subject, i] == lows[subject, i], False
            else:
                size = (kind_low > 0) + (kind_high > 0) + without
                inside, outside = _inside(
                    kind_low, kind_high, without, lows[subject, i], highs[subject, i], lows, highs,
                    i, arguments, at + 1,
                )  # fmt: skip
            if not outside:
                part = flags[body, i]
                for bound in range(at + 1, at + 1 + size):
                    part |= flags[arguments[bound], i]
                held_count += 1
                if part & NOWHERE:
                    flag |= PARTIAL
                else:
                    some = True
                    low, high = min(low, lows[body, i]), max(high, highs[body, i])
                flag |= part & (PARTIAL | BROKEN)
            if inside:
                # What is written behind holds nowhere here.
                covered = True
                break
            at += 1 + size
        if not covered:
            flag |= PARTIAL
        if held_count > 1:
            flag |= BROKEN
        if not some:
            low, high, flag = 0.0, 0.0, flag | NOWHERE
        lows[place, i], highs[place, i], flags[place, i] = low, high, flag | flags[subject, i]


@_scalar
def _sum(a_low, a_high, b_low, b_high, low, high, count):
    """Add rows; written so that the processor takes several columns at once."""
    odd = False
    for i in range(count):
        one, other = a_low[i] + b_low[i], a_high[i] + b_high[i]
        lower, upper = one - (abs(one) * _ULP + _LEAST), other + (abs(other) * _ULP + _LEAST)
        odd |= (lower != lower) | (upper != upper)
        low[i], high[i] = lower, upper
    if odd:
        for i in range(count):
            low[i] = _below(a_low[i] + b_low[i], _ULP)
            high[i] = _above(a_high[i] + b_high[i], _ULP)


@_scalar
def _difference(a_low, a_high, b_low, b_high, low, high, count):
    """Subtract rows, in the same way."""
    odd = False
    for i in range(count):
        one, other = a_low[i] - b_high[i], a_high[i] - b_low[i]
        lower, upper = one - (abs(one) * _ULP + _LEAST), other + (abs(other) * _ULP + _LEAST)
        odd |= (lower != lower) | (upper != upper)
        low[i], high[i] = lower, upper
    if odd:
        for i in range(count):
            low[i] = _below(a_low[i] - b_high[i], _ULP)
            high[i] = _above(a_high[i] - b_low[i], _ULP)


@_scalar
def _products(a_low, a_high, b_low, b_high, low, high, count):
    """Multiply rows, in the same way."""
    odd = False
    for i in range(count):
        one, two = a_low[i] * b_low[i], a_low[i] * b_high[i]
        three, four = a_high[i] * b_low[i], a_high[i] * b_high[i]
        least, most = min(min(one, two), min(three, four)), max(max(one, two), max(three, four))
        lower, upper = least - (abs(least) * _ULP + _LEAST), most + (abs(most) * _ULP + _LEAST)
        total = one + two + three + four
        odd |= (total != total) | (lower != lower) | (upper != upper)
        low[i], high[i] = lower, upper
    if odd:
        for i in range(count):
            low[i], high[i] = _product(a_low[i], a_high[i], b_low[i], b_high[i])


@_scalar
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
    found = 0
    if code == DIVIDE:
        for i in range(count):
            lower, upper, flag = _reciprocal(b_low[i], b_high[i])
            low[i], high[i] = _product(a_low[i], a_high[i], lower, upper)
            flag_of[i] = flag
            found |= flag
        return found != 0
    for i in range(count):
        low[i], high[i], flag = _binary(code, a_low[i], a_high[i], b_low[i], b_high[i])
        flag_of[i] = flag
        found |= flag
    return found != 0


@_scalar
def _one_row(code, more, a, k, flag_of, count):
    """Enclose a function of one row, given as its bounds; tell whether it set flags of its own."""
    a_low, a_high = a
    low, high = k
    if code == SINE:
        for i in range(count):
            low[i], high[i] = _sine(a_low[i], a_high[i])
        return False
    if code == COSINE:
        for i in range(count):
            low[i], high[i] = _cosine(a_low[i], a_high[i])
        return False
    if code == EXPONENTIAL:
        for i in range(count):
            low[i], high[i] = _exponential(a_low[i], a_high[i])
        return False
    found = 0
    for i in range(count):
        if code == LOGARITHM:
            low[i], high[i], flag = _logarithm(a_low[i], a_high[i])
        elif code == INTEGER_POWER:
            low[i], high[i], flag = _integer_power(a_low[i], a_high[i], more[0])
        elif code == SQUARE_ROOT:
            low[i], high[i], flag = _root(a_low[i], a_high[i], 1, 2)
        elif code == ROOT:
            low[i], high[i], flag = _root(a_low[i], a_high[i], more[0], more[1])
        else:
            low[i], high[i], flag = _unary(code, a_low[i], a_high[i])
        flag_of[i] = flag
        found |= flag
    return found != 0


@_scalar
def _guard(body, witness, low, high, flags, k, count):
    for i in range(count):
        flag = flags[witness, i] & (PARTIAL | NOWHERE)
        low[k, i], high[k, i] = low[body, i], high[body, i]
        flags[k, i] = flags[body, i] | flag | (PARTIAL if flag else 0)


@_scalar
def _take_over(flags, dirty, places, k, has_own, count):
    """Add the flags of the arguments of a step to its own; most rows have none at all."""
    is_clean = not has_own
    for place in places:
        if dirty[place]:
            own, other = flags[k], flags[place]
            for i in range(count):
                own[i] = other[i] if is_clean else own[i] | other[i]
            is_clean = False
    dirty[k] = not is_clean


@_scalar
def middles(low, high, nowhere):
    """Return the middles of enclosures, (n,); NaN where there is no value or no bound."""
    found = np.empty(len(low))
    for i in range(len(low)):
        middle = (low[i] + high[i]) / 2
        found[i] = np.nan if nowhere[i] or not abs(middle) < _INF else middle
    return found


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
            places = arguments[starts[k] : starts[k + 1]]
            more = extra[extra_starts[k] : extra_starts[k + 1]]
            if code == CONSTANT:
                continue
            if code == INPUT:
                # Parts of their own: an index that might be negative is not vectorised.
                low[k, :count] = in_low[more[0], start : start + count]
                high[k, :count] = in_high[more[0], start : start + count]
            elif code in (WITHIN, PIECES, GUARD):
                for place in places:
                    if not dirty[place]:
                        flags[place, :count] = 0
                if code == WITHIN:
                    _within(more, places, low, high, flags, k, count)
                elif code == PIECES:
                    _pieces(more, places, low, high, flags, k, count)
                else:
                    _guard(places[0], places[1], low, high, flags, k, count)
                dirty[k] = False
                for i in range(count):
                    dirty[k] |= flags[k, i] != 0
            elif len(places) == 2:
                a, b = places[0], places[1]
                if code == MULTIPLY and a == b:
                    # A square is never below 0.
                    for i in range(count):
                        low[k, i], high[k, i], _ = _integer_power(low[a, i], high[a, i], 2)
                    has_own = False
                else:
                    has_own = _two_rows(
                        code, (low[a], high[a]), (low[b], high[b]), (low[k], high[k]), flags[k],
                        count,
                    )  # fmt: skip
                _take_over(flags, dirty, places, k, has_own, count)
            else:
                a = places[0]
                has_own = _one_row(
                    code, more, (low[a], high[a]), (low[k], high[k]), flags[k], count
                )
                _take_over(flags, dirty, places, k, has_own, count)
        for r in range(len(results)):
            place = results[r]
            stop = start + count
            out_low[r, start:stop], out_high[r, start:stop] = (
                low[place, :count],
                high[place, :count],
            )
            if dirty[place]:
                row, part = flags[place], partial[r, start:stop]
                none, cut = nowhere[r, start:stop], broken[r, start:stop]
                for i in range(count):
                    part[i] = (row[i] & (PARTIAL | NOWHERE)) != 0
                    none[i] = (row[i] & NOWHERE) != 0
                    cut[i] = (row[i] & BROKEN) != 0
    return out_low, out_high, partial, nowhere, broken

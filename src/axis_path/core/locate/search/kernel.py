"""The simple zeros of ``prune.py`` in intervals of one direction each, compiled.

A zero takes some ten enclosures at a few places each: called from Python each costs fifty times
what it computes. The loops over enclosures are here, and beside them what is done between two of
them, for programs whose enclosures are not compiled.
"""

from __future__ import annotations

import numpy as np
from numba import njit

from axis_path.core.arithmetic.kernel import enclose, middles

NEWTON_ROUNDS = 60
#: A guess that moves by less, relative to itself, has come to rest.
_SAME = 4e-16
#: The guess is proved so many units in the last place to both sides, at first and at last.
REACHES = (8.0, 64.0, 65_536.0)


def _compiled(signature):
    """Compile at once: nobody waits for it in the middle of a picture."""
    return njit(signature, cache=True, error_model="numpy")


@_compiled("i8[::1](f8[::1], f8[::1], b1[::1], b1[::1])")
def signs(low, high, partial, nowhere):
    """Return the proved signs of enclosures, (n,); 0 where they are not known."""
    flags = np.zeros(len(low), dtype=np.int64)
    for i in range(len(low)):
        if not (partial[i] or nowhere[i]):
            flags[i] = 1 if low[i] > 0 else -1 if high[i] < 0 else 0
    return flags


@_compiled("f8[::1](f8[::1], f8[::1], f8[::1], f8[::1])")
def chords(lows, highs, first, last):
    """Return where the chord of each interval crosses the axis, (n,); the middle if it does not."""
    crossings_at = np.empty(len(lows))
    for i in range(len(lows)):
        a, b = lows[i], highs[i]
        abscissa = a + (b - a) * (first[i] / (first[i] - last[i]))
        crossings_at[i] = abscissa if a <= abscissa <= b else (a + b) / 2
    return crossings_at


@_compiled("b1(f8[::1], f8[::1], f8[::1], f8[::1], b1[::1], f8[::1], f8[::1])")
def newton(abscissa, lows, highs, before, rises, values, slopes):
    """Take one step of Newton's method in each interval, in what is given.

    A step that leaves what is left of the interval is replaced by its middle. The last one is not
    waited for: steps shrink with the square of the one before.

    Args:
        abscissa: the guesses, (n,).
        lows: what is left of the intervals; ``highs`` likewise.
        before: how far the steps before led, NaN where they were middles.
        rises: whether the function rises there.
        values: its values at the guesses; ``slopes`` those of its derivative.

    Returns:
        Whether all have come to rest.
    """
    rests = True
    for i in range(len(abscissa)):
        here, value = abscissa[i], values[i]
        if (value > 0) == rises[i]:
            highs[i] = here
        else:
            lows[i] = here
        step = here - value / slopes[i]
        is_inside = lows[i] <= step <= highs[i]
        if value == 0:
            step = here
        elif not is_inside:
            step = (lows[i] + highs[i]) / 2
        size, limit = abs(step - here), _SAME * abs(here)
        rests &= size <= limit or (is_inside and size * (size / before[i]) ** 2 <= limit)
        before[i] = size if is_inside else np.nan
        abscissa[i] = step
    return rests


@_compiled("f8[::1](f8[::1], f8, f8[::1], f8[::1])")
def sides_of(abscissa, reach, lows, highs):
    """Return the places to both sides of guesses, (2n,): first those below, then those above."""
    count = len(abscissa)
    neighbours = np.empty(2 * count)
    for i in range(count):
        room = reach * abs(np.nextafter(abs(abscissa[i]), np.inf) - abs(abscissa[i])) + 1e-300
        neighbours[i] = max(abscissa[i] - room, lows[i])
        neighbours[count + i] = min(abscissa[i] + room, highs[i])
    return neighbours


@_compiled(
    "Tuple((f8[:,::1], i8[::1]))(i4[::1], i4[::1], i4[::1], i4[::1], i4[::1], f8[::1], f8[::1],"
    " i4[::1], f8[::1], f8[::1])"
)
def crossings(
    codes, arguments, starts, extra, extra_starts, const_low, const_high, results, lows, highs
):
    """Locate the zeros in intervals in each of which a function rises, or falls.

    Args:
        codes: the program, as ``arithmetic.kernel.enclose`` takes it, up to ``results``: the places
            of the value and of the slope.
        lows: where the intervals begin, (n,); ``highs`` where they end.

    Returns:
        Brackets, (2, n), and what is known of them: 1 if one holds a zero, 0 if there is none in
        the interval, -1 if that is not known.
    """
    count = len(lows)
    brackets, known = np.zeros((2, count)), np.zeros(count, dtype=np.int64)
    ends = np.concatenate((lows, highs)).reshape(1, 2 * count)
    low, high, partial, nowhere, _ = enclose(
        codes, arguments, starts, extra, extra_starts, const_low, const_high, ends, ends,
        results[:1],
    )  # fmt: skip
    at_ends, values = (
        signs(low[0], high[0], partial[0], nowhere[0]),
        middles(low[0], high[0], nowhere[0]),
    )
    crossed = at_ends[:count] * at_ends[count:]
    known[crossed == 0] = -1
    left = np.flatnonzero(crossed < 0)
    if not len(left):
        return brackets, known
    first, last = values[:count][left], values[count:][left]
    a, b = lows[left], highs[left]
    abscissa, before, rises = chords(a, b, first, last), np.full(len(left), np.nan), last > 0
    for _ in range(NEWTON_ROUNDS):
        at = abscissa.copy().reshape(1, len(abscissa))
        low, high, partial, nowhere, _ = enclose(
            codes, arguments, starts, extra, extra_starts, const_low, const_high, at, at, results
        )
        if newton(
            abscissa, a, b, before, rises,
            middles(low[0], high[0], nowhere[0]), middles(low[1], high[1], nowhere[1]),
        ):  # fmt: skip
            break
    for reach in REACHES:
        sides = sides_of(abscissa, reach, lows[left], highs[left])
        at = sides.copy().reshape(1, len(sides))
        low, high, partial, nowhere, _ = enclose(
            codes, arguments, starts, extra, extra_starts, const_low, const_high, at, at,
            results[:1],
        )  # fmt: skip
        side_signs = signs(low[0], high[0], partial[0], nowhere[0])
        is_proved = side_signs[: len(abscissa)] * side_signs[len(abscissa) :] < 0
        for i in range(len(abscissa)):
            known[left[i]] = 1 if is_proved[i] else -1
            if is_proved[i]:
                brackets[0, left[i]], brackets[1, left[i]] = sides[i], sides[len(abscissa) + i]
        left, abscissa = left[~is_proved], abscissa[~is_proved]
        if not len(left):
            break
    return brackets, known


@_compiled(
    "Tuple((f8[:,::1], i8[::1]))(i4[::1], i4[::1], i4[::1], i4[::1], i4[::1], f8[::1], f8[::1],"
    " i4[::1], i4[::1], i4[::1], i4[::1], i4[::1], i4[::1], f8[::1], f8[::1], i4[::1],"
    " f8[::1], f8[::1])"
)
def simple_zeros(
    codes, arguments, starts, extra, extra_starts, const_low, const_high, results,
    factor_codes, factor_arguments, factor_starts, factor_extra, factor_extra_starts, factor_low,
    factor_high, factor_results,
    lows, highs,
):  # fmt: skip
    """Locate the zeros in any intervals, as far as ``quick.py`` can settle them.

    Args:
        codes: the program, as in ``crossings``, of the value and of the slope.
        factor_codes: that of factors; where all of them have a sign, the value is not zero.
        lows: where the intervals begin, (n,); ``highs`` where they end.

    Returns:
        The same as ``crossings``.
    """
    count = len(lows)
    brackets, known = np.zeros((2, count)), np.zeros(count, dtype=np.int64)
    low, high, partial, nowhere, broken = enclose(
        codes, arguments, starts, extra, extra_starts, const_low, const_high,
        lows.reshape(1, count), highs.reshape(1, count), results,
    )  # fmt: skip
    for i in range(count):
        if low[0, i] > 0 or high[0, i] < 0 or nowhere[0, i]:
            continue
        is_whole = not (partial[0, i] or broken[0, i] or partial[1, i] or broken[1, i])
        known[i] = 1 if is_whole and (low[1, i] > 0 or high[1, i] < 0) else -1
    left = np.flatnonzero(known < 0)
    if len(left):
        low, high, _, nowhere, _ = enclose(
            factor_codes, factor_arguments, factor_starts, factor_extra, factor_extra_starts,
            factor_low, factor_high,
            lows[left].reshape(1, len(left)), highs[left].reshape(1, len(left)), factor_results,
        )  # fmt: skip
        for i in range(len(left)):
            has_signs = True
            for k in range(len(factor_results)):
                has_signs &= low[k, i] > 0 or high[k, i] < 0 or nowhere[k, i]
            if has_signs:
                known[left[i]] = 0
    simple = np.flatnonzero(known > 0)
    if len(simple):
        narrowed, outcomes = crossings(
            codes, arguments, starts, extra, extra_starts, const_low, const_high, results,
            lows[simple], highs[simple],
        )  # fmt: skip
        for i in range(len(simple)):
            known[simple[i]] = outcomes[i]
            brackets[0, simple[i]], brackets[1, simple[i]] = narrowed[0, i], narrowed[1, i]
    return brackets, known

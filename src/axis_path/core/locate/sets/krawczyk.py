"""Krawczyk's operator, with balls.

Source: Neumaier, "Interval Methods for Systems of Equations", 1990, chapter 5.
"""

from __future__ import annotations

from collections.abc import Sequence

from flint import arb, arb_mat


def krawczyk(
    box: Sequence[arb], at_middle: Sequence[arb | None], slopes: Sequence[arb | None]
) -> list[arb] | None:
    """Apply the operator once, at the present precision.

    All zeros in the box lie in the result as well. Where the result lies in the interior of the
    box, the box has exactly one zero.

    Args:
        box: where the n unknowns lie.
        at_middle: the n functions at the middle of the box; None for one without a value.
        slopes: their derivatives all over the box, function by function.

    Returns:
        Where the zeros lie; None where the operator has no meaning.
    """
    values = [value for value in at_middle if value is not None]
    known = [slope for slope in slopes if slope is not None]
    n = len(box)
    if len(values) < n or len(known) < n * n:
        return None
    try:
        inverse = arb_mat(n, n, [slope.mid() for slope in known]).inv()
    except ZeroDivisionError:
        return None
    inverse = arb_mat(n, n, [entry.mid() for entry in inverse.entries()])
    identity = arb_mat(n, n, [arb(int(i == j)) for i in range(n) for j in range(n)])
    middle = arb_mat(n, 1, [value.mid() for value in box])
    rest = (identity - inverse * arb_mat(n, n, known)) * (arb_mat(n, 1, list(box)) - middle)
    moved = middle - inverse * arb_mat(n, 1, values) + rest
    return [moved[k, 0] for k in range(n)]

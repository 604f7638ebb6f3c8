"""Results that cannot be computed more finely: as many digits as are right, else a bound."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from fractions import Fraction
from functools import cache
from typing import overload

from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.conversion import fraction_of
from axis_path.core.errors import LimitError
from axis_path.core.evaluate.decimals import digits_of, power_of_ten, shown
from axis_path.core.evaluate.exact.exact_pool import ExactForm
from axis_path.core.evaluate.result import Result, ResultKind, known_form, make_result
from axis_path.core.limits import DIGITS

#: More digits than any float has right.
_MOST_DIGITS = 40


def make_bounded(value: Ball) -> Result:
    """Make a number from the only ball of it that is computed.

    Its decimal has as many digits as are right, up to those that are asked for; a number of which
    not even the first is known is written with its bound, as in ``0 ± 3·10^-12``.
    """
    if value.exact is not None or not value.is_defined or not value.value.is_finite():
        return make_result(lambda bits: value, lambda: ExactForm(known_form(value)))

    def decimals(digits: int) -> str:
        if not 1 <= digits <= DIGITS.value:
            raise LimitError(f"Between 1 and {DIGITS.value:,} digits can be shown.")
        for count in range(min(digits, _MOST_DIGITS), 0, -1):
            text = digits_of(value, count)
            if text is not None:
                return text
        return _with_bound(value)

    middle = float(value.value.mid())
    return Result(
        ResultKind.NUMBER, 0.0 if value.value.contains(0) else middle, "", decimals,
        lambda: ExactForm(None), at_bits=lambda bits: value,
    )  # fmt: skip


def _with_bound(value: Ball) -> str:
    """Return a number as a middle and a bound of one digit, which is rounded up."""
    middle, radius = fraction_of(value.value.mid()), fraction_of(value.value.rad())
    if middle is None or radius is None:
        return ""
    if radius == 0:
        return shown(middle, _MOST_DIGITS)
    unit = Fraction(10) ** power_of_ten(radius)
    near = 0 if abs(middle) <= radius else round(middle / unit) * unit
    bound = math.ceil((radius + abs(middle - near)) / unit) * unit
    return f"{shown(Fraction(near), _MOST_DIGITS)} ± {shown(bound, 2)}"


class LazyParts(Sequence[Result]):
    """Results that are made when they are first asked for.

    Args:
        count: how many.
        make: makes the result with an index.
    """

    def __init__(self, count: int, make: Callable[[int], Result]) -> None:
        self._count = count
        self._make = cache(make)

    def __len__(self) -> int:
        return self._count

    @overload
    def __getitem__(self, index: int) -> Result: ...
    @overload
    def __getitem__(self, index: slice) -> Sequence[Result]: ...
    def __getitem__(self, index: int | slice) -> Result | Sequence[Result]:
        if isinstance(index, slice):
            return [self._make(k) for k in range(self._count)[index]]
        return self._make(range(self._count)[index])

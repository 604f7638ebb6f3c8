"""Complex balls as a backend: for calculations with i, and for what an integral passes through."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from functools import partial

from flint import acb, fmpq

from axis_path.core.arithmetic import Ball, analytic
from axis_path.core.catalogue import CONSTANTS, OPERATIONS
from axis_path.core.errors import NotHandledError
from axis_path.core.evaluate.graph.fences import ball_inside
from axis_path.core.evaluate.graph.graph import IMAGINARY, Fence, Inner, Op, Split

_FUNCTIONS: dict[str, Callable[..., acb]] = {
    **{
        name: operation.complex
        for name, operation in OPERATIONS.items()
        if operation.complex is not None
    },
    Op.INTEGER_POWER: analytic.integer_power,
    Op.ROOT: analytic.root,
    Op.POWER: analytic.power,
}
_ARITHMETIC: dict[str, Callable[..., acb]] = {
    Op.ADD: lambda a, b: a + b,
    Op.SUBTRACT: lambda a, b: a - b,
    Op.MULTIPLY: lambda a, b: a * b,
    Op.DIVIDE: lambda a, b: a / b,
    Op.NEGATIVE: lambda a: -a,
}


#: Functions that compare numbers.
_REAL_ONLY = frozenset({"min", "max", "sign"})


class Complex:
    """Complex balls; used inside ``precision`` only. What has no value is not finite.

    Attributes:
        analytic: whether a value is given only where the function is analytic on the whole ball.
        bound: the variable of an integral, of which ``abscissa`` is a number on the present
            interval: no inner domain ends there, so it selects the piece that counts.
    """

    # It is made for one run, so programs keep nothing that was bound to it.
    plan_name = ""
    is_fixed = False

    def __init__(
        self, *, analytic: bool = False, bound: acb | None = None, abscissa: Ball | None = None
    ) -> None:
        self._analytic = analytic
        self._bound = bound
        self._abscissa = abscissa

    def number(self, value: Fraction) -> acb:
        """Return an exact number."""
        return acb(fmpq(value.numerator, value.denominator))

    def constant(self, name: str) -> acb:
        """Return a constant, or i."""
        return acb(0, 1) if name == IMAGINARY else acb(CONSTANTS[name].proving().value)

    def operation(self, op: str) -> Callable[..., acb]:
        """Return an operation.

        Raises:
            NotHandledError: it has no meaning for complex numbers here.
        """
        plain = _ARITHMETIC.get(op)
        if plain is not None:
            return plain
        cached = _FUNCTIONS.get(op)
        if cached is None:
            raise NotHandledError(f"`{op}` takes no complex numbers.")
        # Within an integral their analytic continuation is what counts.
        if op in _REAL_ONLY and self._bound is None and not self._analytic:
            return partial(_of_reals, op, cached)
        return partial(_with_flag, cached, self._analytic)

    def _holds(self, fence: Fence, subject: acb, bounds: tuple[acb, ...]) -> bool | None:
        if subject is self._bound and self._abscissa is not None:
            at = self._abscissa
        elif self._analytic or subject.imag.is_zero():
            at = Ball(subject.real)
        else:
            return None
        return ball_inside(fence, at, tuple(Ball(bound.real) for bound in bounds))

    def within(self, fence: Fence, body: acb, subject: acb, bounds: tuple[acb, ...]) -> acb:
        """Return the body inside the fence, and no value where that cannot be determined."""
        return body if self._holds(fence, subject, bounds) else analytic.nothing()

    def pieces(self, split: Split, subject: acb, pieces: list[tuple[acb, tuple[acb, ...]]]) -> acb:
        """Return the first body whose fence holds, and no value where that cannot be determined."""
        for fence, (body, bounds) in zip(split.fences, pieces, strict=True):
            holds = True if fence is None else self._holds(fence, subject, bounds)
            if holds is not False:
                return body if holds else analytic.nothing()
        return analytic.nothing()

    def guard(self, body: acb, witness: acb) -> acb:
        """Return the body where the witness has a value."""
        return body if is_finite(witness) else analytic.nothing()

    def summarise(self, inner: Inner, low: acb, high: acb, captured: list[acb]) -> acb:
        """Refuse a sum within an integral or a calculation with i.

        Raises:
            NotHandledError: always.
        """
        raise NotHandledError(
            f"A {inner.summary.value} inside an integral or a calculation with i is not handled."
        )


def _with_flag(function: Callable[..., acb], flag: bool, *arguments: acb) -> acb:
    return function(*arguments, flag)


def _of_reals(op: str, function: Callable[..., acb], *arguments: acb) -> acb:
    """Return a function that has a meaning for real numbers only.

    Raises:
        NotHandledError: an argument is surely not real.
    """
    if any(not argument.imag.contains(0) for argument in arguments):
        raise NotHandledError(f"`{op}` takes no complex numbers.")
    return function(*arguments, False)


def is_finite(value: acb) -> bool:
    """Check whether a complex ball has bounds."""
    return bool(value.real.is_finite()) and bool(value.imag.is_finite())

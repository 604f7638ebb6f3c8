"""Complex balls: one complex number held with a proved radius, exact where its parts are fractions.

Like a ``Ball`` it carries its exact form along, and where it is undefined, the reason.
"""

from __future__ import annotations

from dataclasses import dataclass

from flint import acb, arb, fmpq

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.ball import Ball, Defined

_DIVISION = messages.DIVISION_BY_ZERO


@dataclass(frozen=True, slots=True)
class ComplexBall:
    """A complex number.

    Attributes:
        value: contains it.
        exact: its real and its imaginary part, if both are known fractions.
        defined: whether it has a value.
        reason: why it has none, in words; empty where it has one.
    """

    value: acb
    exact: tuple[fmpq, fmpq] | None = None
    defined: Defined = Defined.YES
    reason: str = ""

    @property
    def is_defined(self) -> bool:
        """Check whether there is a value."""
        return self.defined is Defined.YES

    def sign(self) -> int | None:
        """Return 0 for zero, 1 for a number that is not zero, None if it cannot be determined."""
        if self.exact is not None:
            return 0 if self.exact == (0, 0) else 1
        if self.value.real.is_zero() and self.value.imag.is_zero():
            return 0
        return None if self.value.contains(0) else 1


#: A number as lists and matrices hold it.
Scalar = Ball | ComplexBall


def of_parts(real: fmpq, imaginary: fmpq) -> ComplexBall:
    """Return the number with these parts."""
    return ComplexBall(acb(arb(real), arb(imaginary)), (real, imaginary))


def imaginary_unit() -> ComplexBall:
    """Return i."""
    return of_parts(fmpq(0), fmpq(1))


def from_real(number: Ball) -> ComplexBall:
    """Return a real number as a complex one."""
    exact = None if number.exact is None else (number.exact, fmpq(0))
    return ComplexBall(acb(number.value), exact, number.defined, number.reason)


def promoted(number: Scalar) -> ComplexBall:
    """Return any number as a complex one."""
    return from_real(number) if isinstance(number, Ball) else number


def simplified(number: Scalar) -> Scalar:
    """Return a number as a real one if its imaginary part is known to be 0."""
    if isinstance(number, Ball) or not number.is_defined:
        return number
    if number.exact is not None and number.exact[1] == 0:
        return Ball(number.value.real, exact=number.exact[0])
    return Ball(number.value.real) if number.value.imag.is_zero() else number


def _put_together(
    value: acb, exact: tuple[fmpq, fmpq] | None, *sources: ComplexBall
) -> ComplexBall:
    if exact is not None:
        value = acb(arb(exact[0]), arb(exact[1]))
    worst = min(sources, key=lambda source: source.defined)
    return ComplexBall(value, exact, worst.defined, worst.reason)


def add(a: ComplexBall, b: ComplexBall) -> ComplexBall:
    """Return a + b."""
    exact = None
    if a.exact is not None and b.exact is not None:
        exact = (a.exact[0] + b.exact[0], a.exact[1] + b.exact[1])
    return _put_together(a.value + b.value, exact, a, b)


def negative(a: ComplexBall) -> ComplexBall:
    """Return -a."""
    exact = None if a.exact is None else (-a.exact[0], -a.exact[1])
    return _put_together(-a.value, exact, a)


def subtract(a: ComplexBall, b: ComplexBall) -> ComplexBall:
    """Return a - b."""
    return add(a, negative(b))


def multiply(a: ComplexBall, b: ComplexBall) -> ComplexBall:
    """Return a b."""
    exact = None
    if a.exact is not None and b.exact is not None:
        (p, q), (r, s) = a.exact, b.exact
        exact = (p * r - q * s, p * s + q * r)
    return _put_together(a.value * b.value, exact, a, b)


def divide(a: ComplexBall, b: ComplexBall) -> ComplexBall:
    """Return a / b."""
    sign = b.sign()
    if sign == 0:
        return ComplexBall(acb(arb.nan(), arb.nan()), None, Defined.NO, a.reason or _DIVISION)
    exact = None
    if a.exact is not None and b.exact is not None:
        (p, q), (r, s) = a.exact, b.exact
        size = r * r + s * s
        exact = ((p * r + q * s) / size, (q * r - p * s) / size)
    made = _put_together(a.value / b.value, exact, a, b)
    if sign is None:
        return ComplexBall(made.value, None, min(made.defined, Defined.MAYBE), _DIVISION)
    return made


def conjugate(a: ComplexBall) -> ComplexBall:
    """Return a with its imaginary part turned round."""
    exact = None if a.exact is None else (a.exact[0], -a.exact[1])
    return _put_together(a.value.conjugate(), exact, a)

"""The field of proved numbers: real or complex balls, exact as far as they can be."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

from axis_path.core.arithmetic import ball, complex_ball
from axis_path.core.arithmetic.arrays.echelon import UndecidedError
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted, simplified

Real = Callable[[Ball, Ball], Ball]
OfComplex = Callable[[ComplexBall, ComplexBall], ComplexBall]


def _joined(a: Scalar, b: Scalar, real: Real, of_complex: OfComplex) -> Scalar:
    """Join two numbers: as real ones if both are, else as complex ones."""
    if isinstance(a, Ball) and isinstance(b, Ball):
        return real(a, b)
    return simplified(of_complex(promoted(a), promoted(b)))


class Scalars:
    """Real and complex balls; used inside ``precision`` only."""

    @staticmethod
    def add(a: Scalar, b: Scalar) -> Scalar:
        """Return a + b."""
        return _joined(a, b, ball.add, complex_ball.add)

    @staticmethod
    def subtract(a: Scalar, b: Scalar) -> Scalar:
        """Return a - b."""
        return _joined(a, b, ball.subtract, complex_ball.subtract)

    @staticmethod
    def multiply(a: Scalar, b: Scalar) -> Scalar:
        """Return a b."""
        return _joined(a, b, ball.multiply, complex_ball.multiply)

    @staticmethod
    def divide(a: Scalar, b: Scalar) -> Scalar:
        """Return a / b."""
        return _joined(a, b, ball.divide, complex_ball.divide)

    @staticmethod
    def number(value: Fraction | int) -> Scalar:
        """Return an exact number."""
        return ball.from_fraction(value)

    @staticmethod
    def is_zero(a: Scalar) -> bool:
        """Check whether a number is 0.

        Raises:
            UndecidedError: more digits are needed.
        """
        sign = a.sign()
        if sign is None:
            raise UndecidedError
        return sign == 0

    @staticmethod
    def negative(a: Scalar) -> Scalar:
        """Return -a."""
        return ball.negative(a) if isinstance(a, Ball) else complex_ball.negative(a)

    @staticmethod
    def square_root(a: Scalar) -> Scalar:
        """Return the square root; of a negative number the one on the imaginary axis."""
        if isinstance(a, Ball) and a.sign() != -1:
            return ball.square_root(a)
        if isinstance(a, Ball):
            size = ball.square_root(ball.negative(a))
            return simplified(complex_ball.multiply(promoted(size), complex_ball.imaginary_unit()))
        return ComplexBall(a.value.sqrt(), None, a.defined, a.reason)

    @staticmethod
    def squared_size(a: Scalar) -> Scalar:
        """Return |a|^2."""
        if isinstance(a, Ball):
            return ball.integer_power(a, 2)
        return simplified(complex_ball.multiply(a, complex_ball.conjugate(a)))


SCALARS = Scalars()

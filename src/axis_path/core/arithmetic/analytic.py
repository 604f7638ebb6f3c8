"""Functions of complex balls, for calculations with i and for integrals.

Every function takes a flag ``analytic``: with it, a value is given only where the function is
analytic on the whole ball, and something that is not finite elsewhere. Functions of real numbers
such as |x| are then continued from the side of the real line on which the ball lies. Without it,
values are those of complex arithmetic.

Source: Johansson, *Numerical integration in arbitrary-precision ball arithmetic*, 2018.
"""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

from flint import acb, arb, fmpq

Function = Callable[[acb, bool], acb]


def _entire(method: str) -> Function:
    function = getattr(acb, method)
    return lambda z, analytic: function(z)


exponential = _entire("exp")
sine, cosine, tangent = _entire("sin"), _entire("cos"), _entire("tan")
hyperbolic_sine, hyperbolic_cosine = _entire("sinh"), _entire("cosh")
hyperbolic_tangent = _entire("tanh")
error_function, gamma, digamma = _entire("erf"), _entire("gamma"), _entire("digamma")


def square_root(z: acb, analytic: bool) -> acb:
    """Return the square root."""
    return z.sqrt(analytic=analytic)


def logarithm(z: acb, analytic: bool) -> acb:
    """Return the natural logarithm."""
    return z.log(analytic=analytic)


def decimal_logarithm(z: acb, analytic: bool) -> acb:
    """Return the logarithm to base 10."""
    return z.log(analytic=analytic) / arb.const_log10()


def nothing() -> acb:
    """Return what stands for no value."""
    return acb(arb.nan(), arb.nan())


def _outside_cut(function: Callable[[acb], acb], holds: Callable[[acb], bool]) -> Function:
    """Return a value with the flag only where a ball keeps away from the function's cut."""
    return lambda z, analytic: function(z) if not analytic or holds(z) else nothing()


def _is_off_real(z: acb) -> bool:
    return not bool(z.imag.contains(0))


arcsine = _outside_cut(acb.asin, lambda z: _is_off_real(z) or bool(abs(z.real) < 1))
arccosine = _outside_cut(acb.acos, lambda z: _is_off_real(z) or bool(abs(z.real) < 1))
arctangent = _outside_cut(acb.atan, lambda z: bool(z.real != 0) or bool(abs(z.imag) < 1))
inverse_sinh = _outside_cut(acb.asinh, lambda z: bool(z.real != 0) or bool(abs(z.imag) < 1))
inverse_cosh = _outside_cut(acb.acosh, lambda z: _is_off_real(z) or bool(z.real > 1))
inverse_tanh = _outside_cut(acb.atanh, lambda z: _is_off_real(z) or bool(abs(z.real) < 1))


def absolute(z: acb, analytic: bool) -> acb:
    """Return the size of a number; with the flag |x| continued from the real line."""
    return z.real_abs(analytic=True) if analytic else acb(abs(z))


def sign(z: acb, analytic: bool) -> acb:
    """Return the sign of a real number, or z/|z|."""
    return z.real_sgn(analytic=True) if analytic else z.sgn()


def floor(z: acb, analytic: bool) -> acb:
    """Return the whole part of a real number."""
    return z.real_floor(analytic=analytic) if analytic or z.imag.is_zero() else nothing()


def ceiling(z: acb, analytic: bool) -> acb:
    """Return the smallest whole number that is not below a real number."""
    return z.real_ceil(analytic=analytic) if analytic or z.imag.is_zero() else nothing()


def minimum(z: acb, w: acb, analytic: bool) -> acb:
    """Return the smaller of two real numbers."""
    return z.real_min(w, analytic=analytic)


def maximum(z: acb, w: acb, analytic: bool) -> acb:
    """Return the greater of two real numbers."""
    return z.real_max(w, analytic=analytic)


def integer_power(z: acb, n: int, analytic: bool) -> acb:
    """Return z^n for a whole n."""
    return z**n


def root(z: acb, numerator: int, denominator: int, analytic: bool) -> acb:
    """Return a fractional power: the real root for a real number and an odd denominator."""
    exponent = acb(fmpq(numerator, denominator))
    if denominator % 2 and z.imag.contains(0):
        if bool(z.real > 0):
            return z.pow(exponent, analytic=analytic)
        if bool(z.real < 0) and (analytic or z.imag.is_zero()):
            mirrored = (-z).pow(exponent, analytic=analytic)
            return -mirrored if numerator % 2 else mirrored
        if z.is_zero():
            return acb(0) if numerator > 0 else nothing()
        if analytic:
            return nothing()
        return _odd_root_around_zero(z, Fraction(numerator, denominator))
    return z.pow(exponent, analytic=analytic)


def _odd_root_around_zero(z: acb, exponent: Fraction) -> acb:
    """Enclose a real root over a ball that holds 0, for integrals that pass a vertical slope."""
    if exponent < 0:
        return nothing()
    size = abs(z).upper() ** arb(fmpq(exponent.numerator, exponent.denominator))
    around = arb(0, 1) * size
    return acb(around) if z.imag.is_zero() else acb(around, around)


def power(z: acb, w: acb, analytic: bool) -> acb:
    """Return z^w."""
    return z.pow(w, analytic=analytic)

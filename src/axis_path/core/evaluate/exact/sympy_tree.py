"""SymPy's expressions as trees of our language, in the order that a textbook writes them."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

import sympy

from axis_path.core.language.tree import (
    Binary,
    Call,
    Name,
    Negative,
    Node,
    Number,
    Operator,
)

INVERSE = {sympy.asin: "asin", sympy.acos: "acos", sympy.atan: "atan"}
#: A form with more operations than this is no help to a reader.
MOST_OPERATIONS = 60


Expression = Any


class NoExactFormError(Exception):
    """There is none, or none that can be found this way."""


def tree(value: Expression) -> Node:
    """Return a number as our tree.

    Raises:
        NoExactFormError: it holds what is no radical, pi, e or logarithm.
    """
    if value.has(sympy.zoo, sympy.nan, sympy.oo) or value.free_symbols:
        raise NoExactFormError
    if value.count_ops() > MOST_OPERATIONS:
        raise NoExactFormError
    return _node(value)


def _node(value: Expression) -> Node:
    if value.is_Rational:
        return _rational(Fraction(int(value.p), int(value.q)))
    if value is sympy.pi:
        return Name("pi")
    if value is sympy.E:
        return Name("e")
    if value is sympy.I:
        return Name("i")
    if value.is_Add:
        return _sum(value)
    if value.is_Mul:
        return _product(value)
    if isinstance(value, sympy.exp):
        return _power(sympy.E, value.args[0])
    if value.is_Pow:
        return _power(value.base, value.exp)
    for kind, name in INVERSE.items():
        if isinstance(value, kind):
            return Call(name, (_node(value.args[0]),))
    if isinstance(value, sympy.log):
        return Call("ln", (_node(value.args[0]),))
    raise NoExactFormError


def _rational(value: Fraction) -> Node:
    size: Node = Number(Fraction(abs(value.numerator)))
    if value.denominator != 1:
        size = Binary(Operator.DIVIDE, size, Number(Fraction(value.denominator)))
    return Negative(size) if value < 0 else size


def _sum(value: Expression) -> Node:
    bottom = sympy.ilcm(*(term.as_coeff_Mul()[0].q for term in value.args if _is_plain(term)))
    if bottom != 1 and all(map(_is_plain, value.args)) and not value.has(sympy.I):
        above = sympy.expand(value * bottom)
        return Binary(Operator.DIVIDE, _node(above), _rational(Fraction(int(bottom))))
    # Alone, roots stand from the largest to the smallest, as in (√6 + √2)/4; after a number they
    # rise, as in 1 + √2 + √3.
    falls = not any(term.is_Rational for term in value.args)
    terms = sorted(value.args, key=lambda term: _order_of_term(term, falls=falls))
    total = _node(terms[0])
    for term in terms[1:]:
        if term.could_extract_minus_sign():
            total = Binary(Operator.SUBTRACT, total, _node(-term))
        else:
            total = Binary(Operator.ADD, total, _node(term))
    return total


def _is_plain(term: Expression) -> bool:
    return bool(term.as_coeff_Mul()[0].is_Rational)


def _order_of_term(term: Expression, *, falls: bool) -> tuple[Any, ...]:
    """Order the terms of a sum: the imaginary part last, no sign in front, numbers first."""
    sign = bool(term.could_extract_minus_sign())
    factor, rest = term.as_coeff_Mul()
    is_logarithm = bool(rest.has(sympy.log, *INVERSE))
    of_root = rest.base if rest.is_Pow and rest.base.is_Rational else 0
    size = (-of_root if falls else of_root, sympy.default_sort_key(rest), factor)
    return bool(term.has(sympy.I)), sign, is_logarithm, not term.is_Rational, *size


def _product(value: Expression) -> Node:
    if value.could_extract_minus_sign():
        return Negative(_node(-value))
    if value.has(sympy.I):
        return _imaginary(value)
    top, bottom = sympy.fraction(value)
    if bottom != 1:
        return Binary(Operator.DIVIDE, _node(top), _node(bottom))
    return _factors(list(value.args))


def _imaginary(value: Expression) -> Node:
    size = value / sympy.I
    if size.has(sympy.I):
        raise NoExactFormError
    top, bottom = sympy.fraction(size)
    if bottom != 1:
        return Binary(Operator.DIVIDE, _imaginary(top * sympy.I), _node(bottom))
    return _factors([*sympy.Mul.make_args(size), sympy.I])


def _factors(factors: list[Expression]) -> Node:
    nodes = [_node(factor) for factor in sorted(factors, key=_order_of_factor) if factor != 1]
    total = nodes[0]
    for node in nodes[1:]:
        total = Binary(Operator.MULTIPLY, total, node)
    return total


def _order_of_factor(factor: Expression) -> tuple[int, str]:
    """Order the factors of a product as they are printed: 2 pi i sqrt(3) ln(2)."""
    ranks = (
        factor.is_Rational, factor is sympy.pi, factor.has(sympy.E) and not factor.is_Add,
        factor is sympy.I, factor.is_Pow and factor.exp != sympy.Rational(1, 2),
        factor.is_Pow, factor.is_Add,
    )  # fmt: skip
    return next((k for k, is_so in enumerate(ranks) if is_so), len(ranks)), str(factor)


def _power(base: Expression, exponent: Expression) -> Node:
    is_transcendental = base is sympy.E and not exponent.is_Rational
    if exponent.could_extract_minus_sign() and not is_transcendental:
        one = Number(Fraction(1))
        return Binary(Operator.DIVIDE, one, _node(base**-exponent))
    if exponent == sympy.Rational(1, 2):
        return Call("sqrt", (_node(base),))
    return Binary(Operator.POWER, _node(base), _node(exponent))

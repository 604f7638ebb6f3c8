"""Find the exact form of a number: the exact backend, on SymPy.

It runs in a worker process (``exact_pool``), because nobody can say beforehand how long algebra
takes. What comes out is a text of our language, made of whole numbers, radicals, pi, e and
logarithms, or nothing. No text goes in: SymPy's objects are built from the steps of a program.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from contextlib import suppress
from fractions import Fraction

import sympy

from axis_path.core.catalogue import CONSTANTS, DEGREE, OPERATIONS
from axis_path.core.evaluate.exact.sympy_tree import Expression, NoExactFormError, tree
from axis_path.core.evaluate.graph.graph import ENDLESS, IMAGINARY, Fence, Inner, Op, Split
from axis_path.core.evaluate.graph.program import Program, run, run_inner
from axis_path.core.language.shown import shown
from axis_path.core.language.tree import (
    Summary,
)

_LONGEST_TEXT = 300
_MOST_SOLUTIONS = 50
_CHECK_DIGITS = 30


def _log10(x: Expression) -> Expression:
    return sympy.log(x) / sympy.log(10)


def _whole(function: Callable[..., Expression]) -> Callable[..., Expression]:
    """Let a function be worked out on whole numbers only."""

    def of_wholes(*arguments: Expression) -> Expression:
        if not all(argument.is_Integer for argument in arguments):
            raise NoExactFormError
        return function(*arguments)

    return of_wholes


_SPECIAL: dict[str, Callable[..., Expression]] = {
    "log10": _log10,
    "gcd": _whole(sympy.gcd),
    "lcm": _whole(sympy.lcm),
    "binomial": _whole(sympy.binomial),
    "factorial": _whole(sympy.factorial),
}


def _divide(a: Expression, b: Expression) -> Expression:
    if b.is_zero or (b.is_zero is None and b.equals(0)):
        raise NoExactFormError
    return a / b


def _power(a: Expression, b: Expression) -> Expression:
    # The principal value, as in i^i = e^(-π/2).
    return sympy.exp(b * sympy.log(a)) if b.has(sympy.I) and a != sympy.E else a**b


def _real_root(a: Expression, numerator: int, denominator: int) -> Expression:
    exponent = sympy.Rational(numerator, denominator)
    if denominator % 2 and a.is_negative:
        return (-1) ** (numerator % 2) * (-a) ** exponent
    return a**exponent


class Exact:
    """SymPy's numbers as a backend."""

    # It is made for one run, so programs keep nothing that was bound to it.
    plan_name = ""
    is_fixed = True

    def number(self, value: Fraction) -> Expression:
        """Return an exact number."""
        return sympy.Rational(value.numerator, value.denominator)

    def constant(self, name: str) -> Expression:
        """Return a constant, or i."""
        if name == IMAGINARY:
            return sympy.I
        return sympy.pi / 180 if name == DEGREE else getattr(sympy, CONSTANTS[name].exact)

    def operation(self, op: str) -> Callable[..., Expression]:
        """Return an operation."""
        match op:
            case Op.ADD:
                return lambda a, b: a + b
            case Op.SUBTRACT:
                return lambda a, b: a - b
            case Op.MULTIPLY:
                return lambda a, b: a * b
            case Op.NEGATIVE:
                return lambda a: -a
            case Op.DIVIDE:
                return _divide
            case Op.INTEGER_POWER:
                return lambda a, b: a**b
            case Op.POWER:
                return _power
            case Op.ROOT:
                return _real_root
            case _:
                return _SPECIAL.get(op) or getattr(sympy, OPERATIONS[op].exact)

    def within(
        self, fence: Fence, body: Expression, subject: Expression, bounds: tuple[Expression, ...]
    ) -> Expression:
        """Return the body if the subject is known to lie inside; ∞ where the step is ∞."""
        if fence == ENDLESS:
            return sympy.oo
        if not _is_inside(fence, subject, bounds):
            raise NoExactFormError
        return body

    def pieces(
        self,
        split: Split,
        subject: Expression,
        pieces: list[tuple[Expression, tuple[Expression, ...]]],
    ) -> Expression:
        """Return the first body whose fence is known to hold."""
        for fence, (body, bounds) in zip(split.fences, pieces, strict=True):
            if fence is None or _is_inside(fence, subject, bounds):
                return body
        raise NoExactFormError

    def guard(self, body: Expression, witness: Expression) -> Expression:
        """Return the body."""
        return body

    def summarise(
        self, inner: Inner, low: Expression, high: Expression, captured: list[Expression]
    ) -> Expression:
        """Return a sum, product or integral in closed form."""
        variable = sympy.Dummy("k", real=True)
        body = run_inner(inner, self, captured, variable)
        limits = (variable, low, high)
        if inner.summary is Summary.INTEGRAL:
            return sympy.integrate(body, limits)
        if inner.summary is Summary.SUM:
            return sympy.summation(body, limits)
        return sympy.product(body, limits)


def _is_inside(fence: Fence, subject: Expression, bounds: tuple[Expression, ...]) -> bool:
    if subject.free_symbols:
        # Which piece holds changes along the way; the proof by numbers handles that.
        raise NoExactFormError
    rest = list(bounds)
    tests = []
    if fence.low is not None:
        low = rest.pop(0)
        tests.append(subject >= low if fence.low else subject > low)
    if fence.high is not None:
        high = rest.pop(0)
        tests.append(subject <= high if fence.high else subject < high)
    tests += [sympy.Ne(subject, value) for value in rest]
    for test in tests:
        if test not in (sympy.true, sympy.false):
            raise NoExactFormError
    return all(test == sympy.true for test in tests)


def find_exact(program: Program, parameters: Mapping[str, Fraction]) -> str | None:
    """Return the exact form of a program without variables as a text of our language, or None."""
    backend = Exact()
    values = {name: backend.number(value) for name, value in parameters.items()}
    try:
        raw = run(program, backend, sympy.Integer(0), values)[0]
        return _simplest(_with_real_roots(raw))
    except (NoExactFormError, ValueError, TypeError, NotImplementedError, AttributeError):
        # SymPy answers in many ways that it cannot do something; the decimal stands then.
        return None


def find_solutions(
    program: Program, parameters: Mapping[str, Fraction], *, in_degrees: bool
) -> tuple[str, ...]:
    """Return exact solutions of "the program is zero" for its variable, as texts of our language.

    They are proposals: whoever asks puts each to the proof, and looks for more solutions himself.

    Args:
        program: it has a variable and one result.
        parameters: the values of the sliders.
        in_degrees: whether the texts are read where angles are degrees.
    """
    backend = Exact()
    values = {name: backend.number(value) for name, value in parameters.items()}
    unknown = sympy.Symbol("x", real=True)
    try:
        raw = run(program, backend, unknown, values)[0]
        solutions = sympy.solve(raw, unknown)
    except (NoExactFormError, ValueError, TypeError, NotImplementedError, AttributeError):
        return ()
    texts: list[str] = []
    for solution in solutions[:_MOST_SOLUTIONS]:
        with suppress(NoExactFormError, ValueError, TypeError, NotImplementedError, AttributeError):
            text = _simplest(_in_degrees(solution) if in_degrees else solution)
            if text is not None:
                texts.append(text)
    return tuple(texts)


def find_identity(program: Program, parameters: Mapping[str, Fraction]) -> bool:
    """Check whether a program simplifies to zero for every value of its variable."""
    backend = Exact()
    values = {name: backend.number(value) for name, value in parameters.items()}
    try:
        raw = run(program, backend, sympy.Symbol("x", real=True), values)[0]
        return bool(sympy.simplify(raw) == 0)
    except (NoExactFormError, ValueError, TypeError, NotImplementedError, AttributeError):
        return False


def _in_degrees(solution: Expression) -> Expression:
    """Write a number of degrees whose inverse functions give degrees too."""
    turned = sympy.expand(solution * sympy.pi / 180)
    inverse = (sympy.asin, sympy.acos, sympy.atan)
    total: Expression = sympy.Integer(0)
    for term in sympy.Add.make_args(turned):
        factor, rest = term.as_independent(sympy.pi, *inverse)
        if not factor.is_Rational:
            return solution
        if rest == sympy.pi:
            total += factor * 180
        elif isinstance(rest, inverse) or rest == 1:
            total += factor * rest
        else:
            return solution
    return total


def _with_real_roots(value: Expression) -> Expression:
    """Write odd roots of negative numbers as we mean them: algebra takes complex ones."""

    def is_odd_root(part: Expression) -> bool:
        return bool(
            part.is_Pow and part.base.is_negative and part.exp.is_Rational and part.exp.q % 2
        )

    return value.replace(is_odd_root, lambda part: _real_root(part.base, part.exp.p, part.exp.q))


def _simplest(raw: Expression) -> str | None:
    """Return the shortest form that a few changes lead to.

    The slow one is tried only if nothing else gives a form.
    """
    if raw.has(sympy.I):
        raw = raw.expand(complex=True)
    texts = set[str]()
    for change in (*_CHANGES, sympy.simplify):
        if change is sympy.simplify and texts:
            break
        with suppress(NoExactFormError):
            changed = change(raw)
            if changed is not None and _are_close(raw, changed):
                texts.add(shown(tree(changed)))
    best = min(texts, key=lambda text: (len(text), text), default=None)
    return best if best is not None and len(best) <= _LONGEST_TEXT else None


def _are_close(one: Expression, other: Expression) -> bool:
    """Check by their digits that a form is the same: some changes are for positive numbers only."""
    if one is other:
        return True
    a, b = one.evalf(_CHECK_DIGITS), other.evalf(_CHECK_DIGITS)
    return bool(abs(a - b) <= sympy.Float(10) ** (5 - _CHECK_DIGITS) * (1 + abs(a)))


def _as_it_is(value: Expression) -> Expression:
    return value


def _logarithms(value: Expression) -> Expression | None:
    return sympy.expand(sympy.expand_log(value)) if value.has(sympy.log) else None


def _one_logarithm(value: Expression) -> Expression | None:
    """Write sums of logarithms as the logarithm of a product: ln(5) + ln(2) as ln(10)."""
    if not value.has(sympy.log):
        return None
    top, bottom = sympy.fraction(sympy.together(value))
    return sympy.logcombine(top, force=True) / sympy.logcombine(bottom, force=True)


def _prime_logarithms(value: Expression) -> Expression | None:
    """Write quotients of logarithms by those of primes: ln(100)/ln(10) as 2."""
    if not value.has(sympy.log):
        return None
    return sympy.cancel(sympy.expand_log(value, force=True, factor=True))


def _without_roots_below(value: Expression) -> Expression | None:
    """Write quotients with roots below as sums of roots, multiplied out."""
    if not value.has(sympy.Pow):
        return None
    return sympy.expand(sympy.radsimp(sympy.expand(value)))


def _denested(value: Expression) -> Expression | None:
    """Write a root of a sum with roots as a sum of roots, as 1 + sqrt(2)."""
    return sympy.expand(sympy.sqrtdenest(value)) if value.has(sympy.Pow) else None


def _of_inverse(value: Expression) -> Expression | None:
    """Write functions of inverse functions without them: sin(2 atan(1/2)) is 4/5."""
    if value.has(sympy.I) and value.has(*_OF_ANGLES):
        parts = (_of_inverse(part) or part for part in value.as_real_imag())
        real, imaginary = parts
        return real + sympy.I * imaginary
    if value.has(sympy.sinh, sympy.cosh, sympy.tanh):
        return sympy.radsimp(sympy.expand(value.rewrite(sympy.exp)))
    if value.has(sympy.sin, sympy.cos, sympy.tan):
        return sympy.radsimp(sympy.expand_trig(value))
    return None


_OF_ANGLES = (sympy.sinh, sympy.cosh, sympy.tanh, sympy.sin, sympy.cos, sympy.tan)
_CHANGES: tuple[Callable[[Expression], Expression | None], ...] = (
    _as_it_is, sympy.expand, sympy.radsimp, _logarithms, _one_logarithm, _prime_logarithms,
    _without_roots_below, _denested, _of_inverse,
)  # fmt: skip

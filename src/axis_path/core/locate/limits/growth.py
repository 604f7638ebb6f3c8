"""How a function grows far out: as a monomial times a factor in a known interval.

For all x beyond an end X, every step of a function is written as m(x) u(x). Here m is a monomial
e^q(x) x^p (ln x)^r with a polynomial q, and u lies in an interval. Of a sum, the term that outgrows
the others gives the monomial; the quotient of two monomials is greatest at X once its logarithm
falls from there on. So 4^x - 6 2^x + 8 is 4^x (1 + u) with a small u, and has no zero beyond X.

Source: the idea is that of Hardy, *Orders of Infinity*, 1910; the intervals make it a proof.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction

from flint import arb

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.evaluate import Op, RealFunction, constant_steps
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.locate.limits.monomial import (
    MINUS,
    ONE,
    Monomial,
    Polynomial,
    Rate,
    UnknownGrowthError,
    poly_product,
    poly_scaled,
    poly_sum,
)

_UNIT = Monomial()


@dataclass(frozen=True, slots=True)
class Growth:
    """What a step is beyond the end: a monomial times something in an interval."""

    monomial: Monomial
    factor: arb

    @property
    def sign(self) -> int | None:
        """Return the sign that the step has all along beyond the end; None if that is not known."""
        return 1 if bool(self.factor > 0) else -1 if bool(self.factor < 0) else None


def growth(function: RealFunction, far: float) -> Growth | None:
    """Return how a smooth function grows for all x beyond an end above 1; None if it is not known.

    Called inside ``precision``.

    Args:
        function: smooth there; its own domain is not looked at.
        far: the end.
    """
    try:
        result = FarOut(function, arb(far)).result()
    except UnknownGrowthError:
        return None
    return result if result.factor.is_finite() else None


class FarOut:
    """The steps of a function beyond an end.

    Args:
        function: smooth out there.
        far: the end, above 1.
        variable: what the function's variable is as a polynomial of x; x itself by default.
        seeds: polynomials that steps of the program are known to be; their coefficients may change
            with x within the intervals that they are.

    Attributes:
        steps: of its program; ``top`` is the place of the result.
        polynomials: what each step is as a polynomial, None for any other.
    """

    def __init__(
        self,
        function: RealFunction,
        far: arb,
        variable: Polynomial | None = None,
        seeds: Mapping[int, Polynomial] | None = None,
    ) -> None:
        self._far, self._seeds = far, seeds or {}
        self._variable = {1: ONE} if variable is None else variable
        self.steps, self._constants, self.top = constant_steps(function)
        self._powers: list[Polynomial | None] = []
        for k in range(len(self.steps)):
            self._powers.append(self._polynomial(k))
        self.polynomials: list[Polynomial | None] = [
            power if power is not None and min(power, default=0) >= 0 else None
            for power in self._powers
        ]
        self._made: list[Growth | None] = [None] * len(self.steps)

    def result(self) -> Growth:
        """Return how the function grows."""
        return self.growth(self.top)

    # What is exactly a polynomial in x and 1/x.

    def _polynomial(self, position: int) -> Polynomial | None:
        if position in self._seeds:
            return self._seeds[position]
        constant = self._constants[position]
        if constant is not None:
            return self._number(constant)
        step = self.steps[position]
        given = [self._powers[argument] for argument in step.arguments]
        if step.op == Op.VARIABLE:
            return self._variable
        known = [argument for argument in given if argument is not None]
        try:
            return _combined(step, known) if len(known) == len(given) else None
        except UnknownGrowthError:
            return None

    def _number(self, value: Ball) -> Polynomial | None:
        if value.defined is not Defined.YES or not value.value.is_finite():
            return None
        return {} if value.value.is_zero() else {0: Rate(value.value, value.exact)}

    # How the others grow.

    def growth(self, position: int) -> Growth:
        """Return how a step grows.

        Raises:
            UnknownGrowthError: that is not known.
        """
        result = self._made[position]
        if result is None:
            polynomial = self._powers[position]
            if polynomial is not None:
                result = self.of(polynomial)
            else:
                step = self.steps[position]
                rule = _RULES.get(step.op)
                if rule is None:
                    raise UnknownGrowthError
                result = rule(self, step)
            self._made[position] = result
        return result

    def _given(self, step: Step) -> list[Growth]:
        return [self.growth(argument) for argument in step.arguments]

    def of(self, polynomial: Polynomial) -> Growth:
        """Return how a polynomial grows."""
        degree = max(polynomial, default=0)
        factor = arb(0)
        for k, rate in polynomial.items():
            # x^(k - n) lies between 0 and its value at the end.
            power = arb(1) if k == degree else _from_zero(self._far ** (k - degree))
            factor += rate.value * power
        return Growth(Monomial(p=Rate.of(degree)), factor)

    def sum_of(self, step: Step) -> Growth:
        """Return how a sum or a difference grows."""
        one, other = self._given(step)
        return self.total(one, other if step.op == Op.ADD else _turned(other))

    def negative_of(self, step: Step) -> Growth:
        """Return how a negative grows."""
        return _turned(self.growth(step.arguments[0]))

    def product_of(self, step: Step) -> Growth:
        """Return how a product grows."""
        one, other = self._given(step)
        return Growth(one.monomial.times(other.monomial), one.factor * other.factor)

    def quotient_of(self, step: Step) -> Growth:
        """Return how a quotient grows."""
        one, other = self._given(step)
        if other.sign is None:
            raise UnknownGrowthError
        return Growth(one.monomial.over(other.monomial), one.factor / other.factor)

    def fixed_power_of(self, step: Step) -> Growth:
        """Return how a whole power or a root grows."""
        payload = step.payload
        if step.op == "sqrt":
            exponent = Fraction(1, 2)
        elif isinstance(payload, tuple):
            exponent = Fraction(*payload)
        elif isinstance(payload, int):
            exponent = Fraction(payload)
        else:
            raise UnknownGrowthError
        base = self.growth(step.arguments[0])
        if base.sign is None or (base.sign < 0 and exponent.denominator % 2 == 0):
            raise UnknownGrowthError
        top, bottom = exponent.numerator, exponent.denominator
        size = base.factor * base.sign
        factor = (size if bottom == 1 else size.root(bottom)) ** top
        return Growth(base.monomial.power(Rate.of(exponent)), factor * base.sign ** (top % 2))

    def exponential_of(self, step: Step) -> Growth:
        """Return how e^u grows."""
        return self._exponential(step.arguments[0], ONE)

    def power_of(self, step: Step) -> Growth:
        """Return how a power grows of which the base or the exponent is fixed."""
        base, exponent = (self._constants[argument] for argument in step.arguments)
        if base is not None and bool(base.value > 0):
            return self._exponential(step.arguments[1], Rate(base.value.log()))
        if exponent is None:
            raise UnknownGrowthError
        given = self.growth(step.arguments[0])
        if given.sign != 1:
            raise UnknownGrowthError
        rate = Rate(exponent.value, exponent.exact)
        return Growth(given.monomial.power(rate), given.factor**exponent.value)

    def logarithm_of(self, step: Step) -> Growth:
        """Return how a logarithm grows."""
        given = self.growth(step.arguments[0])
        if given.sign != 1:
            raise UnknownGrowthError
        monomial, rest = given.monomial, given.factor.log()
        if not monomial.r.value.is_zero():
            raise UnknownGrowthError
        made = self.of(monomial.q)
        for part in (Growth(Monomial(r=ONE), monomial.p.value), Growth(_UNIT, rest)):
            if not part.factor.is_zero():
                made = part if made.factor.is_zero() else self.total(made, part)
        scale = arb(1) if step.op == "ln" else arb.const_log10()
        return Growth(made.monomial, made.factor / scale)

    def bounded_of(self, step: Step) -> Growth:
        """Return how a sine or cosine grows: it does not."""
        try:
            given = self.growth(step.arguments[0])
            within = self._bounded(given)
        except UnknownGrowthError:
            return Growth(_UNIT, arb(0, 1))
        if step.op == "cos":
            return Growth(_UNIT, within.cos())
        if given.monomial.trend() < 0:
            return self._like_its_argument(given, lambda most: (1 - most**2 / 6).union(1))
        return Growth(_UNIT, within.sin())

    def steep_of(self, step: Step) -> Growth:
        """Return how a tangent or hyperbolic sine of something that comes to 0 grows."""
        given = self.growth(step.arguments[0])
        if given.monomial.trend() >= 0:
            raise UnknownGrowthError
        return self._like_its_argument(given, lambda most: arb(1).union(1 + most**2))

    def _like_its_argument(self, given: Growth, ratio: Callable[[arb], arb]) -> Growth:
        """Return u r for a u that comes to 0, with r from the greatest size of u."""
        most = abs(self._bounded(given)).upper()
        if not bool(most < 1):
            raise UnknownGrowthError
        return Growth(given.monomial, given.factor * ratio(most))

    def whole_of(self, step: Step) -> Growth:
        """Return how floor or ceil grows: it differs from its argument by 1 at most."""
        lost = arb(-1).union(0) if step.op == "floor" else arb(0).union(1)
        return self.total(self.growth(step.arguments[0]), Growth(_UNIT, lost))

    def levelling_of(self, step: Step) -> Growth:
        """Return how a function grows that rises all along, and comes to a number."""
        given, function = self.growth(step.arguments[0]), _LEVELLING[step.op]
        if given.monomial.trend() < 0:
            return self._like_its_argument(given, lambda most: (1 - most**2 / 3).union(1))
        if given.sign is None or given.monomial.trend() == 0:
            return Growth(_UNIT, function(self._bounded(given)))
        if not given.monomial.power(MINUS).falls_from(self._far):
            raise UnknownGrowthError
        least = abs(given.factor).lower() * given.monomial.at(self._far).lower()
        result = function(least).union(function(arb("inf")))
        return Growth(_UNIT, result * given.sign)

    def total(self, one: Growth, other: Growth) -> Growth:
        """Return how a sum of two grows."""
        ratio = other.monomial.over(one.monomial)
        trend = ratio.trend()
        if trend > 0:
            one, other, ratio = other, one, one.monomial.over(other.monomial)
        if trend == 0:
            return Growth(one.monomial, one.factor + other.factor)
        if not ratio.falls_from(self._far):
            raise UnknownGrowthError
        return Growth(one.monomial, one.factor + other.factor * self._greatest(ratio))

    def _greatest(self, falling: Monomial) -> arb:
        """Return all values of a monomial that falls."""
        return _from_zero(falling.at(self._far).upper())

    def _exponential(self, position: int, scale: Rate) -> Growth:
        """Return e to the power of a scale times a step."""
        polynomial = self._powers[position]
        if polynomial is not None:
            q = poly_scaled(polynomial, scale)
            falling = {k: q.pop(k) for k in list(q) if k <= 0}
            return Growth(Monomial(q), self._bounded(self.of(falling)).exp())
        return Growth(_UNIT, (self._bounded(self.growth(position)) * scale.value).exp())

    def _bounded(self, given: Growth) -> arb:
        """Return an interval for a step that does not grow.

        Raises:
            UnknownGrowthError: it may grow.
        """
        trend = given.monomial.trend()
        if trend == 0:
            return given.factor
        if trend > 0 or not given.monomial.falls_from(self._far):
            raise UnknownGrowthError
        return given.factor * self._greatest(given.monomial)


def _combined(step: Step, given: list[Polynomial]) -> Polynomial | None:
    """Return what an operation makes of polynomials; None if that is none.

    Raises:
        UnknownGrowthError: the degree is too large.
    """
    match step.op, given:
        case Op.ADD, [a, b]:
            return poly_sum(a, b)
        case Op.SUBTRACT, [a, b]:
            return poly_sum(a, poly_scaled(b, MINUS))
        case Op.NEGATIVE, [a]:
            return poly_scaled(a, MINUS)
        case Op.MULTIPLY, [a, b]:
            return poly_product(a, b)
        case Op.DIVIDE, [a, b] if len(b) == 1:
            [(degree, bottom)] = b.items()
            exact = None if bottom.exact is None else 1 / bottom.exact
            return poly_product(a, {-degree: Rate(1 / bottom.value, exact)})
        case Op.INTEGER_POWER, [a] if isinstance(step.payload, int) and step.payload > 0:
            made: Polynomial = {0: ONE}
            for _ in range(step.payload):
                made = poly_product(made, a)
            return made
    return None


def _turned(one: Growth) -> Growth:
    return Growth(one.monomial, -one.factor)


def _from_zero(most: arb) -> arb:
    return arb(0).union(most)


_LEVELLING: dict[str, Callable[[arb], arb]] = {
    "atan": lambda u: u.atan(), "tanh": lambda u: u.tanh(),
}  # fmt: skip
_RULES: dict[str, Callable[[FarOut, Step], Growth]] = {
    Op.ADD: FarOut.sum_of, Op.SUBTRACT: FarOut.sum_of, Op.NEGATIVE: FarOut.negative_of,
    Op.MULTIPLY: FarOut.product_of, Op.DIVIDE: FarOut.quotient_of, Op.POWER: FarOut.power_of,
    Op.INTEGER_POWER: FarOut.fixed_power_of, Op.ROOT: FarOut.fixed_power_of,
    "sqrt": FarOut.fixed_power_of, "exp": FarOut.exponential_of, "ln": FarOut.logarithm_of,
    "log10": FarOut.logarithm_of, "sin": FarOut.bounded_of, "cos": FarOut.bounded_of,
    "tan": FarOut.steep_of, "sinh": FarOut.steep_of,
    "atan": FarOut.levelling_of, "tanh": FarOut.levelling_of, "floor": FarOut.whole_of,
    "ceil": FarOut.whole_of,
}  # fmt: skip

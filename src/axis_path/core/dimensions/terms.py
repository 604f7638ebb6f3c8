"""Dimensions with unknown parts, and what is found out about them.

The exponents of a dimension form a vector of fractions, so that equations between dimensions are
linear: each is solved for one unknown. Source: A. Kennedy, "Types for units-of-measure: theory and
practice", 2010, with rational instead of whole exponents.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction

from axis_path.core.catalogue.units import PLAIN, Dimension


@dataclass(frozen=True, slots=True)
class Term:
    """A dimension times powers of unknown dimensions.

    Attributes:
        known: the part that is known.
        unknowns: the numbers of the unknown parts with their exponents, none of which is 0.
    """

    known: Dimension
    unknowns: tuple[tuple[int, Fraction], ...] = ()

    @property
    def is_plain(self) -> bool:
        """Check whether it is known to be the dimension of a plain number."""
        return not self.unknowns and self.known.is_plain

    def __mul__(self, other: Term) -> Term:
        """Return the term of a product."""
        known = self.known * other.known
        if not other.unknowns:
            return Term(known, self.unknowns)
        powers = dict(self.unknowns)
        for number, power in other.unknowns:
            powers[number] = powers.get(number, Fraction(0)) + power
        return Term(known, tuple((number, power) for number, power in powers.items() if power))

    def __truediv__(self, other: Term) -> Term:
        """Return the term of a quotient."""
        return self * other.to_the(Fraction(-1))

    def to_the(self, power: Fraction | int) -> Term:
        """Return the term of a power."""
        if not power:
            return NUMBER
        unknowns = tuple((number, own * power) for number, own in self.unknowns)
        return Term(self.known**power, unknowns)


NUMBER = Term(PLAIN)


@dataclass
class Unifier:
    """What is found out about unknown dimensions.

    Attributes:
        first: the number of the next unknown.
    """

    first: int = 0
    _found: dict[int, Term] = field(default_factory=dict)

    def unknown(self) -> Term:
        """Return a dimension of which nothing is known yet."""
        self.first += 1
        return Term(PLAIN, ((self.first, Fraction(1)),))

    def resolve(self, term: Term) -> Term:
        """Return a term with all that was found out put in."""
        while any(number in self._found for number, _ in term.unknowns):
            resolved = Term(term.known)
            for number, power in term.unknowns:
                part = self._found.get(number, Term(PLAIN, ((number, Fraction(1)),)))
                resolved = resolved * part.to_the(power)
            term = resolved
        return term

    def unify(self, one: Term, other: Term) -> bool:
        """Make two terms equal; False if they cannot be.

        An angle is a plain number too, so it makes no difference between two dimensions.
        """
        if not (one.unknowns or other.unknowns):
            return one.known.without_angle == other.known.without_angle
        rest = self.resolve(one / other)
        if not rest.unknowns:
            return rest.known.without_angle.is_plain
        number, power = rest.unknowns[-1]
        solved = Term(rest.known, rest.unknowns[:-1]).to_the(-1 / power)
        self._found[number] = solved
        return True

    def dimension(self, term: Term) -> Dimension:
        """Return a dimension; unknown parts are those of plain numbers."""
        return self.resolve(term).known


def renamed(term: Term, numbers: Mapping[int, Term]) -> Term:
    """Return a term with other unknowns in the place of its own."""
    result = Term(term.known)
    for number, power in term.unknowns:
        result = result * numbers[number].to_the(power)
    return result

"""How a function is put together over an interval: smooth parts, and singular points between.

The singular points are the places where an operation may begin, end, jump or have a kink. They are
zeros of the function's edges (``Branches.edges``), located with proof, those of inner operations
first; between two neighbouring singular points the function is one smooth branch, or has no value
at all. Everything that is located later is looked for in the parts and at the singular points.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

from flint import arb

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.errors import LimitError, NotHandledError, StoppedError
from axis_path.core.evaluate import (
    Branches,
    Edge,
    End,
    RealFunction,
    nearest_whole,
    to_fraction,
)
from axis_path.core.limits import SINGULAR_POINTS
from axis_path.core.locate.cells import Cell, Interval, Root, Search
from axis_path.core.locate.search.search import search_branch

#: Where in a part its branch is chosen: at no simple number.
_CUT = 0.4876
#: So many steps narrow a place to any precision that is used.
_MOST_STEPS = 12
#: Of so many jumps it is noted which whole number a floor has come to.
_MOST_LEVELS = 200


@dataclass(frozen=True, slots=True)
class SingularPoint:
    """A place between two parts, or an end of the interval.

    Attributes:
        abscissa: a ball that contains it; exact if it is known exactly.
        proved: whether exactly one such place is proved to lie in the ball.
        is_end: whether the interval ends here.
        zeros: the steps of the branches's functions that are proved to be zero here: what defines
            the place.
        is_gap: whether an operation has no value here.
        is_left_out: whether the domain leaves this single value out.
    """

    abscissa: Ball
    proved: bool = True
    is_end: bool = False
    zeros: frozenset[int] = frozenset()
    is_gap: bool = False
    is_left_out: bool = False


@dataclass(frozen=True, slots=True)
class Part:
    """What lies between two singular points.

    Attributes:
        low: the lower singular point; ``high`` the upper.
        branch: the function as it is here; smooth if the anatomy is complete.
        defined: whether it has a value here; MAYBE if that is not decided.
        middle: a place inside that is no simple number.
    """

    low: SingularPoint
    high: SingularPoint
    branch: RealFunction
    defined: Defined
    middle: Ball

    @property
    def cell(self) -> Cell:
        """Return the part as a cell."""
        return _cell(self.low, self.high)


@dataclass(frozen=True, slots=True)
class Anatomy:
    """A function over an interval, taken apart.

    Attributes:
        inside: the interval, cut to the function's own domain.
        singular_points: in order; the first and the last are the ends of the interval.
        parts: between the singular points, one less.
        complete: whether every rough place is proved to be one of the singular points.
        note: what is not certain, in words.
    """

    function: RealFunction
    branches: Branches
    inside: Interval
    singular_points: tuple[SingularPoint, ...]
    parts: tuple[Part, ...]
    complete: bool
    note: str = ""

    def neighbours(self) -> Iterator[tuple[Part | None, SingularPoint, Part | None]]:
        """Go through the singular points with the parts before and after them."""
        for k, singular in enumerate(self.singular_points):
            before = self.parts[k - 1] if k else None
            after = self.parts[k] if k < len(self.parts) else None
            yield before, singular, after

    def value_at(self, singular: SingularPoint) -> Ball:
        """Return the function's own value at a singular point, without one outside its domain."""
        if singular.is_left_out:
            return ball.undefined(f"left out of the domain of {self.function.name}")
        own_end = self._own_end(singular)
        if own_end is not None and not own_end.closed:
            return ball.undefined(f"outside the domain of {self.function.name}")
        if own_end is None:
            outside = self.function.outside(singular.abscissa)
            if outside is not None and outside.defined is Defined.NO:
                return outside
        value = self.settled(self.branches.function, singular)
        if value.defined is Defined.MAYBE and singular.is_gap:
            # The place is not known to the last digit, but that an operation has no value there is.
            return ball.undefined(value.reason)
        if value.is_defined and value.exact is None and not value.excludes_zero():
            # A factor that defines the singular point is exactly zero at it.
            factors = self.branches.function.expression.factors(through_pieces=True)
            if any(factor.step in singular.zeros for factor in factors):
                return ball.from_fraction(0)
        return value

    def settled(self, function: RealFunction, singular: SingularPoint) -> Ball:
        """Return the value of a function of the branches at one, whatever its domain is."""
        return self.branches.settled(function, singular.abscissa, singular.zeros)

    def _own_end(self, singular: SingularPoint) -> End | None:
        """Return the end of the function's own domain that lies at a singular point."""
        for end, own in (
            (self.singular_points[0], self.function.low), (self.singular_points[-1],
            self.function.high),
        ):  # fmt: skip
            if (
                singular is end
                and own is not None
                and own.value.value.overlaps(singular.abscissa.value)
            ):
                return own
        return None


def take_apart(function: RealFunction, inside: Interval) -> Anatomy:
    """Take a function apart over an interval that lies in its domain.

    Called inside ``precision``.
    """
    branches = Branches(function)
    singular_points = [
        SingularPoint(end, is_end=True, zeros=branches.zeros_at(end))
        for end in (inside.low, inside.high)
    ]
    for value in function.without:
        left_out = SingularPoint(value, zeros=branches.zeros_at(value), is_left_out=True)
        singular_points = _with_singular_points(branches, singular_points, [left_out])
    notes: list[str] = []
    complete = branches.is_known
    if not complete:
        notes.append("Where this function may jump or have gaps is not known here.")
    for edge in branches.edges:
        more, sure = _singular_points_of(branches, edge, singular_points)
        complete = complete and sure
        singular_points = _with_singular_points(branches, singular_points, more)
        if len(singular_points) > SINGULAR_POINTS.value:
            # Those nearest to the middle of the crowd are the ones that would go on for ever.
            singular_points = [*singular_points[: SINGULAR_POINTS.value - 1], singular_points[-1]]
            complete = False
            notes.append(
                f"There are more than {SINGULAR_POINTS.value:,} places where it may break or bend."
            )
            break
    if not complete and not notes:
        notes.append("Whether there are more breaks or kinks could not be decided.")
    try:
        parts = [
            _part(branches, low, high, is_known=complete) for low, high in pairwise(singular_points)
        ]
    except StoppedError:
        # What is searched next is stopped as well, and tells what is seen.
        complete = False
        parts = [
            _part(branches, low, high, is_known=False) for low, high in pairwise(singular_points)
        ]
    return Anatomy(
        function, branches, inside, tuple(singular_points), tuple(parts), complete, " ".join(notes)
    )


def sharpened(branches: Branches, singular: SingularPoint) -> Ball:
    """Return the place of a singular point, narrowed as far as the present precision goes.

    Source: Newton's method on intervals, as in ``search.py``.
    """
    abscissa = singular.abscissa
    if abscissa.turns is not None:
        return Ball(arb.pi() * arb(abscissa.turns), turns=abscissa.turns)
    if abscissa.exact is not None:
        return ball.from_fraction(to_fraction(abscissa.exact))
    if not singular.proved:
        return abscissa
    for step in sorted(singular.zeros):
        function = branches.of(step)
        try:
            slope = branches.derivative(function)
        except (LimitError, NotHandledError):
            continue
        for _ in range(_MOST_STEPS):
            middle, steepness = Ball(abscissa.value.mid()), slope.prove(abscissa)
            if steepness.sign() not in (-1, 1):
                break
            nearer = middle.value - function.prove(middle).value / steepness.value
            if not (nearer.is_finite() and nearer.overlaps(abscissa.value)):
                break
            nearer = nearer.intersection(abscissa.value)
            if not bool(nearer.rad() * 2 < abscissa.value.rad()):
                return Ball(nearer)
            abscissa = Ball(nearer)
    return abscissa


def _cell(low: SingularPoint, high: SingularPoint) -> Cell:
    return Cell(low.abscissa, high.abscissa, low.zeros, high.zeros)


def _middle(low: Ball, high: Ball) -> Ball:
    middle = low.value.mid() + (high.value.mid() - low.value.mid()) * arb(_CUT)
    near_by = arb(float(middle))
    is_between = bool(near_by > low.value) and bool(near_by < high.value)
    return Ball(near_by if is_between else middle.mid())


def _part(branches: Branches, low: SingularPoint, high: SingularPoint, *, is_known: bool) -> Part:
    at = _middle(low.abscissa, high.abscissa)
    if not is_known:
        # Where a singular point may be missing the function need not be one branch all along.
        return Part(low, high, branches.function, Defined.MAYBE, at)
    branch = branches.branch(branches.function, at)
    return Part(low, high, branch, branch.prove(at).defined, at)


def _singular_points_of(
    branches: Branches, edge: Edge, singular_points: list[SingularPoint]
) -> tuple[list[SingularPoint], bool]:
    """Return the zeros of an edge between known singular points, and whether these are all."""
    points: list[SingularPoint] = []
    sure = True
    searched: dict[int, tuple[RealFunction, list[Cell]]] = {}
    for low, high in pairwise(singular_points):
        at = _middle(low.abscissa, high.abscissa)
        branch = branches.branch(edge.function, at)
        if branch.prove(at).defined is not Defined.NO:
            entry = searched.setdefault(branch.expression.step, (branch, []))
            entry[1].append(_cell(low, high))
    for branch, cells in searched.values():
        search = Search()
        try:
            search_branch(branch, cells, search, is_smooth=sure)
        except (LimitError, NotHandledError):
            sure = False
            continue
        sure = sure and not search.undecided
        is_crowd = len(search.roots) > _MOST_LEVELS
        for root in search.roots:
            zeros = _zeros_at(branch, root, is_crowd=is_crowd) if root.proved else frozenset[int]()
            points.append(
                SingularPoint(root.abscissa, root.proved, zeros=zeros, is_gap=edge.is_gap)
            )
    return points, sure


def _zeros_at(branch: RealFunction, root: Root, *, is_crowd: bool) -> frozenset[int]:
    """Return the steps that are zero at a root: its factors, and the branch if that has a value."""
    own = branch.expression.step
    # Each level makes new steps, of which there is no end of room.
    zeros = root.zeros if is_crowd else root.zeros | _level_at(branch, root.abscissa)
    if own in zeros or not branch.prove(root.abscissa).is_defined:
        return zeros
    return zeros | {own}


def _level_at(branch: RealFunction, abscissa: Ball) -> frozenset[int]:
    """Return u - n for an edge sin(pi u) that is zero at a place: which whole number u is there."""
    waves = branch.expression.wave_levels()
    if waves is None or waves[2]:
        return frozenset()
    angle, start, _ = waves
    level = nearest_whole(ball.subtract(branch.prove(abscissa, angle), ball.from_fraction(start)))
    if level is None or level.exact is None:
        return frozenset()
    zero = angle.less(start + to_fraction(level.exact), in_turns=False)
    factors = zero.factors()
    return frozenset({zero.step, *(factor.step for factor in factors if len(factors) == 1)})


def _with_singular_points(
    branches: Branches, singular_points: list[SingularPoint], more: list[SingularPoint]
) -> list[SingularPoint]:
    """Put singular points in order; one at another is the same, and only those inside count."""
    low, high = singular_points[0], singular_points[-1]
    inside_parts = [
        singular for singular in more if _is_within(singular.abscissa, low.abscissa, high.abscissa)
    ]
    merged: list[SingularPoint] = []
    for singular in sorted(
        [*singular_points, *inside_parts], key=lambda item: item.abscissa.value.mid()
    ):
        _add(branches, merged, singular)
    return merged


def _add(branches: Branches, merged: list[SingularPoint], singular: SingularPoint) -> None:
    """Add a singular point after those before it; it may be one of the last of these."""
    if merged and merged[-1].abscissa.value.overlaps(singular.abscissa.value):
        for point in _separated(branches, merged.pop(), singular):
            _add(branches, merged, point)
    else:
        merged.append(singular)


def _separated(branches: Branches, one: SingularPoint, other: SingularPoint) -> list[SingularPoint]:
    """Return two overlapping singular points as one, or as two narrowed until they are apart."""
    if coincide(branches, one, other):
        return [_joined(one, other, is_same=True)]
    pair = [replace(singular, abscissa=sharpened(branches, singular)) for singular in (one, other)]
    pair.sort(key=lambda singular: singular.abscissa.value.mid())
    if pair[0].abscissa.value.overlaps(pair[1].abscissa.value):
        return [_joined(one, other, is_same=False)]
    return pair


def _is_within(abscissa: Ball, low: Ball, high: Ball) -> bool:
    return ball.subtract(abscissa, low).sign() != -1 and ball.subtract(high, abscissa).sign() != -1


def _joined(one: SingularPoint, other: SingularPoint, *, is_same: bool) -> SingularPoint:
    """Take two singular points that cannot be distinguished as one.

    It is proved, and all is known of it that is known of either, only if they are one place.
    """
    known = [point for point in (one, other) if _is_known(point.abscissa)]
    best = known[0] if known else min(one, other, key=lambda item: float(item.abscissa.value.rad()))
    abscissa = best.abscissa if is_same else Ball(one.abscissa.value.union(other.abscissa.value))
    return SingularPoint(
        abscissa,
        is_same,
        one.is_end or other.is_end,
        one.zeros | other.zeros if is_same else frozenset(),
        one.is_gap or other.is_gap,
        is_same and (one.is_left_out or other.is_left_out),
    )


def _is_known(abscissa: Ball) -> bool:
    return abscissa.exact is not None or abscissa.turns is not None


def coincide(branches: Branches, one: SingularPoint, other: SingularPoint) -> bool:
    """Check whether two singular points whose balls overlap are proved to be one place.

    Each ball holds one zero of what defines its singular point. If that is zero at the other
    singular point too, it is the one.
    """
    if not (one.proved and other.proved):
        return False
    if _is_known(one.abscissa) and _is_known(other.abscissa):
        return ball.subtract(one.abscissa, other.abscissa).sign() == 0
    return any(
        _is_zero_at(branches, step, a) and _has_one_zero(branches, step, a, b)
        for a, b in ((one, other), (other, one))
        if a.zeros or _is_known(a.abscissa)
        for step in b.zeros
    )


def _is_zero_at(branches: Branches, step: int, singular: SingularPoint) -> bool:
    return step in singular.zeros or (
        branches.settled(branches.of(step), singular.abscissa, singular.zeros).exact == 0
    )


def _has_one_zero(branches: Branches, step: int, one: SingularPoint, other: SingularPoint) -> bool:
    """Check whether a step that has one zero in the ball of one has no second one beside it."""
    if other.abscissa.value.contains(one.abscissa.value):
        return True
    function = branches.of(step)
    try:
        slope = branches.derivative(function)
    except (LimitError, NotHandledError):
        return False
    return slope.prove(Ball(one.abscissa.value.union(other.abscissa.value))).sign() in (-1, 1)

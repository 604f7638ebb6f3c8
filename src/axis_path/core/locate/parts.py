"""How a function is put together over an interval: smooth parts, and the spots between them.

The spots are the places where an operation may begin, end, jump or have a kink. They are zeros of
the function's edges (``Workshop.edges``), located with proof, those of inner operations first;
between two neighbouring spots the function is one smooth branch, or has no value at all. Everything
that is located later is looked for in the parts and at the spots.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from flint import arb

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.errors import LimitError, NotHandledError, StoppedError
from axis_path.core.evaluate import Edge, RealFunction, Workshop
from axis_path.core.limits import SPOTS
from axis_path.core.locate.cells import Cell, Interval, Search
from axis_path.core.locate.search import search_branch

#: Where in a part its branch is chosen: at no simple number.
_CUT = 0.4876


@dataclass(frozen=True, slots=True)
class Spot:
    """A place between two parts, or an end of the interval.

    Attributes:
        place: a ball that holds it; exact if it is known exactly.
        proved: whether exactly one such place is proved to lie in the ball.
        is_end: whether the interval ends here.
        sources: the steps of the factors that are zero here, by which it was found.
        is_gap: whether an operation has no value here.
    """

    place: Ball
    proved: bool = True
    is_end: bool = False
    sources: frozenset[int] = frozenset()
    is_gap: bool = False


@dataclass(frozen=True, slots=True)
class Part:
    """What lies between two spots.

    Attributes:
        low: the lower spot; ``high`` the upper.
        branch: the function as it is here; smooth if the anatomy is complete.
        defined: whether it has a value here; MAYBE if that is not decided.
    """

    low: Spot
    high: Spot
    branch: RealFunction
    defined: Defined

    @property
    def cell(self) -> Cell:
        """Give the part as a cell."""
        return Cell(self.low.place, self.high.place)

    @property
    def middle(self) -> Ball:
        """Give a place inside that is no simple number."""
        return _middle(self.low.place, self.high.place)


@dataclass(frozen=True, slots=True)
class Anatomy:
    """A function over an interval, taken apart.

    Attributes:
        inside: the interval, cut to the function's own domain.
        spots: in order; the first and the last are the ends of the interval.
        parts: between the spots, one less.
        complete: whether every rough place is proved to be one of the spots.
        note: what is not certain, in words.
    """

    function: RealFunction
    workshop: Workshop
    inside: Interval
    spots: tuple[Spot, ...]
    parts: tuple[Part, ...]
    complete: bool
    note: str = ""

    def beside(self) -> Iterator[tuple[Part | None, Spot, Part | None]]:
        """Go through the spots with the parts before and after them."""
        for k, spot in enumerate(self.spots):
            before = self.parts[k - 1] if k else None
            after = self.parts[k] if k < len(self.parts) else None
            yield before, spot, after

    def value_at(self, spot: Spot) -> Ball:
        """Give the function's own value at a spot, without one outside its domain."""
        value = self.function.prove_within(spot.place)
        if value.defined is Defined.MAYBE and spot.is_gap:
            # The place is not known to the last digit, but that an operation has no value there is.
            return ball.undefined(value.reason)
        if value.is_defined and value.exact is None and not value.excludes_zero():
            # A factor by whose zero the spot was found is exactly zero at it.
            factors = self.workshop.function.expression.factors(through_pieces=True)
            if any(factor.step in spot.sources for factor in factors):
                return ball.from_fraction(0)
        return value


def take_apart(function: RealFunction, inside: Interval) -> Anatomy:
    """Take a function apart over an interval that lies in its domain.

    Called inside ``precision``.
    """
    workshop = Workshop(function)
    spots = [Spot(inside.low, is_end=True), Spot(inside.high, is_end=True)]
    for value in function.without:
        spots = _with_spots(spots, [Spot(value)])
    notes: list[str] = []
    complete = workshop.is_known
    if not complete:
        notes.append("Where this function may jump or have gaps is not known here.")
    for edge in workshop.edges:
        more, sure = _spots_of(workshop, edge, spots)
        complete = complete and sure
        spots = _with_spots(spots, more)
        if len(spots) > SPOTS.value:
            # Those nearest to the middle of the crowd are the ones that would go on for ever.
            spots = [*spots[: SPOTS.value - 1], spots[-1]]
            complete = False
            notes.append(f"There are more than {SPOTS.value:,} places where it may break or bend.")
            break
    if not complete and not notes:
        notes.append("Whether there are more breaks or kinks could not be decided.")
    try:
        parts = [_part(workshop, low, high, is_known=complete) for low, high in pairwise(spots)]
    except StoppedError:
        # What is searched next is stopped as well, and tells what is seen.
        complete = False
        parts = [_part(workshop, low, high, is_known=False) for low, high in pairwise(spots)]
    return Anatomy(
        function, workshop, inside, tuple(spots), tuple(parts), complete, " ".join(notes)
    )


def _middle(low: Ball, high: Ball) -> Ball:
    middle = low.value.mid() + (high.value.mid() - low.value.mid()) * arb(_CUT)
    near_by = arb(float(middle))
    is_between = bool(near_by > low.value) and bool(near_by < high.value)
    return Ball(near_by if is_between else middle.mid())


def _part(workshop: Workshop, low: Spot, high: Spot, *, is_known: bool) -> Part:
    if not is_known:
        # Where a spot may be missing the function need not be one branch all along.
        return Part(low, high, workshop.function, Defined.MAYBE)
    at = _middle(low.place, high.place)
    branch = workshop.branch(workshop.function, at)
    return Part(low, high, branch, branch.prove(at).defined)


def _spots_of(workshop: Workshop, edge: Edge, spots: list[Spot]) -> tuple[list[Spot], bool]:
    """Give the zeros of an edge between the spots that are known, and whether these are all."""
    found: list[Spot] = []
    sure = True
    branches: dict[int, tuple[RealFunction, list[Cell]]] = {}
    for low, high in pairwise(spots):
        at = _middle(low.place, high.place)
        branch = workshop.branch(edge.function, at)
        if branch.prove(at).defined is not Defined.NO:
            kept = branches.setdefault(branch.expression.step, (branch, []))
            kept[1].append(Cell(low.place, high.place))
    for branch, cells in branches.values():
        search = Search()
        try:
            search_branch(branch, cells, search, is_smooth=sure)
        except (LimitError, NotHandledError):
            sure = False
            continue
        sure = sure and not search.undecided
        for root in search.roots:
            sources = frozenset() if root.source is None else frozenset({root.source})
            found.append(Spot(root.place, root.proved, sources=sources, is_gap=edge.is_gap))
    return found, sure


def _with_spots(spots: list[Spot], more: list[Spot]) -> list[Spot]:
    """Put spots in order; one that lies at another is the same, and only those inside count."""
    low, high = spots[0], spots[-1]
    kept = [spot for spot in more if _is_within(spot.place, low.place, high.place)]
    merged: list[Spot] = []
    for spot in sorted([*spots, *kept], key=lambda each: float(each.place.value.mid())):
        if merged and merged[-1].place.value.overlaps(spot.place.value):
            merged[-1] = _same(merged[-1], spot)
        else:
            merged.append(spot)
    return merged


def _is_within(place: Ball, low: Ball, high: Ball) -> bool:
    return ball.subtract(place, low).sign() != -1 and ball.subtract(high, place).sign() != -1


def _same(one: Spot, other: Spot) -> Spot:
    """Take two spots that cannot be told apart as one, known as well as the better."""
    exact = [
        each
        for each in (one, other)
        if each.place.exact is not None or each.place.turns is not None
    ]
    best = exact[0] if exact else min(one, other, key=lambda each: float(each.place.value.rad()))
    differ = len(exact) == 2 and ball.subtract(one.place, other.place).sign() != 0
    place = Ball(one.place.value.union(other.place.value)) if differ else best.place
    return Spot(
        place,
        one.proved and other.proved and not differ,
        one.is_end or other.is_end,
        one.sources | other.sources,
        one.is_gap or other.is_gap,
    )

"""All zeros of a function on an interval, with proof.

The function is taken apart into smooth parts (``parts.py``); each part is searched as what it is
there (``search.py``), and every singular point between them is looked at by itself. So a zero at
an end, at a kink or at a jump is distinguished from a hole, where there is none.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.errors import LimitError, NotHandledError, StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import LOCATE_CELLS, MOST_FINDINGS
from axis_path.core.locate.algebra.exact import written
from axis_path.core.locate.cells import Interval, Root, Search
from axis_path.core.locate.finding import Findings
from axis_path.core.locate.search.parts import (
    Anatomy,
    Part,
    SingularPoint,
    coincide,
    sharpened,
    take_apart,
)
from axis_path.core.locate.search.sampled import sampled_zeros
from axis_path.core.locate.search.search import search_branch
from axis_path.core.locate.search.stopped import UNSURE, located_or_sampled
from axis_path.core.locate.search.verdict import ZEROS, Verdict, Words, judge, make_finding

SEARCH_BITS = 128
#: A zero that may be a singular point is narrowed by so many halvings to tell it from it.
_APART = 100
#: It is narrowed at least to this part of itself.
_NARROW = 2.0**-60


def find_zeros(
    function: RealFunction,
    interval: Interval,
    *,
    max_cells: int = LOCATE_CELLS.value,
    words: Words = ZEROS,
) -> Findings:
    """Locate all zeros of a function on an interval.

    Args:
        function: its own domain is respected.
        interval: where to search.
        max_cells: how many cells may be looked at for each factor.
        words: what they are called in sentences.
    """
    return located_within(function, interval, lambda item: _zeros(item, max_cells, words))


def located_within(
    function: RealFunction, interval: Interval, look: Callable[[Anatomy], Findings]
) -> Findings:
    """Look at a function, taken apart over an interval, as far as that lies in its domain."""
    with precision(SEARCH_BITS):
        inside = clip(function, interval)
        if inside is None:
            return Findings((), complete=True, note="The interval lies outside the domain.")
        return searched(lambda: look(take_apart(function, inside)))


def searched(search: Callable[[], Findings]) -> Findings:
    """Carry a search out; one that is too large, or cannot be done, says so and finds nothing."""
    try:
        return search()
    except StoppedError:
        raise
    except (LimitError, NotHandledError) as err:
        return Findings((), complete=False, note=err.message)


def _zeros(anatomy: Anatomy, max_cells: int, words: Words) -> Findings:
    verdict = judged_roots(anatomy, words, max_cells)
    items = tuple(map(make_finding, verdict.roots))
    return Findings(items, verdict.complete, verdict.note, along=verdict.along)


def judged_roots(
    anatomy: Anatomy,
    words: Words,
    max_cells: int = LOCATE_CELLS.value,
    most: int = MOST_FINDINGS.value,
) -> Verdict:
    """Search all parts and singular points of a function, and say what is to be said of it.

    If the search is stopped, it is said of what was found until then, none of it proved.

    Raises:
        StoppedError: the search was stopped before there was anything to report.
    """
    search = Search()
    try:
        find_roots(anatomy, max_cells, search)
    except StoppedError as err:
        roots, note = located_or_sampled(
            err,
            _distinct(anatomy, search.roots),
            lambda: sampled_zeros(anatomy.function, anatomy.inside),
        )
        unsure = (replace(root, proved=False, note=root.note or UNSURE) for root in roots[:most])
        return Verdict(tuple(unsure), complete=False, note=note, is_stopped=True)
    search.is_crowded = search.is_crowded or len(search.roots) > most
    search.roots = search.roots[:most]
    return judge(anatomy, search, words)


def clip(function: RealFunction, interval: Interval) -> Interval | None:
    """Cut the interval to the function's own domain; None if nothing is left."""
    low, low_closed = interval.low, interval.low_closed
    high, high_closed = interval.high, interval.high_closed
    if function.low is not None and ball.subtract(function.low.value, low).sign() in (0, 1):
        same = ball.subtract(function.low.value, low).sign() == 0
        low, low_closed = function.low.value, function.low.closed and (not same or low_closed)
    if function.high is not None and ball.subtract(high, function.high.value).sign() in (0, 1):
        same = ball.subtract(high, function.high.value).sign() == 0
        high, high_closed = function.high.value, function.high.closed and (not same or high_closed)
    if ball.subtract(high, low).sign() != 1:
        return None
    low_goes_on = low is interval.low and interval.low_goes_on
    high_goes_on = high is interval.high and interval.high_goes_on
    return Interval(
        low, high, low_closed, high_closed, low_goes_on, high_goes_on,
        low is interval.low and interval.low_is_edge,
        high is interval.high and interval.high_is_edge,
    )  # fmt: skip


def find_roots(
    anatomy: Anatomy, max_cells: int = LOCATE_CELLS.value, search: Search | None = None
) -> Search:
    """Search all parts and singular points of a function; the roots come out in order, each once.

    Args:
        anatomy: what is searched.
        max_cells: how many cells may be halved for each factor.
        search: takes what is found, so that it is not lost if the search is stopped.
    """
    search = search or Search()
    branches: dict[int, list[Part]] = {}
    for part in anatomy.parts:
        if part.defined is not Defined.NO:
            branches.setdefault(part.branch.expression.step, []).append(part)
    for parts in branches.values():
        search_branch(
            parts[0].branch, [part.cell for part in parts], search,
            is_smooth=anatomy.complete, max_cells=max_cells,
        )  # fmt: skip
    inner = [_checked(anatomy, root) for root in search.roots]
    roots = [root for root in inner if root is not None] + _at_singular_points(anatomy, search)
    search.roots = _distinct(anatomy, roots)
    return search


def _at_singular_points(anatomy: Anatomy, search: Search) -> list[Root]:
    """Return the singular points at which the function is zero."""
    roots: list[Root] = []
    for before, singular, after in anatomy.neighbours():
        value = anatomy.value_at(singular)
        if value.defined is Defined.NO or value.excludes_zero() or not belongs(anatomy, singular):
            continue
        if value.exact is None or not value.is_defined:
            note = "whether it is zero right here could not be decided"
            roots.append(Root(singular.abscissa, proved=False, note=note))
        elif value.exact == 0:
            same = [root for root in search.roots if _overlap(root, singular)]
            # Where another branch begins the function has no order of its own.
            is_smooth = (
                before is None
                or after is None
                or before.branch.expression is after.branch.expression
            )
            is_one = is_smooth and len({root.order for root in same}) == 1
            order = same[0].order if is_one else None
            surd = same[0].surd if same else None
            roots.append(Root(singular.abscissa, proved=singular.proved, order=order, surd=surd))
    return roots


def belongs(anatomy: Anatomy, singular: SingularPoint) -> bool:
    """Check whether a singular point belongs to the interval: an open end does not."""
    inside = anatomy.inside
    return not (
        (singular is anatomy.singular_points[0] and not inside.low_closed)
        or (singular is anatomy.singular_points[-1] and not inside.high_closed)
    )


def _overlap(root: Root, singular: SingularPoint) -> bool:
    return bool(root.abscissa.value.overlaps(singular.abscissa.value))


def _checked(anatomy: Anatomy, root: Root) -> Root | None:
    """Keep a zero of a branch if it lies in the interval and is one of the function."""
    inside, function = anatomy.inside, anatomy.function
    low = ball.subtract(root.abscissa, inside.low).sign()
    high = ball.subtract(inside.high, root.abscissa).sign()
    if -1 in (low, high):
        return None
    singular = next(
        (
            singular_point
            for singular_point in anatomy.singular_points
            if _overlap(root, singular_point)
        ),
        None,
    )
    if singular is not None and root.source is not None and root.source not in singular.zeros:
        source = anatomy.branches.of(root.source)
        at_singular = anatomy.branches.settled(source, singular.abscissa, singular.zeros).sign()
        if at_singular in (-1, 1):
            return _apart(anatomy, root, singular, source, at_singular)
    if singular is None and anatomy.complete:
        return root
    if singular is not None:
        value = anatomy.value_at(singular)
        if (
            root.source in singular.zeros
            or value.exact is not None
            or not belongs(anatomy, singular)
        ):
            # It is the singular point itself, which is looked at by itself.
            return None
    value = function.prove(root.abscissa) if singular is None else value
    if value.defined is Defined.NO or (value.is_defined and value.excludes_zero()):
        # It lies in a gap of the domain, or in another piece than the factor.
        return None
    if value.defined is Defined.YES and not value.continuous and root.abscissa.exact is None:
        note = "whether it is a zero of the piece that holds here is not proved"
        return replace(root, proved=False, note=note)
    if value.defined is Defined.MAYBE:
        note = f"whether there is a value here is not proved ({value.reason})"
        return replace(root, proved=False, note=note)
    if low is None or high is None:
        return replace(root, proved=False, note="whether it lies inside the interval is not proved")
    return root


def _apart(
    anatomy: Anatomy, root: Root, singular: SingularPoint, source: RealFunction, at_singular: int
) -> Root | None:
    """Narrow a zero, by halving, until it is clear of a singular point that it overlaps.

    Args:
        anatomy: of what is searched.
        root: a zero of a factor.
        singular: it overlaps the zero.
        source: the factor.
        at_singular: its sign at the singular point.

    Returns:
        None if another branch holds on that side of the singular point; if it comes too close to
        the singular point to be distinguished from it, a zero that is not proved.
    """
    abscissa = sharpened(anatomy.branches, singular).value
    for side, far in ((-1, root.abscissa.value.lower()), (1, root.abscissa.value.upper())):
        near = abscissa.mid()
        if source.prove(Ball(far)).sign() != -at_singular:
            continue
        for _ in range(_APART):
            middle = ((near + far) / 2).mid()
            sign = source.prove(Ball(middle)).sign()
            if sign not in (-1, 1):
                break
            near, far = (middle, far) if sign == at_singular else (near, middle)
            between = near.union(far)
            if not between.overlaps(abscissa) and bool(between.rad() <= abs(between) * _NARROW):
                return (
                    replace(root, abscissa=Ball(between))
                    if _is_adjacent(anatomy, root, singular, side)
                    else None
                )
    note = "whether this zero lies here or just beside this place could not be decided"
    return replace(root, proved=False, note=note)


def _is_adjacent(anatomy: Anatomy, root: Root, singular: SingularPoint, side: int) -> bool:
    """Check whether the branch of a zero is the one that holds on a side of a singular point."""
    for part in anatomy.parts:
        if singular is (part.low if side > 0 else part.high):
            factors = part.branch.expression.factors(through_pieces=True)
            return root.source in {
                part.branch.expression.step,
                *(factor.step for factor in factors),
            }
    return False


def _distinct(anatomy: Anatomy, roots: list[Root]) -> list[Root]:
    """Return each place once: two factors, or two neighbouring cells, may find the same zero."""
    distinct: list[Root] = []
    for root in sorted(roots, key=lambda item: item.abscissa.value.mid()):
        if not distinct or not distinct[-1].abscissa.value.overlaps(root.abscissa.value):
            distinct.append(root)
            continue
        other = distinct[-1]
        if written(root.abscissa) is not None and written(root.abscissa) == written(other.abscissa):
            distinct[-1] = _both(root if root.proved else other, root, other)
            continue
        if coincide(anatomy.branches, _as_singular_point(root), _as_singular_point(other)):
            narrow = min(root, other, key=lambda item: float(item.abscissa.value.rad()))
            distinct[-1] = _both(narrow, root, other)
            continue
        note = "two zeros may lie here, too close to be separated"
        wide = Ball(other.abscissa.value.union(root.abscissa.value))
        distinct[-1] = Root(wide, proved=False, note=note)
    return distinct


def _as_singular_point(root: Root) -> SingularPoint:
    return SingularPoint(root.abscissa, root.proved, zeros=root.zeros)


def _both(root: Root, one: Root, other: Root) -> Root:
    """Take two roots at one place as one; each has the order of the whole function, if any."""
    orders = {root.order for root in (one, other) if root.order is not None}
    is_at_singular_point = any(root.source is None and root.order is None for root in (one, other))
    order = orders.pop() if len(orders) == 1 and not is_at_singular_point else None
    return replace(root, order=order, zeros=one.zeros | other.zeros)

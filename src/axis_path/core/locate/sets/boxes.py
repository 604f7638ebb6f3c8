"""Several equations in as many unknowns in a box: all solutions, each proved to be single.

Boxes are left out where an enclosure of an equation excludes zero, narrowed by Krawczyk's operator,
and cut where that does not help. Where the operator maps a box into its own inside, the box
holds exactly one solution; a solution on the border of boxes is proved in a box around it.

Source: Krawczyk 1969; Neumaier, *Interval Methods for Systems of Equations*, chapter 5; Rump,
"Verification methods", 2010, section 13, for the boxes around an approximation.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.deadline import check
from axis_path.core.errors import LimitError
from axis_path.core.evaluate import Expression
from axis_path.core.evaluate.backends.enclosed import enclose_columns
from axis_path.core.limits import SET_BOXES

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_ROUNDS = 400
#: Boxes narrower than this, relative to their place, are not cut any more.
_NARROWEST = 1e-9
#: More than what a row of products of floats may lose, beside the sizes that take part.
_LOSS = 256 * 2.0**-52
#: The deepest boxes are looked at first, so many at a time.
_BATCH = 512
#: So many narrow boxes that could not be settled are more than any number of single solutions has.
_MOST_UNSURE = 200


@dataclass(frozen=True, slots=True)
class BoxSystem:
    """Functions that are to be zero together.

    Attributes:
        gaps: n expressions of the unknowns, which are inputs.
        slopes: the derivative of each by each unknown, row by row.
        names: the inputs of the unknowns, n.
        parameters: the values of the sliders.
        known: what further inputs lie between.
    """

    gaps: tuple[Expression, ...]
    slopes: tuple[Expression, ...]
    names: tuple[str, ...]
    parameters: Parameters
    known: Mapping[str, tuple[float, float]]

    @classmethod
    def of(
        cls,
        gaps: Sequence[Expression],
        names: Sequence[str],
        parameters: Parameters,
        known: Mapping[str, tuple[float, float]],
    ) -> BoxSystem:
        """Return a system with its slopes.

        Raises:
            NotHandledError: a derivative is not known.
        """
        slopes = tuple(gap.derivative(name) for gap in gaps for name in names)
        return cls(tuple(gaps), slopes, tuple(names), parameters, known)

    def values(self, low: Floats, high: Floats) -> list[Enclosure]:
        """Enclose the functions over k boxes; ``low``, ``high``: (k, n) floats."""
        return self._enclosed(self.gaps, low, high)

    def matrices(self, low: Floats, high: Floats) -> list[Enclosure]:
        """Enclose the derivatives over k boxes, row by row."""
        return self._enclosed(self.slopes, low, high)

    def _enclosed(
        self, expressions: tuple[Expression, ...], low: Floats, high: Floats
    ) -> list[Enclosure]:  # fmt: skip
        first, *others = expressions
        inputs = {name: (low[:, k], high[:, k]) for k, name in enumerate(self.names)}
        for name, (least, most) in self.known.items():
            inputs[name] = (np.full(len(low), least), np.full(len(low), most))
        program = first.together(*others)
        zero = np.zeros(len(low))
        enclosures = enclose_columns(
            program, (zero, zero), self.parameters, {k: inputs[k] for k in program.inputs}
        )
        return [_filled(enclosure, len(low)) for enclosure in enclosures]


def _filled(enclosure: Enclosure, count: int) -> Enclosure:
    """Return an enclosure whose fields all have one entry for each box."""
    low, high = (np.broadcast_to(part, (count,)) for part in (enclosure.low, enclosure.high))
    partial, nowhere, broken = (
        np.broadcast_to(np.asarray(part, dtype=np.bool_), (count,))
        for part in (enclosure.partial, enclosure.nowhere, enclosure.broken)
    )
    return Enclosure(low, high, partial, nowhere, broken)


@dataclass(frozen=True, slots=True)
class BoxSolution:
    """One solution: between which floats each unknown lies.

    Attributes:
        low: n floats; ``high`` likewise.
        proved: whether exactly one solution is proved to lie there.
    """

    low: Floats
    high: Floats
    proved: bool


@dataclass(frozen=True, slots=True)
class _Step:
    """What Krawczyk's operator makes of k boxes.

    Attributes:
        low: the new bounds, (k, n); ``high`` likewise.
        usable: whether it has a meaning.
        is_single: whether a box holds one solution at the most.
    """

    low: Floats
    high: Floats
    usable: Flags
    is_single: Flags


def solve_in_box(
    system: BoxSystem, low: Floats, high: Floats
) -> tuple[list[BoxSolution], bool]:  # fmt: skip
    """Find all solutions in a box, and whether it is proved that these are all.

    Args:
        system: what is zero.
        low: the least values, (n,).
        high: the greatest.

    Raises:
        LimitError: there are too many boxes to look at.
        StoppedError: it took too long.
    """
    proved: list[BoxSolution] = []
    unsure: list[BoxSolution] = []
    waiting = (low[None, :].copy(), high[None, :].copy())
    looked_at = 0
    for _ in range(_ROUNDS):
        if not len(waiting[0]):
            break
        check()
        batch = waiting[0][-_BATCH:], waiting[1][-_BATCH:]
        rest = waiting[0][:-_BATCH], waiting[1][:-_BATCH]
        looked_at += len(batch[0])
        if looked_at > SET_BOXES.value:
            raise LimitError(
                "These equations take too many boxes to solve: search smaller ranges of the "
                "unknowns."
            )
        if len(unsure) > _MOST_UNSURE:
            # They lie along a curve of solutions, or around one that counts several times.
            return _distinct(system, proved), False
        batch = _covered_left_out(_not_excluded(system, *batch), proved)
        parts = _narrowed(system, batch, proved, unsure)
        waiting = (np.vstack([rest[0], parts[0]]), np.vstack([rest[1], parts[1]]))
    else:
        unsure += [
            BoxSolution(a, b, proved=False) for a, b in zip(*waiting, strict=True)
        ]  # fmt: skip
    left = [box for box in _joined(unsure) if not any(_touch(box, one) for one in proved)]
    settled = [_around(system, (box.low + box.high) / 2) for box in left]
    proved += [box for box in settled if box is not None]
    left = [box for box, one in zip(left, settled, strict=True) if one is None]
    return _distinct(system, proved) + left, not left


def _not_excluded(system: BoxSystem, low: Floats, high: Floats) -> tuple[Floats, Floats]:
    if not len(low):
        return low, high
    stays = np.ones(len(low), dtype=np.bool_)
    for values in system.values(low, high):
        stays &= ~((values.low > 0) | (values.high < 0) | values.nowhere)
    return low[stays], high[stays]


def _covered_left_out(
    boxes: tuple[Floats, Floats], proved: list[BoxSolution]
) -> tuple[Floats, Floats]:  # fmt: skip
    """Leave out the boxes in which a solution is alone that was proved already."""
    low, high = boxes
    stays = np.ones(len(low), dtype=np.bool_)
    for one in proved:
        stays &= ~((low >= one.low) & (high <= one.high)).all(axis=1)
    return low[stays], high[stays]


def _narrowed(
    system: BoxSystem,
    boxes: tuple[Floats, Floats],
    proved: list[BoxSolution],
    unsure: list[BoxSolution],
) -> tuple[Floats, Floats]:
    """Narrow boxes and cut what does not get narrow; solutions go to the lists."""
    low, high = boxes
    if not len(low):
        return boxes
    step = _krawczyk(system, low, high)
    new_low = np.where(step.usable[:, None], np.maximum(low, step.low), low)
    new_high = np.where(step.usable[:, None], np.minimum(high, step.high), high)
    empty: Flags = np.asarray((new_low > new_high).any(axis=1))
    inside: Flags = step.usable & ~empty & ((step.low > low) & (step.high < high)).all(axis=1)
    for k in np.flatnonzero(inside):
        proved.append(_narrowest(system, _finished(system, new_low[k], new_high[k])))
    single = step.is_single & ~empty & ~inside
    for k in np.flatnonzero(single):
        # One at the most: either it is proved around where the operator leads, or looked for on.
        found = _around(system, (new_low[k] + new_high[k]) / 2)
        if found is not None and _overlaps(found, new_low[k], new_high[k]):
            proved.append(found)
            empty[k] = True
    stays = ~(empty | inside)
    low, high = new_low[stays], new_high[stays]
    narrow = _is_narrow(low, high)
    unsure += [
        BoxSolution(a, b, proved=False)
        for a, b in zip(low[narrow], high[narrow], strict=True)
    ]  # fmt: skip
    return _halved(low[~narrow], high[~narrow])


def _krawczyk(system: BoxSystem, low: Floats, high: Floats) -> _Step:
    """Apply the operator m - Y f(m) + (1 - Y J(X)) (X - m) to k boxes, rounded outward."""
    count, n = low.shape
    middle = (low + high) / 2
    radius = np.maximum(high - middle, middle - low)
    values, slopes = system.values(middle, middle), system.matrices(low, high)
    usable = np.ones(count, dtype=np.bool_)
    for part in (*values, *slopes):
        usable &= ~(part.partial | part.broken | part.nowhere)
        usable &= np.isfinite(part.low) & np.isfinite(part.high)
    with np.errstate(all="ignore"):
        f_mid = np.stack([(v.low + v.high) / 2 for v in values], axis=1)
        f_rad = np.stack([(v.high - v.low) / 2 for v in values], axis=1)
        j_mid = np.stack([(s.low + s.high) / 2 for s in slopes], axis=1).reshape(count, n, n)
        j_rad = np.stack([(s.high - s.low) / 2 for s in slopes], axis=1).reshape(count, n, n)
        inverse = _inverses(np.where(usable[:, None, None], j_mid, np.eye(n)))
        usable &= np.isfinite(inverse).all(axis=(1, 2))
        inverse = np.where(usable[:, None, None], inverse, np.eye(n))
        size = np.abs(inverse)
        product = inverse @ j_mid
        rest = np.abs(np.eye(n) - product) + size @ j_rad * (1 + _LOSS)
        rest += _LOSS * (np.eye(n) + size @ np.abs(j_mid))
        shift = np.einsum("kij,kj->ki", inverse, f_mid)
        reach = np.einsum("kij,kj->ki", size, f_rad) + np.einsum("kij,kj->ki", rest, radius)
        reach += _LOSS * (np.einsum("kij,kj->ki", size, np.abs(f_mid)) + np.abs(middle) + reach)
        norms = rest.sum(axis=2).max(axis=1)
    usable &= np.isfinite(shift).all(axis=1) & np.isfinite(reach).all(axis=1)
    return _Step(middle - shift - reach, middle - shift + reach, usable, usable & (norms < 1))


def _inverses(matrices: Floats) -> Floats:
    """Return the inverse of each matrix; NaN where there is none."""
    try:
        return np.asarray(np.linalg.inv(matrices), dtype=np.float64)
    except np.linalg.LinAlgError:
        made = np.full_like(matrices, np.nan)
        for k, matrix in enumerate(matrices):
            if np.linalg.matrix_rank(matrix) == len(matrix):
                made[k] = np.linalg.inv(matrix)
        return made


def _finished(system: BoxSystem, low: Floats, high: Floats) -> BoxSolution:
    """Narrow a box that holds exactly one solution, as far as floats go."""
    for _ in range(30):
        step = _krawczyk(system, low[None], high[None])
        if not step.usable[0]:
            break
        new_low, new_high = np.maximum(low, step.low[0]), np.minimum(high, step.high[0])
        if (new_low > new_high).any() or not (new_high - new_low < 0.7 * (high - low)).any():
            break
        low, high = new_low, new_high
    return BoxSolution(low, high, proved=True)


def _narrowest(system: BoxSystem, solution: BoxSolution) -> BoxSolution:
    """Return a narrower box around a solution where the operator shrinks its own too slowly."""
    if _is_narrow(solution.low[None], solution.high[None])[0]:
        return solution
    found = _around(system, (solution.low + solution.high) / 2)
    if found is None or not ((solution.low <= found.low) & (found.high <= solution.high)).all():
        return solution
    return found


def _around(system: BoxSystem, start: Floats) -> BoxSolution | None:
    """Prove a solution in a box around where Newton's method leads from a place; None if not."""
    point = start.copy()
    for _ in range(40):
        values = system.values(point[None], point[None])
        slopes = system.matrices(point[None], point[None])
        f = np.array([(v.low[0] + v.high[0]) / 2 for v in values])
        matrix = np.array([(s.low[0] + s.high[0]) / 2 for s in slopes]).reshape(len(f), len(f))
        if not (np.isfinite(f).all() and np.isfinite(matrix).all()):
            return None
        try:
            move = np.linalg.solve(matrix, f)
        except np.linalg.LinAlgError:
            return None
        point = point - move
        if not np.isfinite(point).all():
            return None
        if (np.abs(move) <= 1e-14 * np.maximum(np.abs(point), 1e-300)).all():
            break
    for room in (1e-13, 1e-10, 1e-7):
        radius = room * np.maximum(np.abs(point), np.abs(point).max() * 1e-6 + 1e-290)
        low, high = point - radius, point + radius
        step = _krawczyk(system, low[None], high[None])
        if step.usable[0] and ((step.low[0] > low) & (step.high[0] < high)).all():
            return _finished(system, np.maximum(low, step.low[0]), np.minimum(high, step.high[0]))
    return None


def _is_narrow(low: Floats, high: Floats) -> Flags:
    scale = np.maximum(np.maximum(np.abs(low), np.abs(high)), 1e-6)
    narrow: Flags = np.asarray((high - low <= _NARROWEST * scale).all(axis=1))
    return narrow


def _halved(low: Floats, high: Floats) -> tuple[Floats, Floats]:
    """Cut every box across its longest side, beside its size there; off the middle."""
    if not len(low):
        return low, high
    width = (high - low) / np.maximum(np.maximum(np.abs(low), np.abs(high)), 1e-3)
    rows = np.arange(len(low))
    side = width.argmax(axis=1)
    cut = low[rows, side] + 0.4876 * (high - low)[rows, side]
    upper, lower = low.copy(), high.copy()
    upper[rows, side], lower[rows, side] = cut, cut
    return np.vstack([low, upper]), np.vstack([lower, high])


def _touch(one: BoxSolution, other: BoxSolution) -> bool:
    room = 1e-7 * np.maximum(np.maximum(np.abs(one.high), np.abs(other.high)), 1e-6)
    return bool(((one.low <= other.high + room) & (other.low <= one.high + room)).all())


def _overlaps(one: BoxSolution, low: Floats, high: Floats) -> bool:
    return bool(((one.low <= high) & (low <= one.high)).all())


def _distinct(system: BoxSystem, solutions: list[BoxSolution]) -> list[BoxSolution]:
    """Return proved solutions once each: boxes that overlap mostly hold the same one."""
    distinct: list[BoxSolution] = []
    for solution in solutions:
        near = [one for one in distinct if _overlaps(solution, one.low, one.high)]
        if not any(_hold_the_same(system, solution, one) for one in near):
            distinct.append(solution)
    return distinct


def _hold_the_same(system: BoxSystem, one: BoxSolution, other: BoxSolution) -> bool:
    """Check whether there is one solution at the most in a box around both."""
    low, high = np.minimum(one.low, other.low), np.maximum(one.high, other.high)
    return bool(_krawczyk(system, low[None], high[None]).is_single[0])


def _joined(boxes: list[BoxSolution]) -> list[BoxSolution]:
    """Return clusters of narrow boxes as one box each."""
    clusters: list[BoxSolution] = []
    for box in boxes:
        for k, cluster in enumerate(clusters):
            if _touch(box, cluster):
                low, high = np.minimum(box.low, cluster.low), np.maximum(box.high, cluster.high)
                clusters[k] = BoxSolution(low, high, proved=False)
                break
        else:
            clusters.append(box)
    return clusters

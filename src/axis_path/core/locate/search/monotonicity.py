"""How the smooth parts of a function run: where a derivative is zero, flat, or of one sign."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from flint import arb

from axis_path.core.arithmetic import Ball
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import LOCATE_CELLS
from axis_path.core.locate.cells import Cell, Root, Search, is_tiny, merged_cells
from axis_path.core.locate.finding import Finding
from axis_path.core.locate.search.parts import Anatomy, Part
from axis_path.core.locate.search.search import search_branch
from axis_path.core.locate.search.verdict import Words, open_notes


@dataclass(frozen=True, slots=True)
class Monotonicity:
    """How a part runs: where its slope is zero, and where it is flat all along."""

    part: Part
    slope: RealFunction
    turns: list[Root]
    flats: list[Cell]
    search: Search

    @property
    def is_complete(self) -> bool:
        """Check whether all its turns are known."""
        return not self.search.undecided and not self.search.is_crowded


def monotonicity_of(anatomy: Anatomy, part: Part, order: int) -> Monotonicity:
    """Find where a derivative of a part is zero."""
    slope = part.branch
    for _ in range(order):
        slope = anatomy.branches.derivative(slope)
    search = Search()
    search_branch(
        slope, [part.cell], search, is_smooth=anatomy.complete, max_cells=LOCATE_CELLS.value
    )
    ends = [end.abscissa.value for end in (part.low, part.high)]
    turns = [r for r in search.roots if not any(r.abscissa.value.overlaps(end) for end in ends)]
    turns = sorted(turns, key=lambda root: root.abscissa.value.mid())
    distinct: list[Root] = []
    for turn in turns:
        if not distinct or not distinct[-1].abscissa.value.overlaps(turn.abscissa.value):
            distinct.append(turn)
    flats = merged_cells(search.constant)
    if not search.is_crowded:
        # What is undecided right at an end is settled by the limits there.
        search.undecided = [
            cell
            for cell in search.undecided
            if not (is_tiny(cell) and any(cell.hull().value.overlaps(end) for end in ends))
        ]
    return Monotonicity(part, slope, distinct, flats, search)


def open_monotonicity_notes(
    anatomy: Anatomy, monotonicities: Iterable[Monotonicity], items: list[Finding], words: Words
) -> list[str]:
    """Describe what the searches of all parts together have left open."""
    together = Search()
    for monotonicity in monotonicities:
        together.undecided += monotonicity.search.undecided
        together.is_crowded = together.is_crowded or monotonicity.search.is_crowded
    return open_notes(anatomy, together, [item.bracket for item in items], words)


def slope_near(monotonicity: Monotonicity, turn: Root, side: int) -> int | None:
    """Return the sign of the slope beside a turn, up to the next one."""
    abscissae = [
        monotonicity.part.low.abscissa,
        *(turn.abscissa for turn in monotonicity.turns),
        monotonicity.part.high.abscissa,
    ]
    at = 1 + monotonicity.turns.index(turn)
    other = abscissae[at + side].value
    for part in (0.5, 0.01):
        middle = turn.abscissa.value + (other - turn.abscissa.value) * part
        sign = monotonicity.slope.prove(Ball(middle.mid())).sign()
        if sign in (-1, 1):
            return sign
    return None


def leaving(monotonicity: Monotonicity | None, side: int) -> int | None:
    """Return how a part runs next to one, as it is left to that side: 1 up, -1 down, 0 level."""
    if monotonicity is None:
        return None
    low, high = monotonicity.part.low.abscissa.value, monotonicity.part.high.abscissa.value
    end = low if side == 1 else high
    if any(cell.hull().value.overlaps(end) for cell in monotonicity.flats):
        return 0
    turns = [turn.abscissa.value for turn in monotonicity.turns]
    flats = [e.value for cell in monotonicity.flats for e in (cell.low, cell.high)]
    inner = sorted([*turns, *flats], key=lambda value: value.mid())
    other = (inner[0] if side == 1 else inner[-1]) if inner else (high if side == 1 else low)
    for part in (0.4876, 0.01, 1e-6):
        middle = end + (other - end) * arb(part)
        sign = monotonicity.slope.prove(Ball(middle.mid())).sign()
        if sign in (-1, 1):
            return sign * side
    return None

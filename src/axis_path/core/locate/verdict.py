"""From what a search found to findings, with the judgement whether they are all."""

from __future__ import annotations

from itertools import pairwise

from flint import arb

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.evaluate import RealFunction, digits_of
from axis_path.core.locate.cells import (
    Cell,
    Interval,
    Root,
    Search,
    float_above,
    float_below,
    is_tiny,
    merged_cells,
)
from axis_path.core.locate.exact import written
from axis_path.core.locate.finding import Finding, Findings, Kind

_DIGITS = 10


def make_finding(root: Root) -> Finding:
    """Give a root as a finding, with as many digits as are sure."""
    value = root.place.value
    low, high = float_below(value.lower()), float_above(value.upper())
    text = ""
    for digits in range(_DIGITS, 0, -1):
        found = digits_of(root.place, digits)
        if found is not None:
            text = found
            break
    middle = float(value.mid())
    text = text or f"{middle:.3g} ± {float(value.rad()):.1g}".replace("-", "−")
    return Finding(
        Kind.ZERO, middle + 0.0, 0.0, (low, high), root.proved, written(root.place), text, root.note
    )


def judge(
    function: RealFunction, inside: Interval, findings: tuple[Finding, ...], search: Search
) -> Findings:
    """Say whether a search is complete, and what is not certain."""
    width = float((inside.high.value - inside.low.value).mid())
    notes: list[str] = []
    stretches = _stretches(function, search.constant)
    for cell in stretches[:3]:
        between = _between(cell, function.variable, width)
        notes.append(f"It is zero all along {between} (its ends are not exact).")
    brackets = [finding.bracket for finding in findings]
    undecided = [cell for cell in search.undecided if not _holds_any(cell, brackets)]
    if len(undecided) > 3 or any(not is_tiny(cell) for cell in undecided):
        between = _between(Cell(undecided[0].low, undecided[-1].high), function.variable, width)
        notes.append(f"Whether there are more zeros in parts of {between} could not be decided.")
    else:
        notes.extend(
            f"Whether there are zeros near {function.variable} = {_near(cell.low, width)} "
            "could not be decided."
            for cell in undecided
        )
    complete = not stretches and not search.undecided and all(f.proved for f in findings)
    return Findings(
        tuple(f for f in findings if not any(_holds_any(c, [f.bracket]) for c in stretches)),
        complete,
        " ".join(notes),
    )


def _stretches(function: RealFunction, constant: list[Cell]) -> list[Cell]:
    """Give where a function is zero all along, of where one of its factors is.

    A stretch where a factor is zero but the function has no value is none of its zeros, nor one
    where another piece holds.
    """
    if not constant:
        return []
    cuts = sorted(set(function.inner_ends()))
    found: list[Cell] = []
    for cell in merged_cells(constant):
        low, high = float(cell.low.value.mid()), float(cell.high.value.mid())
        inner = [Ball(arb(cut)) for cut in cuts if low < cut < high]
        places = [cell.low, *inner, cell.high]
        for one, other in pairwise(places):
            part = Cell(one, other)
            value = function.prove(Ball(arb(part.middle)))
            if value.defined is not Defined.NO and not value.excludes_zero():
                found.append(part)
    return merged_cells(found)


def _holds_any(cell: Cell, brackets: list[tuple[float, float]]) -> bool:
    low, high = float(cell.low.value.mid()), float(cell.high.value.mid())
    return any(low <= b and a <= high for a, b in brackets)


def _between(cell: Cell, variable: str, width: float) -> str:
    return f"{_near(cell.low, width)} < {variable} < {_near(cell.high, width)}"


def _near(place: Ball, width: float) -> str:
    """Write a place roughly: to a billionth of the interval."""
    value = float(place.value.mid())
    value = 0.0 if abs(value) < 1e-9 * width else value
    return f"{value:.5g}".replace("-", "−")

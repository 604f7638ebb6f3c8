"""Answers to equations, inequalities and systems."""

from __future__ import annotations

import math

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import EquationError
from axis_path.core.evaluate.graph.angles import measures_angles
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.features.findings.answer import (
    Answer,
    Row,
    Span,
    further_note,
    is_whole,
)
from axis_path.core.features.findings.answer import (
    verdict as verdict_of,
)
from axis_path.core.features.findings.answer_rows import is_same, reasons
from axis_path.core.features.findings.complex_solutions import ComplexSolution, complex_solutions
from axis_path.core.features.findings.equations import Equation
from axis_path.core.features.findings.section import SavedQueries, SavedQuery
from axis_path.core.features.findings.set_answers import answer_set, plain_checks
from axis_path.core.features.findings.solver import Solver
from axis_path.core.features.findings.systems import Systems
from axis_path.core.kinds.states import States
from axis_path.core.locate import (
    Finding,
    LinearSolution,
    Outcome,
    SolutionInterval,
    abscissa_text,
    value_text,
)


def answer_equation(
    snapshot: Snapshot, saved: SavedQuery, title: str, *, with_exact: bool
) -> Answer:
    """Answer an equation, an inequality or a system."""
    texts = [line.strip() for line in saved.text.splitlines() if line.strip()]
    if not texts:
        raise EquationError("Nothing is written here yet.")
    if len(texts) > 1:
        return _system(snapshot, saved, title, texts, with_exact=with_exact)
    equation = snapshot.query(Solver).equation(texts[0], saved.unknown or None)
    unknown = equation.unknown
    if saved.over_complex:
        return _over_complex(snapshot, equation, title)
    sides = tuple(part.strip() for part in _split(texts[0]))
    is_on_axis = unknown == "x" or any(
        d.variable == unknown for d, _ in snapshot.query(States).functions()
    )
    draw = _drawn(snapshot, sides, unknown) if equation.is_equation else ()
    where = _between(saved, unknown)
    if not equation.is_equation:
        solutions = snapshot.query(Solver).solve_inequality(
            texts[0], saved.unknown or None, saved.low, saved.high, with_exact=with_exact
        )
        unit = equation.unit.printed
        rows = tuple(_interval_row(item, unknown, unit) for item in solutions.items)
        spans = tuple(
            Span(s.low.x, s.high.x, s.low_closed, s.high_closed)
            for s in solutions.items
            if is_on_axis
        )
        count = len(rows)
        words = "nowhere" if not count else f"in {count} interval{'s' if count > 1 else ''}"
        verdict = f"{'Proved' if solutions.complete else 'Not proved'}: it holds {words}"
        cut = any(
            (s.is_cut_low and saved.low is None) or (s.is_cut_high and saved.high is None)
            for s in solutions.items
        )
        note = solutions.note or ("It may go on beyond what was searched." if cut else "")
        return Answer(
            title, where or "everywhere", unknown, rows, verdict, solutions.complete,
            _with_unit(note, snapshot, equation) if rows else note,
            spans=spans, mathml=(equation.mathml,),
        )  # fmt: skip
    solution_set = snapshot.query(Solver).solve(
        texts[0], saved.unknown or None, saved.low, saved.high, with_exact=with_exact
    )
    rows = tuple(_solution_row(item, equation, is_on_axis=is_on_axis) for item in solution_set)
    note = "" if solution_set.holds_always else further_note(solution_set)
    return Answer(
        title, where or "everywhere", unknown, rows, verdict_of(saved.what, solution_set),
        is_whole(solution_set), _with_unit(note, snapshot, equation) if rows else note, draw=draw,
    )  # fmt: skip


def _over_complex(snapshot: Snapshot, equation: Equation, title: str) -> Answer:
    """Answer an equation of polynomials over the complex numbers."""
    digits = snapshot.section(SavedQueries).digits
    solutions = complex_solutions(snapshot, equation)
    rows = tuple(_complex_row(solution, equation.unknown, digits) for solution in solutions)
    count = sum(solution.multiplicity for solution in solutions)
    distinct = len(solutions)
    words = "one solution" if distinct == 1 else f"{distinct} solutions"
    counted = "" if count == distinct else f", {count} with their multiplicities"
    return Answer(
        title, "over the complex numbers", equation.unknown, rows,
        f"Proved: exactly {words}{counted}", True, mathml=(equation.mathml,),
    )  # fmt: skip


def _complex_row(solution: ComplexSolution, unknown: str, digits: int) -> Row:
    result = solution.result
    decimal = result.decimal(digits)
    exact = (result.exact or "").replace("-", "−")
    number = complex(result.value)
    times = solution.multiplicity
    return Row(
        "", f"{unknown} = {exact or decimal}", decimal if exact and exact != decimal else "",
        x=number.real, y=number.imag, proved=True,
        why=("The polynomial is factored over the fractions; this root is alone in its disc.",),
        note="" if times < 3 else f"It counts {times} times.",
        flags=("double",) if times == 2 else (),
    )  # fmt: skip


def _with_unit(note: str, snapshot: Snapshot, equation: Equation) -> str:
    """Return a note that says in which unit the unknown counts, if its sine is taken."""
    if not any(measures_angles(side.expression.program) for side in equation.sides):
        return note
    return f"Angles are in {snapshot.unit.value}. {note}".strip()


def _drawn(snapshot: Snapshot, sides: tuple[str, ...], unknown: str) -> tuple[str, ...]:
    """Write both sides of an equation as functions of its unknown."""
    if unknown == "x":
        return sides
    names = [name for k in ("", *map(str, range(2, 99))) for name in (f"left{k}", f"right{k}")]
    taken = set(snapshot.names())
    free = [pair for pair in zip(names[::2], names[1::2], strict=True) if taken.isdisjoint(pair)]
    return tuple(f"{name}({unknown}) = {side}" for name, side in zip(free[0], sides, strict=True))


def _split(text: str) -> list[str]:
    return text.split("=") if text.count("=") == 1 else []


def _between(saved: SavedQuery, unknown: str) -> str:
    parts = (
        f"{saved.low} ≤ " if saved.low else "",
        unknown,
        f" ≤ {saved.high}" if saved.high else "",
    )
    return "".join(parts).replace("-", "−") if saved.low or saved.high else ""


def _solution_row(item: Finding, equation: Equation, *, is_on_axis: bool) -> Row:
    exact = item.exact if item.exact != item.text else None
    said = reasons(None, item)
    if item.y_text:
        value = with_unit(item.y_text, equation.value_unit.printed)
        said = (*said, f"Put in: both sides are {value}.")
    return Row(
        "",
        exact or item.text,
        item.text if exact else "",
        is_same(exact, item.text),
        x=item.x if is_on_axis else math.nan,
        y=item.y if is_on_axis else math.nan,
        proved=item.proved,
        why=said,
        note=item.note,
        flags=("double",) if item.multiplicity == 2 else (),
        unit=equation.unit.printed,
    )


def _interval_row(solution: SolutionInterval, unknown: str, unit: str) -> Row:
    low, high = solution.low, solution.high
    if low == high:
        text = with_unit(low.exact or low.text, unit)
        return Row("", f"{unknown} = {text}", x=low.x, y=0.0, proved=True)
    ends = []
    for end, closed, is_low in (
        (low, solution.low_closed, True),
        (high, solution.high_closed, False),
    ):
        sign = "≤" if closed else "<"
        text = with_unit(end.exact or end.text, unit)
        ends.append("" if math.isinf(end.x) else f"{text} {sign} " if is_low else f" {sign} {text}")
    if not any(ends):
        return Row("", f"every {unknown}", proved=True)
    decimals = [
        end.text for end in (low, high) if end.exact and end.exact != end.text
        and not math.isinf(end.x)
    ]  # fmt: skip
    return Row("", f"{ends[0]}{unknown}{ends[1]}", "; ".join(decimals), proved=True)


def _system(
    snapshot: Snapshot, saved: SavedQuery, title: str, texts: list[str], *, with_exact: bool
) -> Answer:
    if not snapshot.query(Systems).can_solve(texts):
        return answer_set(snapshot, saved, title, texts, with_checks=with_exact)
    solved = snapshot.query(Systems).solve_system(texts, saved.low, saved.high)
    names = solved.unknowns
    typeset = snapshot.query(Systems).typeset_system(texts)
    if solved.findings is not None:
        rows = tuple(
            Row(
                f"({', '.join(names)})", f"({i.exact or i.text}, {i.y_exact or i.y_text})",
                x=i.x if names == ("x", "y") else math.nan,
                y=i.y if names == ("x", "y") else math.nan,
                proved=i.proved, note=i.note,
                why=("Krawczyk's operator maps its box into itself, so it holds just one.",)
                if i.proved else (),
            )
            for i in solved.findings
        )  # fmt: skip
        checks = plain_checks(snapshot, saved, texts, len(rows)) if with_exact else ()
        return Answer(
            title, "", names[0], rows, solved.sentence, solved.findings.complete,
            solved.findings.note,
            mathml=typeset, checks=checks,
        )  # fmt: skip
    rows = _linear_rows(solved.linear, names)
    is_known = solved.linear is not None and solved.linear.outcome is not Outcome.UNDECIDED
    is_one = solved.linear is not None and solved.linear.outcome is Outcome.ONE
    checks = plain_checks(snapshot, saved, texts, 1) if with_exact and is_one else ()
    return Answer(
        title, "", names[0], rows, solved.sentence, is_known, mathml=typeset, checks=checks
    )  # fmt: skip


def _linear_rows(solution: LinearSolution | None, names: tuple[str, ...]) -> tuple[Row, ...]:
    if solution is None or solution.outcome not in (Outcome.ONE, Outcome.MANY):
        return ()
    if solution.values:
        values = {
            name: float(v.value.mid()) for name, v in zip(names, solution.values, strict=True)
        }
        x, y = (values.get(name, math.nan) for name in "xy") if len(names) == 2 else (math.nan,) * 2
        rows = []
        for name, value in zip(names, solution.values, strict=True):
            text, plain = value_text(value), abscissa_text(value)
            decimal = "" if plain == text else plain
            is_equal = is_same(text, plain)
            rows.append(Row(name, text, decimal, is_equal, x=x, y=y, proved=True))
        return tuple(rows)
    rows = []
    for name, (constant, factors) in zip(names, solution.general, strict=True):
        if names.index(name) in solution.free:
            rows.append(Row(name, "any number", proved=True))
            continue
        free = [names[k] for k in solution.free]
        terms = [str(constant).replace("-", "−")] if constant != 0 else []
        for factor, letter in zip(factors, free, strict=True):
            if factor != 0:
                size = (
                    ""
                    if abs(factor) == 1
                    else f"({abs(factor)})"
                    if "/" in str(factor)
                    else str(abs(factor))
                )
                sign = ("−" if factor < 0 else "+") if terms else ("−" if factor < 0 else "")
                terms.append(f"{sign} {size}{letter}" if terms else f"{sign}{size}{letter}")
        rows.append(Row(name, " ".join(terms) or "0", proved=True))
    return tuple(rows)

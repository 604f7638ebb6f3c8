"""Find the reading of a set in which its units fit, and its unknowns."""

from __future__ import annotations

from collections.abc import Sequence

from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.errors import EquationError, LimitError, UnitError
from axis_path.core.language import spelled
from axis_path.core.language.sets.letters import units_in
from axis_path.core.language.sets.reading import Reading, names_of, read_equations
from axis_path.core.language.sets.split import EquationText
from axis_path.core.limits import SET_EQUATIONS

_NOTE = "#"


def read_set(
    analysis: Analysis, texts: Sequence[str], unknowns: Sequence[str] | None = None
) -> ReadSet:  # fmt: skip
    """Read equations among the names of a study.

    Args:
        analysis: of the study.
        texts: one equation each; an empty one and a note are left out.
        unknowns: what is sought; all names without a value if they are not given.

    Raises:
        MathError: one does not read, or its units do not fit.
    """
    listed = [text for text in texts if text.strip() and not text.lstrip().startswith(_NOTE)]
    if not listed:
        raise EquationError("Write an equation first, as in `W = m g_n`.")
    if len(listed) > SET_EQUATIONS.value:
        raise LimitError(f"A set can have {SET_EQUATIONS.value} equations.")
    given = None if unknowns is None else tuple(map(spelled, unknowns))
    names = analysis.names()
    if given is not None:
        names = names.and_variables(*given)
    readings = read_equations(tuple(map(EquationText, listed)), names).in_order()
    return first_that_fits(analysis, readings, given)


def first_that_fits(
    analysis: Analysis, readings: Sequence[Reading], given: tuple[str, ...] | None = None
) -> ReadSet:
    """Return the first reading in which the units fit.

    Args:
        analysis: of the study.
        readings: of the same equations, the preferred one first.
        given: what is sought; all names without a value if they are not given.

    Raises:
        UnitError: none does; of the second reading if there is one, which has units behind all
            numbers.
    """
    errors = []
    for reading in readings:
        try:
            return _measured(analysis, reading, given)
        except UnitError as err:
            errors.append(err)
    raise errors[min(1, len(errors) - 1)]


def _measured(analysis: Analysis, equations: Reading, given: tuple[str, ...] | None) -> ReadSet:
    """Return equations with their unknowns, checked for units."""
    names = analysis.names()
    ordered = list(dict.fromkeys(name for one in equations for name in names_of(one)))
    known = names.values | names.functions
    if given is None:
        free = [name for name in ordered if name not in known]
        if not free:
            raise EquationError("There is no unknown in these equations: every name has a value.")
    else:
        free = list(given)
        missing = [n for n in ordered if n not in known and n not in free]
        if missing:
            listed = ", ".join(f"`{name}`" for name in missing)
            raise EquationError(f"These have no value: {listed}. Make them unknowns too.")
    measured = analysis.measured_equations(
        [(one.source, one.compared.terms) for one in equations], free
    )
    used = tuple(name for name in ordered if name not in free)
    units = {name for one in equations for name in units_in(one.compared)}
    others = tuple(sorted(units.intersection(names.values).difference(used)))
    return ReadSet(tuple(equations), tuple(free), used, measured, others)

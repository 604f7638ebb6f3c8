"""Commands of sets of equations."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count, Id, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError
from axis_path.core.features.command import Command, Edited, Handler, called
from axis_path.core.features.equations.sheets import SetLines
from axis_path.core.features.lines.edits import put_options
from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.set_options import NO_OPTIONS, SearchBound, SetOptions


class ChooseSolution(Command, frozen=True, tag="choose_solution"):
    """Use another solution of a set of equations, counted from 0, for all that needs its values."""

    id: Id
    number: Count


class SearchBetween(Command, frozen=True, tag="search_between"):
    """Bound the search for the unknowns of a set of equations; without bounds as it was at first.

    What is typed is a number in the unit of the unknown, or a quantity.
    """

    id: Id
    bounds: tuple[SearchBound, ...] = ()


def _choose(snapshot: Snapshot, command: ChooseSolution, _window: Window) -> Edited:
    options = _options(snapshot, command.id)
    count = len(snapshot.query(SetLines).solved(command.id).values)
    if command.number >= count:
        raise CommandError(f"There is no solution {command.number + 1} of these equations.")
    changed = put_options(snapshot, command.id, replace(options, chosen=command.number))
    return changed, f"Use solution {command.number + 1} of {called(snapshot, command.id)}"


def _search(snapshot: Snapshot, command: SearchBetween, _window: Window) -> Edited:
    options, analysis = _options(snapshot, command.id), snapshot.analysis
    settled = analysis.sets.get(snapshot.index_of(command.id))
    units = {} if settled is None else settled.read.units
    bounds = tuple(_spelled_out(snapshot, one, units) for one in command.bounds)
    for bound in bounds:
        if any(analysis.uses_of(text) for text in (bound.low, bound.high)):
            raise CommandError(f"A bound of `{bound.name}` is a number, without other names.")
    options = replace(options, bounds=bounds, chosen=0)
    changed = put_options(snapshot, command.id, None if options == NO_OPTIONS else options)
    changed.query(SetLines).solved(command.id)
    return changed, f"Bound the search of {called(snapshot, command.id)}"


def _spelled_out(
    snapshot: Snapshot, bound: SearchBound, units: Mapping[str, UnitProduct]
) -> SearchBound:
    """Return a bound with its units in full where names hide them."""
    numbers, unit = snapshot.query(Numbers), units.get(bound.name, NO_UNIT)
    low, high = (numbers.spelled_out(one_line(end), unit) for end in (bound.low, bound.high))
    return SearchBound(bound.name, low, high)


def _options(snapshot: Snapshot, line_id: int) -> SetOptions:
    if snapshot.definition(line_id).kind is not Kind.EQUATIONS:
        raise CommandError("This line is no set of equations.")
    return snapshot.line(line_id).options or NO_OPTIONS


COMMANDS: dict[type[Command], Handler] = {ChooseSolution: _choose, SearchBetween: _search}

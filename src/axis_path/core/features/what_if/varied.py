"""A study in which a name may have any value, as if it were a slider."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.results import Results
from axis_path.core.compile.sets.definitions import SettledSet, structure_without
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import ShownQuantity, measures_of
from axis_path.core.errors import TableError
from axis_path.core.language import spelled
from axis_path.core.language.line_types import SetEquation
from axis_path.core.language.sets.letters import defined_by
from axis_path.core.language.sets.reading import names_of
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import PLANE_LETTERS, Kind


def varied(snapshot: Snapshot, name: str, instead: str = "") -> Snapshot:
    """Return a study in which a name is a slider, whatever gives it its value here.

    Args:
        snapshot: of the study, which stays as it is.
        name: of a number, or of an unknown of a set of equations.
        instead: the unknown of the same set whose given value is left out, where ``name`` follows
            from the equations.

    Raises:
        MathError: it is no number, or it follows from equations and nothing is left out.
    """
    name, instead = spelled(name), spelled(instead)
    line = snapshot.line_of(name)
    definition = snapshot.definition(line.id)
    if definition.problem is not None:
        raise definition.problem
    if snapshot.moving(line) is not None:
        return snapshot
    if name in definition.defines:
        return _with_given(snapshot, line, name, instead)
    if definition.kind is not Kind.PARAMETER:
        raise TableError(f"`{name}` is no number, so it cannot be varied.")
    unit = snapshot.query(Results).unit_of_line(definition)
    changed = replace(
        line, text=_slider_text(name, unit), given=None, fixed=False, slider=None, options=None
    )
    return _checked(snapshot.with_line(changed), name)


def unit_of_name(snapshot: Snapshot, name: str) -> UnitProduct:
    """Return the unit in which the values of a name are typed and shown.

    Raises:
        UnknownNameError: there is no such name.
    """
    line = snapshot.line_of(name)
    if snapshot.moving(line) is not None:
        return snapshot.unit_of_slider(spelled(name))
    settled = snapshot.analysis.sets.get(snapshot.index_of(line.id))
    if settled is not None and spelled(name) in settled.read.unknowns:
        return settled.read.unit(spelled(name))
    return snapshot.query(Results).unit_of_line(snapshot.definition(line.id))


def quantity_of_name(snapshot: Snapshot, name: str, unit: UnitProduct) -> ShownQuantity:
    """Return what a name is whose values are shown in a unit.

    Raises:
        UnknownNameError: there is no such name.
    """
    line = snapshot.line_of(name)
    settled = snapshot.analysis.sets.get(snapshot.index_of(line.id))
    if settled is not None and spelled(name) in settled.read.unknowns:
        return ShownQuantity.of(settled.read.measure(spelled(name)))
    units = snapshot.definition(line.id).units
    if units is None:
        return ShownQuantity(unit.dimension)
    return ShownQuantity.of(measures_of(units.value)[0])


def given_in_set(snapshot: Snapshot, name: str) -> tuple[str, ...]:
    """Return the unknowns of a set whose given value can follow from another name instead.

    Without it and with the other name known, the equations determine as much as before. Empty for a
    name that needs none: of a line of its own, given by an equation, or undetermined.
    """
    line = snapshot.line_of(name)
    settled = snapshot.analysis.sets.get(snapshot.index_of(line.id))
    if settled is None or not _follows(snapshot, settled.read, spelled(name), line):
        return ()
    return tuple(
        other for other in settled.read.unknowns if _can_follow(settled, other, spelled(name))
    )


def _can_follow(settled: SettledSet, other: str, name: str) -> bool:
    read, before = settled.read, settled.structure
    giving = _giving(read, other)
    unknowns = [one for one in read.unknowns if one != name]
    after = structure_without(read, giving, unknowns)
    free = {unknowns[k] for k in after.free}
    is_as_determined = len(after.extra) <= len(before.extra) and free <= settled.undetermined
    return bool(giving) and is_as_determined


def _follows(snapshot: Snapshot, read: ReadSet, name: str, line: StudyLine) -> bool:
    settled = snapshot.analysis.sets[snapshot.index_of(line.id)]
    return not _giving(read, name) and name not in settled.undetermined


def _with_given(snapshot: Snapshot, line: StudyLine, name: str, instead: str) -> Snapshot:
    """Return a study in which an unknown of a set is given outside of it."""
    read = snapshot.analysis.sets[snapshot.index_of(line.id)].read
    left_out = _giving(read, name)
    if _follows(snapshot, read, name, line):
        given = given_in_set(snapshot, name)
        if instead not in given:
            raise TableError(_choose(name, given))
        left_out = _giving(read, instead)
    kept = [one.text for k, one in enumerate(read.equations) if k not in left_out]
    label = snapshot.definition(line.id).name
    text = (f"{label}: " if label else "") + "; ".join(kept) + (";" if len(kept) == 1 else "")
    lines = [
        replace(one, text=text, disabled=not kept) if one.id == line.id else one
        for one in snapshot.lines
    ]
    added = StudyLine(snapshot.next_id(), _slider_text(name, read.unit(name)))
    return _checked(snapshot.with_lines([*lines, added]), name)


def _giving(read: ReadSet, name: str) -> frozenset[int]:
    """Return the equations that give an unknown its value, whatever the others are."""
    return frozenset(
        place for place, equation in enumerate(read.equations) if _gives(read, equation, name)
    )


def _gives(read: ReadSet, equation: SetEquation, name: str) -> bool:
    others = set(names_of(equation)).intersection(read.unknowns) - {name}
    return name in defined_by(equation.compared) and not others


def _choose(name: str, given: tuple[str, ...]) -> str:
    if not given:
        return (
            f"`{name}` follows from the equations, and no given value can follow from it instead."
        )
    listed = ", ".join(f"`{other}`" for other in given)
    return (
        f"`{name}` follows from the equations: choose which given value is to follow from it "
        f"instead: {listed}."
    )


def _slider_text(name: str, unit: UnitProduct) -> str:
    if name in PLANE_LETTERS:
        raise TableError(f"`{name}` is a letter of the plane, so it cannot be varied.")
    return f"{name} = 1 {unit.spelled}".rstrip()


def _checked(snapshot: Snapshot, name: str) -> Snapshot:
    line = snapshot.line_of(name)
    if snapshot.moving(line) is None:
        raise TableError(f"`{name}` cannot be varied in its unit.")
    problem = next((one.problem for one in snapshot.definitions() if one.name == name), None)
    if problem is not None:
        raise problem
    return snapshot

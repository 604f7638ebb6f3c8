"""What rows and axes show of their units, as plain data."""

from __future__ import annotations

from typing import Any

from axis_path.core.catalogue.units import UnitProduct, find_unit
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.dimensions import ShownQuantity, fitting_units, measures_of
from axis_path.core.features.feature import SceneRequest
from axis_path.core.language import line_nodes
from axis_path.core.language.tree import Binary, Name, Number, Operator
from axis_path.core.language.walk import walk
from axis_path.core.lines.meaning import VALUED


def units_in_scene(snapshot: Snapshot, _request: SceneRequest) -> dict[str, Any]:
    """Return the units of all rows and of both axes; None in a study without units."""
    if snapshot.analysis.named_units is None:
        return {"units": None}
    plane = snapshot.query(PlaneUnits)
    rows = {str(d.id): _row(snapshot, d) for d in snapshot.definitions() if d.units is not None}
    return {
        "units": {
            "rows": {id_: row for id_, row in rows.items() if row is not None},
            "x": _axis(plane, AxisName.X),
            "y": _axis(plane, AxisName.Y),
        }
    }


def _axis(plane: PlaneUnits, axis: AxisName) -> list[dict[str, Any]]:
    """Return what can be chosen for each quantity on an axis."""
    present = plane.quantities_on(axis).items()
    return [unit_choice(quantity, unit) for quantity, unit in present if unit.parts]


def unit_choice(quantity: ShownQuantity, unit: UnitProduct) -> dict[str, Any]:
    """Return a unit that is shown with those that fit as well."""
    units = filter(quantity.fits, fitting_units(quantity.dimension))
    fits = {one.symbol: one.printed for one in (unit, *units)}
    return {
        "measures": quantity.words,
        "of_difference": quantity.is_difference,
        "shown": unit.symbol,
        "fits": [{"symbol": symbol, "text": text} for symbol, text in fits.items()],
    }


def _row(snapshot: Snapshot, definition: Definition) -> dict[str, Any] | None:
    units = definition.units
    if units is None or definition.disabled or definition.problem is not None:
        return None
    hidden = hidden_unit(definition)
    parts = measures_of(units.value)
    quantity = ShownQuantity.of(parts[0])
    if len(parts) > 1 or quantity.dimension.is_plain:
        return None if hidden is None else {"choice": None, "hidden": hidden}
    if definition.kind in VALUED:
        shown = snapshot.query(Results).unit_of_line(definition)
    else:
        shown = snapshot.query(PlaneUnits).of(definition).value
    choice = None if definition.value is not None else unit_choice(quantity, shown)
    return {"choice": choice, "hidden": hidden}


def hidden_unit(definition: Definition) -> dict[str, Any] | None:
    """Return a name behind a number that hides the unit of its letters, and how to mean that."""
    if definition.line is None:
        return None
    for top in line_nodes(definition.line):
        for node in walk(top):
            match node:
                case Binary(Operator.MULTIPLY, Number() as number, Name(name) as hidden):
                    unit = find_unit(name)
                    is_apart = number.span[1] < hidden.span[0]
                    if unit is not None and is_apart and name not in definition.variables:
                        full = unit.name.replace("_", " ")
                        start, end = hidden.span
                        text = definition.text[:start] + unit.name + definition.text[end:]
                        return {"name": name, "unit": full, "text": text}
                case _:
                    pass
    return None

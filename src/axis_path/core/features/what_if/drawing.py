"""The curves of a what-if table as plain data."""

from __future__ import annotations

from typing import Any

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName
from axis_path.core.contract import write
from axis_path.core.deadline import calculation
from axis_path.core.draw import Window
from axis_path.core.draw.pixels import dot_tenths, visible_lines
from axis_path.core.errors import MathError
from axis_path.core.features.feature import SceneRequest
from axis_path.core.features.what_if.curves import WhatIfCurve, axis_unit
from axis_path.core.features.what_if.queries import Column, WhatIf, WhatIfTable
from axis_path.core.features.what_if.section import WhatIfSpec


def what_if_in_scene(snapshot: Snapshot, request: SceneRequest) -> dict[str, Any]:
    """Return the columns as curves for which no equations are solved: they follow every frame."""
    return {
        "what_if": what_if_curves(snapshot, request.window, are_solved=False),
        "what_if_spec": write(snapshot.section(WhatIfSpec)),
    }


def what_if_curves(
    snapshot: Snapshot, window: Window, *, are_solved: bool
) -> list[dict[str, Any]]:  # fmt: skip
    """Return columns of the what-if table as curves; none without a table that works.

    Args:
        snapshot: of the study.
        window: what part of the plane is seen.
        are_solved: whether those for which equations are solved, or all others.
    """
    spec = snapshot.section(WhatIfSpec)
    if not (spec.name and spec.is_drawn and spec.columns):
        return []
    try:
        with calculation():
            table = snapshot.query(WhatIf).table()
            curves = [
                _drawn(table, column, window, units) | {"tone": tone}
                for tone, column in enumerate(table.columns)
                if not column.problem
                and column.is_solved is are_solved
                and (units := _units(snapshot, table, column)) is not None
            ]
    except MathError:
        # The panel of the table says why.
        return []
    return [curve for curve in curves if curve["dots"]]


def where_drawn(snapshot: Snapshot, table: WhatIfTable) -> list[str]:
    """Describe in sentences in which units columns stand on the plane, or why they do not."""
    sentences = []
    for column in table.columns:
        if column.problem:
            continue
        units = _units(snapshot, table, column)
        if units is None:
            words = f"{_in(column.label, column.unit)} against {_in(table.name, table.unit)}"
            sentences.append(f"Not drawn, for the axes show something else: {words}.")
        else:
            words = f"{_in(column.label, units[1])} against {_in(table.name, units[0])}"
            sentences.append(f"On the plane: {words}.")
    return sentences


def _units(
    snapshot: Snapshot, table: WhatIfTable, column: Column
) -> tuple[UnitProduct, UnitProduct] | None:
    """Return the units of a column on the axes; None if it has no place there."""
    x = axis_unit(snapshot, AxisName.X, table.unit, table.quantity)
    y = axis_unit(snapshot, AxisName.Y, column.unit, column.quantity)
    return None if x is None or y is None else (x, y)


def _in(name: str, unit: UnitProduct) -> str:
    return f"{name} in {unit.printed}" if unit.parts else name


def _drawn(
    table: WhatIfTable, column: Column, window: Window, units: tuple[UnitProduct, UnitProduct]
) -> dict[str, Any]:
    curve = WhatIfCurve(table, column, *units)
    dots = curve.dots()
    return {
        "label": column.label,
        "lines": visible_lines(curve.lines(window), window),
        "dots": dot_tenths(dots[window.holds(dots)], window) if len(dots) else [],
    }

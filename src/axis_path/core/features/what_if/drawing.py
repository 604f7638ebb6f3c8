"""The curves of a what-if table as plain data."""

from __future__ import annotations

from typing import Any

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
                _drawn(snapshot, table, column, window) | {"tone": tone}
                for tone, column in enumerate(table.columns)
                if not column.problem and column.is_solved is are_solved
            ]
    except MathError:
        # The panel of the table says why.
        return []
    return [curve for curve in curves if curve["dots"]]


def _drawn(
    snapshot: Snapshot, table: WhatIfTable, column: Column, window: Window
) -> dict[str, Any]:
    x = axis_unit(snapshot, AxisName.X, table.unit)
    y = axis_unit(snapshot, AxisName.Y, column.unit)
    curve = WhatIfCurve(table, column, x, y)
    unit = f" in {y.printed}" if y.parts else ""
    across = f" in {x.printed}" if x.parts else ""
    dots = curve.dots()
    return {
        "label": column.text,
        "words": f"{column.text}{unit} against {table.name}{across}",
        "lines": visible_lines(curve.lines(window), window),
        "dots": dot_tenths(dots[window.holds(dots)], window) if len(dots) else [],
    }

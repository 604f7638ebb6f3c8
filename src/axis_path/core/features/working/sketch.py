"""Small graphs beside lines of Working: curves by the sampler of the plane, bars, shaded grids."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Curve, Window, frame, frame_between
from axis_path.core.errors import ShapeError
from axis_path.core.evaluate import RealFunction, Result, ResultKind
from axis_path.core.features.working.queries import WorkingResults, WorkKind, WorkValue
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.lines.line import StudyLine

_NAME = "sketch_"
_HOME, _SAMPLES = (-10.0, 10.0), 2_001
#: So many turns and crossings are shown close by, with so much room around them.
_FEW, _LEAST_HALF, _MARGIN = 8, 1.0, 1.5
_MOST_BARS, _MOST_SIDE = 200, 60


@dataclass(frozen=True, slots=True)
class Sketch:
    """A small graph.

    Attributes:
        window: what part of the plane it shows; of bars and grids without a meaning.
        curve: of an expression in one variable.
        bars: (n,) the heights of bars, of a list.
        cells: (m, n) the values of a shaded grid, of a matrix.
        is_cut: whether more entries follow.
    """

    window: Window
    curve: Curve | None = None
    bars: NDArray[np.float64] | None = None
    cells: NDArray[np.float64] | None = None
    is_cut: bool = False


def curve_sketch(results: WorkingResults, value: WorkValue, width: int, height: int) -> Sketch:
    """Draw an expression in one variable, in a window that fits it.

    Raises:
        MathError: it has more variables, or cannot be drawn.
    """
    name, snapshot = _named(results, value)
    function = snapshot.query(Curves).function(name)
    home = Window(_HOME, _HOME, width, height)
    ends = _where_it_turns(function)
    window = frame([function], home) if ends is None else frame_between([function], home, ends)
    return Sketch(window, snapshot.query(Drawables).sampled(name, window))


def _where_it_turns(function: RealFunction) -> tuple[float, float] | None:
    """Return ends between which a function turns and crosses the axis; None for the usual ones.

    They only choose the window, so samples are enough.
    """
    if function.low is not None or function.high is not None:
        return None
    xs = np.linspace(*_HOME, _SAMPLES)
    ys = function.sample(xs)
    rises = np.sign(np.diff(ys))
    turns = xs[1:-1][rises[1:] * rises[:-1] < 0]
    crossings = xs[1:][np.sign(ys[1:]) * np.sign(ys[:-1]) <= 0]
    seen = np.concatenate([turns, crossings])
    if not 0 < len(seen) <= _FEW:
        return None
    low, high = float(seen.min()), float(seen.max())
    half = max((high - low) / 2, _LEAST_HALF)
    middle = (low + high) / 2
    return middle - half * _MARGIN, middle + half * _MARGIN


def _named(results: WorkingResults, value: WorkValue) -> tuple[str, Snapshot]:
    """Return a function with a name, and the snapshot that knows it."""
    snapshot = results.among
    if value.kind is WorkKind.FUNCTION and value.name is not None and len(value.variables) == 1:
        return value.name, snapshot
    if len(value.variables) != 1 or value.node is None or value.name is not None:
        raise ShapeError("A sketch needs an expression in one variable, a list or a matrix.")
    name = f"{_NAME}{value.line.id}"
    line = StudyLine(snapshot.next_id(), f"{name}({value.variables[0]}) = {value.line.text}")
    return name, snapshot.after(replace(snapshot.document, lines=(*snapshot.lines, line)))


def entries_sketch(result: Result, width: int, height: int) -> Sketch:
    """Show the entries of a list as bars, those of a matrix as a shaded grid.

    Raises:
        ShapeError: they are no real numbers.
    """
    values = np.asarray(result.value)
    if result.kind not in (ResultKind.LIST, ResultKind.MATRIX) or np.iscomplexobj(values):
        raise ShapeError("A sketch needs an expression in one variable, or real entries.")
    empty = Window((0, 1), (0, 1), width, height)
    if result.kind is ResultKind.LIST and values.ndim == 1:
        shown = values[:_MOST_BARS].astype(np.float64)
        return Sketch(empty, bars=shown, is_cut=len(values) > _MOST_BARS)
    cells = values[:_MOST_SIDE, :_MOST_SIDE].astype(np.float64)
    return Sketch(empty, cells=cells, is_cut=cells.shape != values.shape)

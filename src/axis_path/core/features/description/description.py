"""Each line of a study in words."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.compile.definition import Definition
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.draw import Window
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.features.description.monotonicity import describe_function
from axis_path.core.lines.meaning import Kind

_KINDS = {
    Kind.PATH: "It is a path, drawn by a parameter.",
    Kind.POLAR: "It is a curve by an angle.",
    Kind.RELATION: "It is a curve given by an equation.",
    Kind.REGION: "It is a region given by an inequality.",
    Kind.SEVERAL: "It is a map of levels, shaded by its values.",
    Kind.POINT: "It is a point.",
    Kind.LIST: "It is a list of points.",
}
#: Lines that are drawn; of others there is nothing to see.
_DRAWN = frozenset({Kind.FUNCTION, *_KINDS})


@dataclass(frozen=True, slots=True)
class LineInWords:
    """What can be seen of a line, in sentences.

    Attributes:
        id: the line.
        text: how it is written.
        mathml: the same typeset; empty where it is not.
    """

    id: int
    text: str
    mathml: str
    sentences: tuple[str, ...]


def window_in_words(snapshot: Snapshot, window: Window) -> str:
    """Describe from where to where the window goes, in the units of the axes."""
    units = snapshot.query(PlaneUnits)
    x, y = (
        tuple(10**end if is_log else end for end in bounds)
        for bounds, is_log in ((window.x, window.log_x), (window.y, window.log_y))
    )
    across, up = (
        f"{low:.4g} to {high:.4g} {units.only_unit(axis).printed}".rstrip()
        for (low, high), axis in ((x, AxisName.X), (y, AxisName.Y))
    )
    return f"The window shows x from {across}, and y from {up}.".replace("-", "−")


def describe(snapshot: Snapshot, line: Definition, window: Window) -> LineInWords | None:
    """Describe what a window shows of a line; None for a line that is not drawn."""
    if line.kind not in _DRAWN or line.hidden or line.disabled:
        return None
    if line.problem is not None:
        sentences = [f"It does not work: {line.problem.message}"]
    elif line.kind is Kind.FUNCTION and line.name is not None:
        try:
            sentences = describe_function(snapshot, line.name, window)
        except StoppedError:
            sentences = ["It takes too long to be described."]
        except MathError as err:
            sentences = [f"It cannot be described: {err.message}"]
    else:
        sentences = [_KINDS.get(line.kind, "")]
    return LineInWords(
        line.id, line.text, line.mathml, tuple(sentence for sentence in sentences if sentence)
    )

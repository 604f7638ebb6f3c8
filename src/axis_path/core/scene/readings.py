"""The reading line, and what each line of a study shows at it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from fractions import Fraction
from functools import partial
from typing import Any

from axis_path.core.deadline import calculation
from axis_path.core.draw import Window
from axis_path.core.draw.pixels import point_tenths
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.kinds.functions.read_off import read_value
from axis_path.core.kinds.paths.drawing import nearest_on
from axis_path.core.kinds.state import State
from axis_path.core.lines.domains import round_to_px
from axis_path.core.lines.sliders import written_number

#: A longer number is rounded where the reading line shows it.
_LONGEST_READING = 9


def make_readings(
    state: State,
    window: Window,
    reading_x: float | Fraction,
    pointer_y: float | None = None,
    unit: str = "",
) -> dict[str, Any]:
    """Return the reading line alone, with the value of every function at it.

    Args:
        state: the study in one state.
        window: what part of the plane is seen.
        reading_x: where the reading line stands, in axis units.
        pointer_y: how high the pointer is; paths are read at their point nearest to it.
        unit: of the axis across, as it is printed.
    """
    read = [d for d in state.definitions if pointer_y is not None and d.id in state.paths]
    drawings = {d.id: state.draw(d, window) for d in read}
    return {
        "reading": reading_line(placed(reading_x, window), window, unit),
        "values": values_at(state, drawings, window, (reading_x, pointer_y)),
    }


def values_at(
    state: State,
    drawings: Mapping[int, Drawing],
    window: Window,
    at: tuple[float | Fraction, float | None],
) -> dict[str, dict[str, Any] | None]:
    """Return what each line shows at the reading line, by the id of its definition as a text.

    Args:
        state: the study in one state.
        drawings: those of the paths at least; one that is not drawn is not read.
        window: what part of the plane is seen.
        at: where the reading line stands, and how high the pointer is.
    """
    x, y = at
    abscissa = placed(x, window)
    values: dict[str, dict[str, Any] | None] = {
        str(id_): _unless_stopped(partial(_read_off, f, abscissa, window))
        for id_, f in state.functions.items()
    }
    if y is None:
        return values
    for id_, path in state.paths.items():
        curve = drawings[id_].curve
        if curve is not None:
            nearest = partial(nearest_on, path, curve, (float(x), float(y)), window)
            values[str(id_)] = _unless_stopped(nearest)
    return values


def reading_line(x: Fraction | None, window: Window, unit: str = "") -> dict[str, Any] | None:
    """Return the reading line; None without one, and outside of the window."""
    if x is None or not window.x[0] <= x <= window.x[1]:
        return None
    position, _ = point_tenths(float(x), window.y[0], window)
    text = written_number(x)
    text = text if len(text) <= _LONGEST_READING else f"{float(x):.6g}"
    text = text.replace("-", "−")
    return {"x": position, "value": float(x), "text": with_unit(text, unit)}


def placed(x: float | Fraction, window: Window) -> Fraction:
    """Return where the reading line stands: a float is rounded to what a px can tell."""
    return x if isinstance(x, Fraction) else round_to_px(x, window)


def _unless_stopped(read: Callable[[], dict[str, Any] | None]) -> dict[str, Any] | None:
    """Read something off; what takes too long is not known, and keeps nothing else waiting."""
    try:
        with calculation():
            return read()
    except StoppedError as err:
        return {"text": "not known", "reason": err.message, "y": None}


def _read_off(function: RealFunction, x: Fraction, window: Window) -> dict[str, Any]:
    text, y = read_value(function, x)
    is_visible = bool(text) and window.y[0] <= y <= window.y[1]
    return {
        "text": with_unit(text, function.units.y.printed) if text else "undefined",
        "reason": "" if text else function.reason_at(x),
        "y": point_tenths(float(x), y, window)[1] if is_visible else None,
    }

"""Everything the bench draws, as plain data, for one state of the study.

All of a scene belongs to one set of slider values: curves, lanes, marks, readings and texts are
computed together, so that nothing on the screen can be older than the rest.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, field
from fractions import Fraction
from itertools import count
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.compile.definition import Definition
from axis_path.core.contract import write
from axis_path.core.draw import (
    Window,
)
from axis_path.core.draw.pixels import (
    Flag,
    place_flags,
)
from axis_path.core.draw.value_labels import place_values
from axis_path.core.errors import MathError
from axis_path.core.evaluate import (
    RealPath,
)
from axis_path.core.features.axes.drawing import draw_axes, label_flags
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.families.drawing import draw_member, family_row
from axis_path.core.features.motion.row import make_runner
from axis_path.core.features.sliders.row import make_sliders
from axis_path.core.kinds.drawing import NOTHING, PLAIN, Drawing
from axis_path.core.kinds.paths.closing import closing_dict
from axis_path.core.kinds.paths.drawing import span_words
from axis_path.core.kinds.problems import problem_dict
from axis_path.core.kinds.registry import KINDS
from axis_path.core.kinds.state import State
from axis_path.core.language import GREEK
from axis_path.core.lines.family import FamilyState
from axis_path.core.scene.legend import drawn_points, place_legend
from axis_path.core.scene.readings import placed, reading_line, values_at
from axis_path.core.scene.uses import users_by_name, users_of

Floats = NDArray[np.float64]

#: What the plane does not draw: a function of other variables than x and y.
_UNDRAWN = "not drawn, for its variables are not x and y; other lines can use it"


#: The parts of a drawing that are seen.
_PARTS = ("pieces", "bands", "dots", "specks", "dashed", "fills", "dense", "levels")


@dataclass(frozen=True, slots=True)
class Scene:
    """What the bench draws; every place is in tenths of a pixel.

    Attributes:
        window: the window it was made for; it may reach beyond what is seen.
        axes: grid, ticks and the axes themselves.
        rows: one entry for each line, in order: its text, what it means, its curve and its lane.
        sliders: the parameters with a slider.
        reading: the reading line, None if there is none.
        empty: why nothing is drawn, None if something is.
        legend: where the legend stands and what it names, None if it is not shown.
        added: what features add, by the names of the fields.
    """

    window: Window
    axes: dict[str, Any]
    rows: list[dict[str, Any]]
    sliders: list[dict[str, Any]]
    reading: dict[str, Any] | None
    empty: str | None
    legend: dict[str, Any] | None = None
    added: Mapping[str, Any] = field(default_factory=dict)

    def to_dict(self) -> dict[str, Any]:
        """Return the scene as data for JSON."""
        visible = self.window.visible
        return {
            "window": {
                **visible.to_dict(), "width": visible.width, "height": visible.height,
                "beyond": self.window.beyond,
                "stretch": self.window.stretch,
            },
            "axes": self.axes, "rows": self.rows, "sliders": self.sliders,
            "reading": self.reading, "empty": self.empty, "legend": self.legend,
            **self.added,
        }  # fmt: skip


def make_scene(
    state: State,
    axes: Axes,
    window: Window,
    *,
    reading_x: float | Fraction | None = None,
    pointer_y: float | None = None,
) -> Scene:
    """Put together what the bench draws.

    Args:
        state: the study in one state.
        axes: the axes in that state.
        window: what part of the plane is seen, and how far it is drawn beyond.
        reading_x: where the reading line stands, in axis units; None for no line. A float is
            rounded to what a pixel can tell, a fraction is taken as it is.
        pointer_y: how high the pointer is; paths are read at their point nearest to it.
    """
    x_reading = None if reading_x is None else placed(reading_x, window)
    definitions = state.definitions
    drawings = {d.id: state.draw(d, window) for d in definitions}
    members = _members(state, window)
    drawn_axes = draw_axes(
        axes.spec,
        axes.steps,
        window,
        state.unit,
        names=axes.with_units(*_axis_names(definitions, state)),
        title=axes.title,
    )
    labels = label_flags(drawn_axes, window.visible)
    flags, member_flags = _flags(
        definitions, drawings, members, state.families, window.visible, labels
    )
    users, tones = users_by_name(definitions, state.end_uses), _tones(state)
    at = None if reading_x is None else (reading_x, pointer_y)
    readings = {} if at is None else values_at(state, drawings, window, at)
    rows = [
        _row(state, definition, window, readings.get(str(definition.id)))
        | {"tone": tones[definition.id]}
        | {"used_by": users_of(definition, users)}
        | PLAIN
        | drawings[definition.id].data
        | {"flag": flags.get(definition.id)}
        | _family(state, definition.id, members, member_flags)
        for definition in definitions
    ]
    return Scene(
        window,
        drawn_axes,
        rows,
        make_sliders(definitions, state.ranges, users, state.typed),
        reading_line(x_reading, window, axes.unit_across),
        _why_empty(definitions, rows, state),
        place_legend(rows, window.visible, axes.spec.legend_at) if axes.spec.legend else None,
    )


def _members(state: State, window: Window) -> dict[int, list[Drawing]]:
    """Draw the curves of families; nothing of those of hidden lines."""
    hidden = {d.id for d in state.definitions if d.hidden}
    return {
        id_: [NOTHING if id_ in hidden else draw_member(m.real, window) for m in family.members]
        for id_, family in state.families.items()
    }


def _family(
    state: State,
    id_: int,
    members: dict[int, list[Drawing]],
    flags: dict[int, list[dict[str, int] | None]],
) -> dict[str, Any]:
    family = state.families.get(id_)
    return {"family": None if family is None else family_row(family, members[id_], flags[id_])}


def _flags(
    definitions: list[Definition],
    drawings: dict[int, Drawing],
    members: dict[int, list[Drawing]],
    families: dict[int, FamilyState],
    window: Window,
    reserved: Sequence[Flag],
) -> tuple[dict[int, dict[str, int] | None], dict[int, list[dict[str, int] | None]]]:
    """Return where the flags of lines stand, and the values on the curves of families."""
    names = {d.id: d.name if d.style.flag else None for d in definitions}
    # A line without a name has no flag, and one can be taken away.
    ends = [
        (names[id_] or "", drawing.end if names[id_] else None) for id_, drawing in drawings.items()
    ]
    curves = [drawing.data["curve"] for drawing in drawings.values() if drawing.data["curve"]]
    has_points = any(curve.get("dots") for curve in curves)
    # The labels of points keep clear of the curves; without points that is not worth its time.
    obstacles = drawn_points(curves) if has_points else None
    flags = place_flags(ends, window, obstacles, reserved)
    taken = [*reserved, *(flag for flag in flags if flag is not None)]
    values = {}
    for id_, drawn in members.items():
        texts = [member.text for member in families[id_].members]
        lines = [(row.data["curve"] or {}).get("pieces", []) for row in drawn]
        values[id_] = place_values(lines, texts, window, taken)
        taken += [flag for flag in values[id_] if flag is not None]
    return (
        dict(zip(drawings, map(_flag_dict, flags), strict=True)),
        {id_: list(map(_flag_dict, placed)) for id_, placed in values.items()},
    )


def _flag_dict(flag: Flag | None) -> dict[str, int] | None:
    return None if flag is None else {"x": flag.x, "y": flag.y, "width": flag.width}


def _row(
    state: State, definition: Definition, window: Window, reading: dict[str, Any] | None
) -> dict[str, Any]:
    problem = definition.problem or state.problems.get(definition.id)
    return {
        "id": definition.id,
        "text": definition.text,
        "name": definition.name,
        "kind": definition.kind.value,
        "mathml": definition.mathml,
        "domain": definition.domain_mathml,
        "variable": definition.variable,
        "variables": list(definition.variables),
        "ends": definition.end_texts,
        "hidden": definition.hidden,
        "style": write(definition.style),
        "disabled": definition.disabled,
        "fixed": definition.fixed,
        "problem": None if problem is None else problem_dict(problem),
        "value": state.computed.get(definition.id),
        "size": state.sizes.get(definition.id, ""),
        "assumed": _assumed(state.paths.get(definition.id)),
        "runner": _runner(state, definition, window),
        "trail": None if definition.trail is None else {"most": definition.trail.most},
        "closes": _closes(state, definition),
        "words": [asdict(part) for part in definition.note],
        "undrawn": _UNDRAWN if _is_undrawn(state, definition, problem) else None,
        "reading": reading,
    }


def _runner(state: State, definition: Definition, window: Window) -> dict[str, Any] | None:
    path = state.paths.get(definition.id)
    if path is None:
        return None
    return make_runner(path, definition.runner, state.runners.get(definition.id), window)


def _closes(state: State, definition: Definition) -> dict[str, Any] | None:
    path = state.paths.get(definition.id)
    return None if path is None or definition.hidden else closing_dict(path)


def _is_undrawn(state: State, definition: Definition, problem: MathError | None) -> bool:
    is_nowhere = definition.id not in state.realised and KINDS[definition.kind].says_if_undrawn
    return is_nowhere and problem is None and not definition.disabled


def _tones(state: State) -> dict[int, int | None]:
    """Return the tone of each line; one that turns out to be a point gets one that is free."""
    used = {definition.tone for definition in state.definitions}
    free = (tone for tone in count() if tone not in used)
    return {
        d.id: next(free) if d.tone is None and d.id in state.points else d.tone
        for d in state.definitions
    }


def _assumed(path: RealPath | None) -> str:
    """Describe between which ends a path is drawn whose line does not give both."""
    return f"drawn for {span_words(path)}" if path is not None and path.assumed else ""


def _axis_names(definitions: list[Definition], state: State) -> tuple[str, str]:
    """Return the names of both axes.

    The x axis has that of the variable that all functions share. Where complex numbers are all that
    is drawn, the axes are the real and the imaginary one.
    """
    drawn = {d.id for d in definitions if d.id in state.realised and not d.hidden}
    if drawn and drawn <= state.complex_ids:
        return "Re", "Im"
    used = {d.variable for d in definitions if KINDS[d.kind].names_axis and not d.disabled}
    name = used.pop() if len(used) == 1 else None
    return GREEK.get(name or "x", name or "x"), "y"


def _why_empty(
    definitions: list[Definition], rows: list[dict[str, Any]], state: State
) -> str | None:
    on_plane = (
        d for d in definitions if KINDS[d.kind].stands_on_plane or d.id in state.complex_ids
    )
    drawn = [d for d in on_plane if not d.disabled]
    curves = [row["curve"] for row in rows if row["curve"]]
    if any(curve.get(part) for curve in curves for part in _PARTS):
        return None
    if not definitions:
        return "This study is empty. Write a definition below, such as f(x) = x^2 − 3."
    if not drawn:
        return "There is nothing to draw yet. Write a definition below, such as f(x) = x^2 − 3."
    if all(d.hidden for d in drawn):
        return "Everything is hidden. Show a line with the eye beside it."
    return None

"""What the bench draws of a study in a window."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import (
    Curve,
    Extent,
    Window,
    extent_of,
)
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.data.plots import Plots
from axis_path.core.features.feature import Box, SceneRequest
from axis_path.core.features.motion.row import trail_tenths
from axis_path.core.features.registry import FEATURES
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.kinds.registry import KINDS
from axis_path.core.kinds.states import States
from axis_path.core.scene.readings import make_readings
from axis_path.core.scene.scene import Scene, make_scene


class Pictures:
    """The pictures of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._states = snapshot.query(States)
        self._plots = snapshot.query(Plots)

    def curve(self, name: str, window: Window) -> Curve:
        """Draw a function, a path or a curve by an angle in a window.

        Raises:
            MathError: the name is none of these, or does not work.
        """
        return self._snapshot.query(Drawables).sampled(name, window)

    def extents(self, window: Window, only: int | None = None) -> list[Extent]:
        """Return how far the shown lines reach that have a size of their own.

        Args:
            window: where equations and inequalities are looked for.
            only: the id of a line, for that one alone.
        """
        state = self._states.state
        clouds = self._plots.clouds() if only is None else []
        for line in state.definitions:
            real = state.realised.get(line.id)
            if real is not None and not line.hidden and only in (None, line.id):
                clouds += KINDS[line.kind].reach(real, window)
        return [extent for extent in map(extent_of, clouds) if extent is not None]

    def scene(
        self,
        window: Window,
        *,
        reading_x: float | Fraction | None = None,
        pointer_y: float | None = None,
        with_trails: bool = False,
        box: Box | None = None,
    ) -> Scene:
        """Put together everything the bench draws in a window, as plain data.

        Args:
            window: what part of the plane is seen.
            reading_x: where the reading line stands, in axis units; None for none. A float is
                rounded to what a pixel can tell, a fraction is taken as it is.
            pointer_y: how high the pointer is; paths are read at their point nearest to it.
            with_trails: whether the places of trails are given too, in tenths of a pixel; the page
                has them already, a picture has not.
            box: a part of the plane; points of data within it are marked as chosen.
        """
        state = self._states.state
        made = make_scene(
            state, self._snapshot.query(Axes), window, reading_x=reading_x, pointer_y=pointer_y
        )
        if with_trails:
            for row in made.rows:
                trail = self._snapshot.line(row["id"]).trail
                if trail is not None:
                    row["trail"] = {"most": trail.most, "strokes": trail_tenths(trail, window)}
        request, added = SceneRequest(window, box), dict[str, Any]()
        for feature in FEATURES:
            if feature.scene is not None:
                added |= feature.scene(self._snapshot, request)
        return replace(made, added=added)

    def readings(
        self, window: Window, reading_x: float | Fraction, pointer_y: float | None = None
    ) -> dict[str, Any]:
        """Return the reading line alone, with every function's value there, as plain data.

        Args:
            window: what part of the plane is seen.
            reading_x: where the line stands.
            pointer_y: how high the pointer is; paths are read at their point nearest to it.
        """
        return make_readings(self._states.state, window, reading_x, pointer_y)

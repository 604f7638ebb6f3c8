"""Where points and runners are in other positions of the sliders, for their trails."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from axis_path.core.compile.compiled import CompiledValue
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.features.motion.row import Visit, positions
from axis_path.core.features.sliders.edits import set_slider
from axis_path.core.kinds.states import States


class Motion:
    """What moves in a study, and where it has been."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)
        self._sliders = snapshot.query(Sliders)
        self._states = snapshot.query(States)

    def trails(self) -> dict[int, tuple[tuple[float, float], ...]]:
        """Return where points have been that leave a trail, by the ids of their lines."""
        return {
            line.id: line.trail.points for line in self._snapshot.lines if line.trail is not None
        }

    def visited(
        self, visits: Sequence[Mapping[int, GivenNumber]]
    ) -> dict[int, list[tuple[float, float]]]:
        """Return where points with a trail are in some states, by the ids of their lines.

        Hidden points, and those whose line does not work, leave none.

        Args:
            visits: the values of sliders and of the parameters of runners, by the ids of their
                lines; a number that a slider cannot take is brought to its nearest step.

        Raises:
            MathError: a line is no slider and has no runner.
        """
        movable = self._movable({line_id for visit in visits for line_id in visit})
        if movable is not self._snapshot:
            return movable.query(Motion).visited(visits)
        state = self._states.state
        trailing = [d for d in state.definitions if d.trail is not None and not d.hidden]
        points = {
            d.id: compiled
            for d in trailing
            if d.id in state.points and len(state.points[d.id]) == 1 and d.name is not None
            for compiled in (self._snapshot.analysis.compiled(d.name),)
            if isinstance(compiled, CompiledValue)
        }
        paths = {d.id: state.paths[d.id] for d in trailing if d.id in state.paths}
        return positions(points, paths, [self._visit(visit) for visit in visits])

    def _movable(self, line_ids: set[int]) -> Snapshot:
        """Return the snapshot with sliders that stand at an expression as numbers, to be moved."""
        snapshot = self._snapshot
        for line_id in line_ids:
            if snapshot.definition(line_id).typed:
                name, value, _ = self._sliders.slider_of(line_id)
                snapshot = set_slider(snapshot, name, value)
        return snapshot

    def _visit(self, given: Mapping[int, GivenNumber]) -> Visit:
        values, runners, moved = dict(self._snapshot.values), {}, set()
        for line_id, value in given.items():
            exact = self._numbers.rational(value)
            if self._snapshot.line(line_id).moving is None:
                runners[line_id] = exact
            else:
                name, _, _ = self._sliders.slider_of(line_id)
                snapped = isinstance(value, str)
                moved.add(name)
                values[name] = exact if snapped else self._sliders.slider_range(line_id).snap(exact)
        return Visit(values, runners, frozenset(moved))

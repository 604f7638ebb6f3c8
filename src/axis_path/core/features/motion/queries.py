"""Where points and runners are in other positions of the sliders, for their trails."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from fractions import Fraction

from axis_path.core.compile.compiled import CompiledValue
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import HOME_X, HOME_Y, Window
from axis_path.core.features.motion.row import MovingPoint, positions
from axis_path.core.features.motion.track import Visit
from axis_path.core.features.sliders.edits import set_slider
from axis_path.core.kinds.states import States
from axis_path.core.lines.moving import Position
from axis_path.core.lines.sliders import AtEnd, SliderKind


class Motion:
    """What moves in a study, and where it has been."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)
        self._sliders = snapshot.query(Sliders)
        self._states = snapshot.query(States)

    def trails(self) -> dict[int, tuple[Position, ...]]:
        """Return where points have been that leave a trail, by the ids of their lines."""
        return {
            line.id: line.trail.points for line in self._snapshot.lines if line.trail is not None
        }

    def visited(
        self,
        visits: Sequence[Mapping[int, GivenNumber]],
        window: Window | None = None,
        *,
        is_joined: bool = False,
    ) -> dict[int, list[Position]]:
        """Return where points with a trail are on the way through some states, by their lines.

        Hidden points, and those whose line does not work, leave none. Between two states the way is
        computed; None stands where a point is nowhere, or jumps.

        Args:
            visits: the values of sliders and of the parameters of runners, by the ids of their
                lines; a number that a slider cannot take is brought to its nearest step.
            window: how far places lie apart is measured in its px; by default those of the first
                window.
            is_joined: whether the first state is only where the way goes on from.

        Raises:
            MathError: a line is no slider and has no runner.
        """
        movable = self._movable({line_id for visit in visits for line_id in visit})
        if movable is not self._snapshot:
            return movable.query(Motion).visited(visits, window, is_joined=is_joined)
        state = self._states.state
        trailing = [d for d in state.definitions if d.trail is not None and not d.hidden]
        points = {
            d.id: self._moving_point(d.name, compiled)
            for d in trailing
            if d.id in state.points and len(state.points[d.id]) == 1 and d.name is not None
            for compiled in (self._snapshot.analysis.compiled(d.name),)
            if isinstance(compiled, CompiledValue)
        }
        paths = {d.id: state.paths[d.id] for d in trailing if d.id in state.paths}
        way: list[Visit] = []
        for visit in visits:
            way.append(self._visit(visit, way[-1] if way else None))
        return positions(points, paths, way, window or Window(HOME_X, HOME_Y), is_joined=is_joined)

    def _moving_point(self, name: str, compiled: CompiledValue) -> MovingPoint:
        snapshot = self._snapshot
        sliders = frozenset(slider for slider, _ in snapshot.sliders_below({name}))
        if not snapshot.analysis.solved_in(frozenset({name})):
            return MovingPoint(compiled, sliders, lambda values: values)
        return MovingPoint(compiled, sliders, lambda values: snapshot.with_values(values).values)

    def _movable(self, line_ids: set[int]) -> Snapshot:
        """Return the snapshot with sliders that stand at an expression as numbers, to be moved."""
        snapshot = self._snapshot
        for line_id in line_ids:
            if snapshot.definition(line_id).typed:
                name, value, _ = self._sliders.slider_of(line_id)
                snapshot = set_slider(snapshot, name, value)
        return snapshot

    def _visit(self, given: Mapping[int, GivenNumber], before: Visit | None) -> Visit:
        values = dict(before.values if before else self._snapshot.sliders)
        runners, moved, is_cut = {}, set(), False
        for line_id, value in given.items():
            exact = self._numbers.rational(value)
            if self._snapshot.moving(self._snapshot.line(line_id)) is None:
                runners[line_id] = exact
                continue
            name, _, slider = self._sliders.slider_of(line_id)
            moved.add(name)
            chosen = self._sliders.slider_range(line_id)
            values[name] = exact if isinstance(value, str) else chosen.snap(exact)
            way = abs(values[name] - before.values[name]) if before else Fraction(0)
            is_over = slider.play.at_end is AtEnd.RESTART and 2 * way > chosen.high - chosen.low
            is_cut = is_cut or is_over or slider.kind is SliderKind.WHOLE
        return Visit(values, runners, frozenset(moved), is_cut)

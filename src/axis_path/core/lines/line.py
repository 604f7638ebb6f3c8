"""A line of a study as it is stored."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.contract import Id, Line
from axis_path.core.lines.family import Family
from axis_path.core.lines.meaning import LineKey
from axis_path.core.lines.moving import Runner, Trail
from axis_path.core.lines.set_options import SetOptions
from axis_path.core.lines.sliders import Slider, slider_unit, slider_value
from axis_path.core.lines.style import LineStyle
from axis_path.core.threads import lazy_property


@dataclass(frozen=True)
class StudyLine:
    """One line, with what the student chose for it.

    Attributes:
        id: stays the same while the line is edited.
        text: as typed.
        hidden: it works but is not drawn.
        disabled: it is stored but takes no part, as if it were not written.
        halted: whether it is disabled because the process that computed it had to be ended.
        given: the name that an unnamed function was given; kept so that it never changes.
        slider: the slider of a parameter.
        fixed: whether a number is a constant, which no slider moves.
        tone: the colour and stroke of a line, as an index.
        style: what else was chosen for its look.
        runner: the runner of a path, once it was moved.
        family: the values of a slider for which it is drawn at once.
        fit: the fit that the line follows; None for a line that is written by hand.
        fit_lost: whether it is disabled because that fit has no result.
        trail: where a point has been; None if it leaves no trail.
        options: what was chosen for a set of equations; None if nothing was.
    """

    id: Id
    text: Line
    hidden: bool = False
    disabled: bool = False
    halted: bool = False
    given: Line | None = None
    slider: Slider | None = None
    fixed: bool = False
    tone: Id | None = None
    style: LineStyle = LineStyle()  # noqa: RUF009 - it cannot be changed
    runner: Runner | None = None
    trail: Trail | None = None
    family: Family | None = None
    fit: Id | None = None
    fit_lost: bool = False
    options: SetOptions | None = None

    @lazy_property
    def moving(self) -> tuple[str, Fraction] | None:
        """Return the name and the value of a slider; None for any other line."""
        return None if self.fixed else slider_value(self.text)

    @lazy_property
    def key(self) -> LineKey:
        """Return what an analysis needs of the line; made once, so that it is known by identity."""
        slider = self.moving
        # A slider stands with a fixed text: its value is no part of the analysis.
        if slider is None:
            return self.plain_key
        unit = slider_unit(self.text)
        text = f"{slider[0]} = 1 {unit}" if unit else f"{slider[0]} = 0"
        return LineKey(text, self.disabled, self.given, is_slider=True, unit=unit)

    @lazy_property
    def plain_key(self) -> LineKey:
        """Return the key of a line that is no slider, whatever it looks like."""
        return LineKey(self.text, self.disabled, self.given, is_slider=False)

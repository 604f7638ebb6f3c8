"""A line of a study as it is kept."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from axis_path.core.study.meaning import LineKey
from axis_path.core.study.sliders import SliderRange, slider_value
from axis_path.core.study.style import LineStyle


@dataclass(frozen=True)
class StudyLine:
    """One line, with what the student chose for it.

    Attributes:
        id: stays the same while the line is edited.
        text: as typed.
        hidden: it works but is not drawn.
        aside: it is kept but takes no part, as if it were not written.
        given: the name that an unnamed function was given; kept so that it never changes.
        slider: the range of a parameter's slider.
        tone: the colour and stroke of a line, as an index.
        style: what else was chosen for its look.
    """

    id: int
    text: str
    hidden: bool = False
    aside: bool = False
    given: str | None = None
    slider: SliderRange | None = None
    tone: int | None = None
    style: LineStyle = LineStyle()  # noqa: RUF009 - it cannot be changed

    @cached_property
    def key(self) -> LineKey:
        """Give what an analysis needs of the line; made once, so that it is known by identity."""
        slider = slider_value(self.text)
        # A slider stands with a fixed text: its value is no part of the analysis.
        text = self.text if slider is None else f"{slider[0]} = 0"
        return LineKey(text, self.aside, self.given, slider is not None)

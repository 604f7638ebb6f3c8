"""A line of a study together with what it means."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.dimensions import LineUnits
from axis_path.core.errors import MathError
from axis_path.core.language import FunctionLine, Line, NotePart, latex_line, plain_line
from axis_path.core.lines.family import Family
from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.moving import Runner, Trail
from axis_path.core.lines.sliders import Slider
from axis_path.core.lines.style import LineStyle


@dataclass(frozen=True, slots=True)
class Definition:
    """A line with what it means.

    Attributes:
        id: the line's number, which stays the same while it is edited.
        name: what it defines; None for a note or a line that cannot be read.
        problem: why it has no value (yet); None if it works.
        value: the value of a slider.
        fixed: whether it is a constant that could be a slider.
        typed: whether the value of its slider was typed as an expression, such as ``pi/2``.
        note: the text and the formulas of a note.
        units: what it measures; None in a study without units.
        defines: the names that a set of equations gives their values.
    """

    id: int
    name: str | None
    kind: Kind
    text: str
    mathml: str
    domain_mathml: str
    variable: str | None
    problem: MathError | None
    hidden: bool
    disabled: bool
    tone: int | None
    slider: Slider | None
    value: Fraction | None
    uses: frozenset[str]
    style: LineStyle
    line: Line | None = None
    fixed: bool = False
    typed: bool = False
    runner: Runner | None = None
    trail: Trail | None = None
    family: Family | None = None
    note: tuple[NotePart, ...] = ()
    units: LineUnits | None = None
    defines: tuple[str, ...] = ()

    @property
    def variables(self) -> tuple[str, ...]:
        """Return the variables of a function; none for another line."""
        return self.line.variables if isinstance(self.line, FunctionLine) else ()

    @property
    def end_texts(self) -> dict[str, str]:
        """Return the ends of the domain as they are written; empty for a side without one."""
        if not isinstance(self.line, FunctionLine):
            return {"low": "", "high": ""}
        ends = (("low", self.line.domain.low), ("high", self.line.domain.high))
        return {
            side: "" if bound is None else self.text[slice(*bound.value.span)]
            for side, bound in ends
        }

    @property
    def latex(self) -> str:
        """Return the line as LaTeX; empty for a note and for what does not read."""
        return "" if self.line is None else latex_line(self.line, self.name)

    @property
    def plain(self) -> str:
        """Return the line as plain text that reads back to the same."""
        return self.text if self.line is None else plain_line(self.line)

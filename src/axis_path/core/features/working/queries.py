"""What the lines of Working give."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from axis_path.core.catalogue.units import read_unit
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import PlaneMeasure, dimension_of
from axis_path.core.errors import MathError, UnknownNameError
from axis_path.core.evaluate import Result
from axis_path.core.features.findings.systems import Systems
from axis_path.core.features.working.cache import cached_result
from axis_path.core.features.working.named_lines import defines_name, line_id, with_working
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.language import (
    NotePart,
    RelationLine,
    latex,
    latex_comparisons,
    note_parts,
    read_expression,
    typeset,
    typeset_comparison,
    typeset_comparisons,
)
from axis_path.core.language.parsing.body import Condition
from axis_path.core.language.read import read_body
from axis_path.core.language.tree import Call, Converted, Name, Node
from axis_path.core.language.walk import names_in
from axis_path.core.lines.meaning import CALLED
from axis_path.core.threads import lazy_property


class WorkKind(StrEnum):
    """What a line of Working is."""

    VALUE = "value"
    FUNCTION = "function"
    EQUATION = "equation"
    NOTE = "note"
    UNREAD = "unread"


@dataclass(frozen=True)
class WorkValue:
    """A line of Working with what it gives.

    Attributes:
        line: as it is stored.
        kind: what it is.
        name: the name that it defines, if it does.
        mathml: as it was read; empty if it does not read.
        latex: the same in LaTeX.
        node: the expression, of a value.
        variables: the letters without a value of an expression that can be drawn over them.
        problem: why there is no result.
        note: the text and the formulas of a note.
    """

    line: WorkingLine
    kind: WorkKind
    name: str | None = None
    mathml: str = ""
    latex: str = ""
    node: Node | None = None
    variables: tuple[str, ...] = ()
    problem: MathError | None = None
    note: tuple[NotePart, ...] = ()


class WorkingResults:
    """Reads and computes the lines of Working."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot

    @lazy_property
    def among(self) -> Snapshot:
        """Return the snapshot in which the names of Working are known."""
        return with_working(self._snapshot)

    def lines(self) -> list[WorkValue]:
        """Return all lines as they are read."""
        return [self.read(line) for line in self._snapshot.section(Working).lines]

    def read(self, line: WorkingLine) -> WorkValue:
        """Return a line as it is read, with its problem if it has no value."""
        if line.text.lstrip().startswith("#"):
            text = line.text.lstrip()[1:].strip()
            parts = note_parts(text, self.among.analysis.names())
            return WorkValue(line, WorkKind.NOTE, note=parts)
        if defines_name(line):
            return self._definition(line, self.among.definition(line_id(line)))
        try:
            return self._unnamed(line)
        except MathError as err:
            return WorkValue(line, WorkKind.UNREAD, problem=err)

    def _definition(self, line: WorkingLine, definition: Definition) -> WorkValue:
        if definition.line is None:
            return WorkValue(line, WorkKind.UNREAD, definition.name, problem=definition.problem)
        kind = WorkKind.FUNCTION if definition.kind in CALLED else WorkKind.VALUE
        if isinstance(definition.line, RelationLine):
            kind = WorkKind.EQUATION
        node = getattr(definition.line, "expression", None)
        return WorkValue(
            line, kind, definition.name, definition.mathml, definition.latex, node,
            definition.variables, definition.problem,
        )  # fmt: skip

    def _unnamed(self, line: WorkingLine) -> WorkValue:
        names = self.among.analysis.names()
        texts = [text.strip() for text in line.text.split(";")]
        if len(texts) > 1 and all("=" in text for text in texts):
            return self._system(line, texts)
        body = read_body(line.text, names)
        if body.compared is not None:
            return self._comparison(line, body.compared)
        node = read_expression(line.text, names)
        return WorkValue(
            line, WorkKind.VALUE, None, typeset(node), latex(node), node, self._unknown(node)
        )

    def _unknown(self, node: Node) -> tuple[str, ...]:
        known = self.among.analysis.names()
        free = (name for name in names_in(node) if not known.is_known(name) and name != "i")
        return tuple(sorted(free))

    def _system(self, line: WorkingLine, texts: list[str]) -> WorkValue:
        """Read several equations with semicolons between them."""
        compared, unknowns = self.among.query(Systems).check_system(texts)
        parts = [(one.terms, one.signs) for one in compared]
        return WorkValue(
            line, WorkKind.EQUATION, None, typeset_comparisons(parts), latex_comparisons(parts),
            None, unknowns,
        )  # fmt: skip

    def _comparison(self, line: WorkingLine, compared: Condition) -> WorkValue:
        unknown = {name for term in compared.terms for name in self._unknown(term)}
        kind = WorkKind.EQUATION if unknown else WorkKind.VALUE
        return WorkValue(
            line, kind, None, typeset_comparison(compared.terms, compared.signs),
            latex_comparisons([(compared.terms, compared.signs)]), None, tuple(sorted(unknown)),
        )  # fmt: skip

    def result(self, value: WorkValue, *, again: bool = False) -> Result:
        """Compute the result of a line.

        Args:
            value: the line.
            again: whether it is computed even if it took too long before.

        Raises:
            MathError: it has none.
        """
        if value.problem is not None:
            raise value.problem
        results = self.among.query(Results)
        if value.kind is not WorkKind.VALUE:
            raise UnknownNameError("A function or an equation has no single value.")
        shown = self._converted(value)
        if shown is not None:
            owner = value.name or f"working {value.line.id}"
            return cached_result(
                self.among, shown, owner, lambda: results.of_node(shown, owner), again=again
            )
        if value.name is not None:
            name = value.name
            return cached_result(
                self.among, Name(name), name, lambda: results.value(name), again=again
            )
        if value.node is None:
            return results.evaluate(value.line.text)
        node, owner = value.node, f"working {value.line.id}"
        return cached_result(
            self.among, node, owner, lambda: results.of_node(node, owner), again=again
        )

    def _converted(self, value: WorkValue) -> Node | None:
        """Return the value of a line in the unit that was chosen; None if none fits."""
        unit = read_unit(value.line.unit) if value.line.unit else None
        node = Name(value.name) if value.name is not None else value.node
        if unit is None or node is None:
            return None
        measure, _ = self.among.analysis.measured(node, value.line.text)
        if measure is None or isinstance(measure, PlaneMeasure):
            return None
        own = dimension_of(measure).without_angle
        return Converted(node, unit, node.span) if own == unit.dimension.without_angle else None

    def part(self, value: WorkValue, function: str) -> Result:
        """Compute a function of the result of a line, such as the size of a complex number.

        Raises:
            MathError: it has none.
        """
        node = Name(value.name) if value.name is not None else value.node
        if node is None:
            raise UnknownNameError("This line has no single value.")
        owner = value.name or f"working {value.line.id}"
        return self.among.query(Results).of_node(Call(function, (node,)), owner)

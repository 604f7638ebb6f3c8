"""Typed numbers, exact as far as they can be, and the intervals that they bound."""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import dimension_of, measures_of
from axis_path.core.draw import HOME_X
from axis_path.core.errors import DomainError, MathError
from axis_path.core.evaluate import VALUE_BITS, Constant, RealFunction, evaluate_constant
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import Negative, Number, Quantity
from axis_path.core.lines.sliders import exact_number, literal
from axis_path.core.locate import Interval

#: How a number may be given: a float stands for its shortest decimal, a text is an expression.
GivenNumber = float | int | Fraction | str


class Numbers:
    """Reads numbers among the names of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot

    def number(self, given: GivenNumber | Ball, unit: UnitProduct = NO_UNIT) -> Ball:
        """Return a number, or a text such as ``2pi``, as a ball that keeps its exact form.

        Args:
            given: the number, in the unit; a text may be a quantity that can be shown in it.
            unit: of which it is.

        Raises:
            MathError: the text has no value.
        """
        if isinstance(given, Ball):
            return given
        if isinstance(given, str):
            expression, _ = self._snapshot.analysis.constant(given, unit)
            value = evaluate_constant(expression, self._snapshot.values, bits=VALUE_BITS)
            if value.defined is not Defined.YES:
                reason = value.reason or "it could not be decided"
                raise DomainError(f"`{given}` has no value: {reason}.", position=(0, len(given)))
            return Constant.of(value, expression)
        with precision(VALUE_BITS):
            return ball.from_fraction(exact_number(given))

    def number_or_error(
        self, given: GivenNumber, unit: UnitProduct = NO_UNIT
    ) -> Ball | MathError:  # fmt: skip
        """Return a number of a unit, or why it has no value."""
        try:
            return self.number(given, unit)
        except MathError as err:
            return err

    def positive(self, text: str, unit: UnitProduct = NO_UNIT) -> float:
        """Return a typed number of a unit that is above zero, such as a step.

        Raises:
            MathError: it has no value, or is not above zero.
        """
        value = self.number(text, unit.of_differences)
        if value.sign() != 1:
            raise DomainError(f"`{text}` is not above zero.", position=(0, len(text)))
        return float(value.value.mid())

    def rational(self, given: GivenNumber, unit: UnitProduct = NO_UNIT) -> Fraction:
        """Return a number as a fraction: of one that is none, the nearest float's shortest decimal.

        Raises:
            MathError: a text has no value, or one that is no real number.
        """
        if not isinstance(given, str):
            return exact_number(given)
        known = literal(given)
        if known is not None:
            return known
        value = self.number(given, unit)
        if value.exact is not None:
            return Fraction(int(value.exact.p), int(value.exact.q))
        return exact_number(float(value.value.mid()))

    def spelled_out(self, text: str, unit: UnitProduct) -> str:
        """Return a typed quantity with its unit in full where a name of the study hides it.

        ``100 N`` in a field for a force means newtons, even where N is a name; ``100 newton`` says
        so whatever the names are, and is what is kept. Any other text stays as it is.

        Args:
            text: what was typed.
            unit: in which it is shown.
        """
        try:
            meant = read_expression(text, Vocabulary()) if unit.parts else None
            core = meant.operand if isinstance(meant, Negative) else meant
            if not (isinstance(core, Quantity) and isinstance(core.operand, Number)):
                return text
            if core.more or core.unit.dimension.without_angle != unit.dimension.without_angle:
                return text
            if read_expression(text, self._snapshot.analysis.names()) == meant:
                return text
        except MathError:
            return text
        return f"{text.rstrip().removesuffix(core.typed).rstrip()} {core.unit.spelled}"

    def with_unit(self, text: str, unit: UnitProduct) -> str:
        """Return a typed number as it stands in a line: a plain number gets the unit.

        Args:
            text: what was typed, ``4.5``, ``4500 ms`` or ``2a``.
            unit: of what it is put for.

        Raises:
            MathError: it has no value, or cannot be shown in the unit.
        """
        self.number(text, unit)
        if not unit.parts:
            return text
        analysis = self._snapshot.analysis
        measure, _ = analysis.measured(read_expression(text, analysis.names()), text)
        if measure is not None and not dimension_of(measures_of(measure)[0]).is_plain:
            return self.spelled_out(text, unit)
        if literal(text) is None:
            return f"({text}) {unit.spelled}"
        return self.spelled_out(f"{text.strip()} {unit.symbol}", unit)

    def uses(self, text: str) -> frozenset[str]:
        """Return the names that a typed number uses; none if it does not read."""
        if literal(text) is not None:
            return frozenset()
        return self._snapshot.analysis.uses_of(text)

    def names_used(self, text: str) -> frozenset[str]:
        """Return the names of the study that a typed number uses; none if it does not read."""
        return self.uses(text) & frozenset(self._snapshot.names())

    def interval(
        self,
        function: RealFunction | None,
        low: GivenNumber | Ball | None,
        high: GivenNumber | Ball | None,
    ) -> Interval:
        """Return where to search: what is given, else the domain, else the first window.

        What is given is in the unit of the function's variable, or a quantity of any unit.

        Raises:
            DomainError: there is nothing between the ends.
        """
        ends, unit = [], NO_UNIT if function is None else function.units.variable
        own_low, own_high = (None, None) if function is None else (function.low, function.high)
        for given, own, home in ((low, own_low, HOME_X[0]), (high, own_high, HOME_X[1])):
            if given is not None:
                ends.append(self.number(given, unit))
            else:
                ends.append(own.value if own is not None else self.number(home))
        with precision(VALUE_BITS):
            if ball.subtract(ends[1], ends[0]).sign() != 1:
                raise DomainError("The search needs a lower end that is less than its upper end.")
        return Interval(ends[0], ends[1])

"""Compute the values of expressions: numbers, points, lists and numbers with i, and exact forms."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

import numpy as np

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.arithmetic.real_number import EnclosedNumber, Parameters
from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.compiled import CompiledValue
from axis_path.core.errors import LimitError, ListError, MathError
from axis_path.core.evaluate import (
    VALUE_BITS,
    ExactForm,
    Expression,
    ListSource,
    Op,
    Result,
    evaluate_complex,
    evaluate_constant,
    exact_form,
    has_zero_to_the_zero,
    inputs_of,
    make_complex,
    make_list,
    make_point,
    make_result,
    most_bits,
    sample_inputs,
)
from axis_path.core.evaluate.lists import Elements
from axis_path.core.language import plain, read_expression
from axis_path.core.language.tree import Call, Node
from axis_path.core.limits import LISTED_ROWS
from axis_path.core.threads import COMPUTING

_CONVENTION = "0^0 counts as 1, by convention."
#: So many digits are enough to say what a number is over the complex numbers.
_COMPLEX_DIGITS = 6
#: How many elements of a list are written out with all their digits.
_SHOWN_ELEMENTS = 10
#: An exact form must agree with the number to so many binary digits.
_CHECK_BITS = 256


@dataclass(frozen=True)
class Evaluator:
    """Computes in one state of a study.

    Attributes:
        lists: where the elements of lists come from.
        parameters: the values of the sliders.
        analysis: reads and compiles exact forms, to check them.
    """

    lists: Mapping[str, ListSource]
    parameters: Parameters
    analysis: Analysis

    def value(self, compiled: CompiledValue, node: Node | None = None) -> Result:
        """Return the result of an expression.

        Args:
            compiled: what to compute.
            node: the expression as it was read, for naming the place where there is no value.

        Raises:
            MathError: lists that do not fit, or a limit.
        """
        if compiled.shaped.lists:
            return self._list(compiled)
        first = self.number(compiled.first, node)
        if compiled.second is None:
            return first
        return make_point(first, self.number(compiled.second, node))

    def number(self, expression: Expression, node: Node | None = None) -> Result:
        """Return the result of a number in the graph; see ``value`` for ``node``."""
        if expression.program.is_complex:
            return self._complex(expression)

        def at_bits(bits: int) -> Ball:
            value = evaluate_constant(expression, self.parameters, bits=bits)
            if value.defined is Defined.NO and isinstance(node, Call):
                return ball.undefined(value.reason + self._setting(node))
            return value

        most = most_bits(expression.program)
        has_sums = any(step.op == Op.OVER for step in expression.program.steps)
        is_convention = has_zero_to_the_zero(expression, self.parameters)
        result = make_result(
            at_bits, lambda: self.exact_form(expression), most_bits=most,
            is_exact_sought=not has_sums,
            remark=_CONVENTION if is_convention else "",
        )  # fmt: skip
        # A function of the study is one of real numbers.
        is_own = isinstance(node, Call) and bool(self._setting(node))
        if not result.reason or has_sums or is_own:
            return result
        return replace(result, reason=result.reason + self._over_complex(expression))

    def _over_complex(self, expression: Expression) -> str:
        """Return what an expression without a real value is over the complex numbers, in words."""
        try:
            value = self._complex(expression)
            text = "" if value.reason else value.decimal(_COMPLEX_DIGITS)
        except MathError:
            return ""
        return f"; over the complex numbers it is {text}" if text.endswith("i") else ""

    def _setting(self, node: Call) -> str:
        """Describe at which place a function of the study has no value."""
        function = self.analysis.meaning(node.function)
        variable = getattr(getattr(function, "line", None), "variable", None)
        if variable is None or len(node.arguments) != 1:
            return ""
        return f" at {variable} = {plain(node.arguments[0]).replace('-', '−')}"

    def _complex(self, expression: Expression) -> Result:
        return make_complex(
            lambda bits: evaluate_complex(expression, self.parameters, bits=bits),
            lambda: self.exact_form(expression),
        )

    def exact_form(
        self, expression: Expression, at_bits: Callable[[int], Ball] | None = None
    ) -> ExactForm:
        """Look for the exact form of an expression without a variable.

        Args:
            expression: what is looked for.
            at_bits: computes it with so many binary digits, if that is not done step by step.
        """
        expression = self._written_out(expression)
        form = exact_form(expression.program, self.parameters)
        if form.text is None or self._is_right(form.text, expression, at_bits):
            return form
        return ExactForm(None)

    def _written_out(self, expression: Expression) -> Expression:
        """Return an expression with the values put in that solving found in exact form."""
        if not self.analysis.solved_names:
            return expression
        graph = self.analysis.cache.graph
        with COMPUTING:
            step = expression.step
            for name in sorted(expression.program.parameters & self.analysis.solved_names.keys()):
                value = self.parameters[name]
                source = value.source if isinstance(value, EnclosedNumber) else None
                if isinstance(source, Expression):
                    step = graph.substitute(
                        step, graph.add(Op.PARAMETER, payload=name), source.step
                    )
        return expression.sibling(step)

    def _is_right(
        self, text: str, expression: Expression, at_bits: Callable[[int], Ball] | None
    ) -> bool:
        """Check an exact form by numbers: algebra may choose another branch than we do."""
        try:
            node = read_expression(text, self.analysis.names())
            claimed = self.analysis.expressions.compile_exact(node)
        except MathError:
            return False
        if claimed.program.is_complex or expression.program.is_complex:
            a, b = (
                evaluate_complex(number, self.parameters, bits=_CHECK_BITS)
                for number in (claimed, expression)
            )
            with precision(_CHECK_BITS):
                return bool(a.overlaps(b))
        one = evaluate_constant(claimed, self.parameters, bits=_CHECK_BITS)
        if at_bits is None:
            other = evaluate_constant(expression, self.parameters, bits=_CHECK_BITS)
        else:
            other = at_bits(_CHECK_BITS)
        with precision(_CHECK_BITS):
            return one.is_defined and other.is_defined and bool(one.value.overlaps(other.value))

    def elements(self, compiled: CompiledValue) -> list[Ball]:
        """Return the elements of a list of numbers, exact where they are.

        Raises:
            MathError: lists that do not fit, or a limit.
        """
        inputs = inputs_of(compiled.shaped, self.lists, compiled.first, self.parameters)
        count = len(self._column(compiled.first, inputs))
        if compiled.second is not None:
            raise ListError("A list of numbers is wanted here, not one of points.")
        if count > LISTED_ROWS.value:
            raise LimitError(f"{LISTED_ROWS.value:,} places of your own are the most.")
        return [
            evaluate_constant(
                compiled.first,
                self.parameters,
                bits=VALUE_BITS,
                inputs={name: source.exact(k, VALUE_BITS) for name, source in inputs.items()},
            )
            for k in range(count)
        ]

    def _list(self, compiled: CompiledValue) -> Result:
        inputs = inputs_of(compiled.shaped, self.lists, compiled.first, self.parameters)
        columns = [self._column(compiled.first, inputs)]
        if compiled.second is not None:
            columns.append(self._column(compiled.second, inputs))
        count = len(columns[0])
        shown = tuple(
            self._element(compiled, inputs, k) for k in range(min(count, _SHOWN_ELEMENTS))
        )
        values = columns[0] if compiled.second is None else np.column_stack(columns)
        return make_list(values, shown)

    def _column(self, expression: Expression, inputs: Mapping[str, Elements]) -> np.ndarray:
        if expression.program.is_complex:
            raise ListError("A list holds real numbers.")
        used = {name: inputs[name].floats for name in inputs}
        return sample_inputs(expression, self.parameters, used)

    def _element(
        self, compiled: CompiledValue, inputs: Mapping[str, Elements], index: int
    ) -> Result:
        def part(expression: Expression) -> Result:
            def at_bits(bits: int) -> Ball:
                used = {name: source.exact(index, bits) for name, source in inputs.items()}
                return evaluate_constant(expression, self.parameters, bits=bits, inputs=used)

            return make_result(at_bits, lambda: ExactForm(None))

        first = part(compiled.first)
        return first if compiled.second is None else make_point(first, part(compiled.second))

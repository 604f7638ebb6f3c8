"""Print a tree as LaTeX, for use elsewhere; functions in pieces need its package amsmath."""

from __future__ import annotations

from collections.abc import Sequence

from axis_path.core.language.line_types import FunctionLine, Line
from axis_path.core.language.textbook import Textbook, split_index
from axis_path.core.language.tree import Node, Summary
from axis_path.core.language.vocabulary import GREEK

_OWN_COMMANDS = {
    "sin", "cos", "tan", "cot", "sec", "csc", "sinh", "cosh", "tanh", "coth", "exp", "ln", "log",
    "min", "max", "gcd",
}  # fmt: skip
_COMMANDS = {
    "asin": r"\arcsin", "acos": r"\arccos", "atan": r"\arctan", "pi": r"\pi", "inf": r"\infty",
    "gamma": r"\Gamma",
}  # fmt: skip
_SIGNS = {
    "−": "-", "·": r" \cdot ", "≤": r" \le ", "≥": r" \ge ", "≠": r" \ne ", "<": " < ", ">": " > ",
    "=": " = ", "+": " + ",
    "∘": r" \circ ", "%": r"\%", "…": r" \ldots ",
}  # fmt: skip
_BRACKETS = {
    "()": (r"\left(", r"\right)"), "[]": (r"\left[", r"\right]"), "||": (r"\left|", r"\right|"),
}  # fmt: skip
_LARGE = {Summary.SUM: r"\sum", Summary.PRODUCT: r"\prod", Summary.INTEGRAL: r"\int"}


class Latex(Textbook):
    """The parts in LaTeX."""

    def name(self, name: str) -> str:
        """Set a name."""
        base, index = split_index(name)
        if base in _OWN_COMMANDS or base in GREEK:
            main = f"\\{base} "
        elif base in _COMMANDS:
            main = f"{_COMMANDS[base]} "
        else:
            main = base if len(base) == 1 else f"\\operatorname{{{base}}}"
        return f"{main.rstrip()}_{{{index}}}" if index else main

    def number(self, text: str) -> str:
        """Set figures."""
        return text.replace("−", "-")

    def sign(self, sign: str) -> str:
        """Set a sign."""
        return _SIGNS.get(sign, sign)

    def words(self, text: str) -> str:
        """Set words."""
        return f"\\text{{{text}}}"

    def space(self) -> str:
        """Return a thin space."""
        return r"\,"

    def nothing(self) -> str:
        """Let factors touch."""
        return " "

    def separator(self, sign: str) -> str:
        """Set a comma or a colon."""
        return f"{sign} " if sign == "," else r"\colon "

    def bracketed(self, inner: str, *, shape: str = "()") -> str:
        """Set brackets that grow."""
        left, right = _BRACKETS[shape]
        return f"{left}{inner}{right}"

    def fraction(self, top: str, bottom: str) -> str:
        """Set a fraction."""
        return f"\\frac{{{top}}}{{{bottom}}}"

    def raised(self, base: str, exponent: str) -> str:
        """Set a power."""
        return f"{{{base.rstrip()}}}^{{{exponent}}}"

    def root(self, inner: str, index: str | None) -> str:
        """Set a root."""
        return f"\\sqrt{{{inner}}}" if index is None else f"\\sqrt[{index}]{{{inner}}}"

    def primed(self, name: str, order: int) -> str:
        """Set a derivative's name."""
        return name.rstrip() + "'" * order

    def over(self, summary: Summary, low: str, high: str) -> str:
        """Set a large sign with its ends."""
        return f"{_LARGE[summary]}_{{{low}}}^{{{high}}} "

    def cases(self, rows: list[tuple[str, str]]) -> str:
        """Set pieces behind a brace."""
        lines = r" \\ ".join(f"{value} & {condition}" for value, condition in rows)
        return f"\\begin{{cases}} {lines} \\end{{cases}}"

    def table(self, rows: list[list[str]], *, shape: str = "[]") -> str:
        """Set a matrix."""
        lines = r" \\ ".join(" & ".join(row) for row in rows)
        return f"\\begin{{bmatrix}} {lines} \\end{{bmatrix}}"

    def lowered(self, base: str, index: str) -> str:
        """Set an index below a base."""
        return f"{{{base.rstrip()}}}_{{{index}}}"

    def stacked(self, lines: list[str]) -> str:
        """Set lines below one another behind a brace."""
        rows = r" \\ ".join(lines)
        return f"\\begin{{cases}} {rows} \\end{{cases}}"

    def degree(self) -> str:
        """Set the sign of degrees."""
        return r"^{\circ}"

    def stroke(self) -> str:
        """Return a stroke between units."""
        return "/"

    def whole(self, inner: str) -> str:
        """Leave a formula as it is."""
        return inner.strip()


_PRINTER = Latex()


def latex(node: Node) -> str:
    """Print an expression as LaTeX, without the signs that begin and end a formula."""
    return _PRINTER.whole(_PRINTER.node(node))


def latex_comparisons(parts: Sequence[tuple[tuple[Node, ...], tuple[str, ...]]]) -> str:
    """Print one comparison as LaTeX, or several below one another."""
    printed = [_PRINTER.whole(_PRINTER.comparison(*part)) for part in parts]
    if len(printed) == 1:
        return printed[0]
    return _PRINTER.stacked(printed)


def latex_line(line: Line, name: str | None) -> str:
    """Print a line as LaTeX, with its domain; a note gives an empty text."""
    inner = _PRINTER.line(line, name)
    domains = _PRINTER.domains(line) if isinstance(line, FunctionLine) else ""
    return f"{inner} \\quad \\text{{for }} {domains}" if domains else inner

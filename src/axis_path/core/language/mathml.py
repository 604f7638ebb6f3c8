"""Typeset a tree as MathML; the output is made of our own fixed elements and escaped text only."""

from __future__ import annotations

from html import escape

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.language.line_types import FunctionLine, Line
from axis_path.core.language.quantities import set_unit
from axis_path.core.language.textbook import Textbook, split_index
from axis_path.core.language.tree import Domain, Node, Summary
from axis_path.core.language.vocabulary import GREEK

_BRACKETS = {
    "()": ('<mo stretchy="false">(</mo>', '<mo stretchy="false">)</mo>'),
    "[]": ('<mo stretchy="false">[</mo>', '<mo stretchy="false">]</mo>'),
    "||": (
        '<mo stretchy="true" form="prefix">|</mo><mrow>',
        '</mrow><mo stretchy="true" form="postfix">|</mo>',
    ),
}
_LARGE = {Summary.SUM: "∑", Summary.PRODUCT: "∏", Summary.INTEGRAL: "∫"}
_SIGNS = {"pi": "π", "inf": "∞", "gamma": "Γ"}


class MathMl(Textbook):
    """The parts in MathML."""

    def name(self, name: str) -> str:
        """Set a name."""
        base, index = split_index(name)
        main = f"<mi>{escape(_SIGNS.get(base) or GREEK.get(base, base))}</mi>"
        if not index:
            return main
        below = f"<mn>{index}</mn>" if index.isdigit() else f"<mi>{escape(index)}</mi>"
        return f"<msub>{main}{below}</msub>"

    def number(self, text: str) -> str:
        """Set figures."""
        return f"<mn>{escape(text)}</mn>"

    def sign(self, sign: str) -> str:
        """Set a sign."""
        if sign == "!":
            return '<mo lspace="0em" rspace="0em">!</mo>'
        return f"<mo>{escape(sign)}</mo>"

    def words(self, text: str) -> str:
        """Set words."""
        return f"<mtext>{escape(text)}</mtext>"

    def space(self) -> str:
        """Return a thin space."""
        return '<mspace width="0.17em"></mspace>'

    def nothing(self) -> str:
        """Return the invisible sign of a product."""
        return "<mo>&#x2062;</mo>"

    def separator(self, sign: str) -> str:
        """Set a comma or a colon."""
        return f'<mo separator="true">{sign}</mo>'

    def bracketed(self, inner: str, *, shape: str = "()") -> str:
        """Set brackets; bars grow with what they hold."""
        left, right = _BRACKETS[shape]
        return f"{left}{inner}{right}"

    def fraction(self, top: str, bottom: str) -> str:
        """Set a fraction."""
        return f"<mfrac>{_row(top)}{_row(bottom)}</mfrac>"

    def raised(self, base: str, exponent: str) -> str:
        """Set a power."""
        return f"<msup>{_row(base)}{_row(exponent)}</msup>"

    def root(self, inner: str, index: str | None) -> str:
        """Set a root."""
        if index is None:
            return f"<msqrt>{_row(inner)}</msqrt>"
        return f"<mroot>{_row(inner)}{_row(index)}</mroot>"

    def primed(self, name: str, order: int) -> str:
        """Set a derivative's name."""
        return f'{name}<mo lspace="0.05em" rspace="0em">{"′" * order}</mo>'

    def over(self, summary: Summary, low: str, high: str) -> str:
        """Set a large sign with its ends."""
        element = "msubsup" if summary is Summary.INTEGRAL else "munderover"
        return f"<{element}><mo>{_LARGE[summary]}</mo>{_row(low)}{_row(high)}</{element}>"

    def cases(self, rows: list[tuple[str, str]]) -> str:
        """Set pieces behind a brace."""
        lines = "".join(
            f"<mtr><mtd>{_row(value)}</mtd><mtd>{_row(condition)}</mtd></mtr>"
            for value, condition in rows
        )
        return f'<mrow><mo stretchy="true">{{</mo><mtable>{lines}</mtable></mrow>'

    def stacked(self, lines: list[str]) -> str:
        """Set lines below one another behind a brace."""
        rows = "".join(f"<mtr><mtd>{_row(line)}</mtd></mtr>" for line in lines)
        return f'<mrow><mo stretchy="true">{{</mo><mtable>{rows}</mtable></mrow>'

    def table(self, rows: list[list[str]], *, shape: str = "[]") -> str:
        """Set a matrix between brackets that grow."""
        lines = "".join(
            f"<mtr>{''.join(f'<mtd>{_row(entry)}</mtd>' for entry in row)}</mtr>" for row in rows
        )
        left, right = shape[0], shape[1]
        return (
            f'<mrow><mo stretchy="true">{left}</mo><mtable>{lines}</mtable>'
            f'<mo stretchy="true">{right}</mo></mrow>'
        )

    def lowered(self, base: str, index: str) -> str:
        """Set an index below a base."""
        return f"<msub>{_row(base)}{_row(index)}</msub>"

    def degree(self) -> str:
        """Set the sign of degrees."""
        return '<mo lspace="0em" rspace="0em">°</mo>'

    def stroke(self) -> str:
        """Return a stroke between units."""
        return '<mo lspace="0em" rspace="0em">/</mo>'

    def whole(self, inner: str) -> str:
        """Wrap a formula."""
        return f"<math>{_row(inner)}</math>"


def _row(inner: str) -> str:
    return f"<mrow>{inner}</mrow>"


_PRINTER = MathMl()


def typeset(node: Node) -> str:
    """Typeset an expression as one ``<math>`` element."""
    return _PRINTER.whole(_PRINTER.node(node))


def typeset_unit(unit: UnitProduct) -> str:
    """Typeset a unit as one ``<math>`` element; empty for none."""
    return _PRINTER.whole(set_unit(_PRINTER, unit)) if unit.parts else ""


def typeset_line(line: Line, name: str | None) -> str:
    """Typeset a line as one ``<math>`` element; a note gives an empty text."""
    return _PRINTER.line(line, name)


def typeset_comparison(terms: tuple[Node, ...], signs: tuple[str, ...]) -> str:
    """Typeset terms with comparisons between them as one ``<math>`` element."""
    return _PRINTER.whole(_PRINTER.comparison(terms, signs))


def typeset_comparisons(parts: list[tuple[tuple[Node, ...], tuple[str, ...]]]) -> str:
    """Typeset several comparisons below one another, behind a brace, as one ``<math>`` element."""
    return _PRINTER.whole(_PRINTER.stacked([_PRINTER.comparison(*part) for part in parts]))


def typeset_domain(domain: Domain, variable: str) -> str:
    """Typeset a domain as one ``<math>`` element; an unrestricted one gives an empty text."""
    inner = _PRINTER.domain(domain, variable)
    return _PRINTER.whole(inner) if inner else ""


def typeset_domains(line: FunctionLine) -> str:
    """Typeset the domains of all variables of a function; empty if none is restricted."""
    return _PRINTER.domains(line)


def typeset_signature(name: str, arguments: tuple[str, ...]) -> str:
    """Typeset a name with its arguments, as the Reference shows a function."""
    if not arguments:
        return _PRINTER.whole(_PRINTER.name(name))
    inner = _PRINTER.separator(",").join(_PRINTER.name(argument) for argument in arguments)
    return _PRINTER.whole(_PRINTER.name(name) + _PRINTER.bracketed(inner))

"""The parts of a typeset formula, which each output makes in its own way."""

from __future__ import annotations

from abc import ABC, abstractmethod

from axis_path.core.language.tree import Summary


class Signs(ABC):
    """The parts of a formula in one output."""

    @abstractmethod
    def name(self, name: str) -> str:
        """Set a name: one letter slanted, a word upright, what follows ``_`` as an index."""

    @abstractmethod
    def number(self, text: str) -> str:
        """Set figures."""

    @abstractmethod
    def sign(self, sign: str) -> str:
        """Set an operation or a comparison."""

    @abstractmethod
    def words(self, text: str) -> str:
        """Set plain words."""

    @abstractmethod
    def space(self) -> str:
        """Return a thin space."""

    @abstractmethod
    def nothing(self) -> str:
        """Return what stands between factors that touch."""

    @abstractmethod
    def separator(self, sign: str) -> str:
        """Set what separates arguments."""

    @abstractmethod
    def bracketed(self, inner: str, *, shape: str = "()") -> str:
        """Set brackets around a formula."""

    @abstractmethod
    def fraction(self, top: str, bottom: str) -> str:
        """Set a fraction."""

    @abstractmethod
    def raised(self, base: str, exponent: str) -> str:
        """Set a power."""

    @abstractmethod
    def root(self, inner: str, index: str | None) -> str:
        """Set a root; without an index the square root."""

    @abstractmethod
    def primed(self, name: str, order: int) -> str:
        """Set a name with its marks of derivation."""

    @abstractmethod
    def over(self, summary: Summary, low: str, high: str) -> str:
        """Set a large sign with its ends; ``low`` of a sum holds its variable."""

    @abstractmethod
    def cases(self, rows: list[tuple[str, str]]) -> str:
        """Set the pieces of a function, each with its condition."""

    @abstractmethod
    def table(self, rows: list[list[str]], *, shape: str = "[]") -> str:
        """Set a matrix."""

    @abstractmethod
    def lowered(self, base: str, index: str) -> str:
        """Set a base with an index below it."""

    @abstractmethod
    def stacked(self, lines: list[str]) -> str:
        """Set lines below one another behind a brace."""

    @abstractmethod
    def degree(self) -> str:
        """Set the sign of degrees."""

    @abstractmethod
    def stroke(self) -> str:
        """Return the stroke of a quotient of units."""

    @abstractmethod
    def whole(self, inner: str) -> str:
        """Finish a formula."""

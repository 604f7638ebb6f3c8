"""The names that a line may use, and how a run of letters is read with them.

A run that is a known name is that name. Else it is cut, from the left, into the longest known
names; else it is an error with a suggestion. A single unknown letter stays a letter without a
value, so that the study can offer to make it a slider.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace

from axis_path.core.catalogue import CONSTANTS, DEGREE, FUNCTIONS, SPELLINGS
from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS
from axis_path.core.errors import UnknownNameError
from axis_path.core.language import messages

_PLANE_LETTERS = re.compile(r"[xyz]{2,3}")
#: Greek letters, typed by name or by sign: one name for both.
GREEK = {
    "alpha": "α", "beta": "β", "delta": "δ", "epsilon": "ε", "eta": "η",
    "theta": "θ", "kappa": "κ", "lambda": "λ", "mu": "μ", "nu": "ν", "rho": "ρ", "sigma": "σ",
    "tau": "τ", "phi": "φ", "chi": "χ", "psi": "ψ", "omega": "ω",
}  # fmt: skip
_GREEK_NAMES = {sign: name for name, sign in GREEK.items()}

#: The functions that bring a variable of their own, with an example of each.
SUMMARIES = {
    "sum": "sum(k^2, k, 1, 10)",
    "product": "product(k, k, 1, 5)",
    "integral": "integral(x^2, x, 0, 2)",
}

#: Words with a meaning of their own, though they are no functions and no values.
_OTHER_WORDS = frozenset({"inf", "rad"}).union(*(entry.options for entry in FUNCTIONS.values()))

#: The functions that build a list or a matrix: how many commas their arguments have, and behind
#: which of them their own variables stand.
BUILDERS = {"list": (3, (0,)), "matrix": (6, (0, 3))}
BUILDER_EXAMPLES = {
    "list": "list(k^2, k, 1, 10)",
    "matrix": "matrix(1/(i + j), i, 1, 2, j, 1, 3)",
}

#: Words of the language that cannot name anything.
WORDS = frozenset(
    {
        "for",
        "and",
        "otherwise",
        "from",
        "to",
        "in",
        "step",
        "points",
        "rad",
        "inf",
        "i",
        *SUMMARIES,
        *BUILDERS,
    }
)


def _letters(first: int = 0x80, last: int = 0xFFFF) -> str:
    """Return the letters of all scripts beyond ASCII as ranges of a character class."""
    ranges, begin = [], -1
    for code in range(first, last + 2):
        is_letter = code <= last and chr(code).isalpha()
        if is_letter and begin < 0:
            begin = code
        elif not is_letter and begin >= 0:
            ranges.append(f"{chr(begin)}-{chr(code - 1)}")
            begin = -1
    return "".join(ranges)


#: A name begins with a letter of any script. A small Greek letter is a name of its own: after
#: other letters it begins the next one.
_LETTER = f"A-Za-z_{_letters()}"
NAME_PATTERN = re.compile(rf"[{_LETTER}](?:(?![α-ω])[{_LETTER}0-9])*")


def spelled(text: str) -> str:
    """Return the one name of all spellings: ``θ`` is ``theta``, ``arcsin`` is ``asin``."""
    return SPELLINGS.get(text) or _GREEK_NAMES.get(text, text)


@dataclass(frozen=True, slots=True)
class Piece:
    """A part of a run of letters: one name, or digits that follow a cut-off name."""

    name: str
    start: int
    end: int


@dataclass(frozen=True, slots=True)
class Vocabulary:
    """The names known to one line.

    Attributes:
        functions: functions of the study, with the number of values each takes.
        values: parameters of the study.
        variables: the line's own variables; they hide a parameter of the same name.
        letters: names that may be unknowns; behind a number a unit of the same letters is meant.
        sets: the texts of sets of equations, each with the names that get their values from it.
    """

    functions: frozenset[str] = frozenset()
    values: frozenset[str] = frozenset()
    variables: frozenset[str] = frozenset()
    letters: frozenset[str] = frozenset()
    sets: frozenset[tuple[str, frozenset[str]]] = frozenset()

    def for_line(self, text: str) -> Vocabulary:
        """Return these names for reading one line: a set of equations defines some itself."""
        if not self.sets:
            return self
        own = frozenset[str]().union(*(names for other, names in self.sets if other == text))
        return replace(self, values=self.values - own, sets=frozenset())

    def is_function(self, name: str) -> bool:
        """Check whether a name is applied to what follows it."""
        if name in self.variables:
            return False
        return name in FUNCTIONS or name in self.functions or name in SUMMARIES or name in BUILDERS

    def is_value(self, name: str) -> bool:
        """Check whether a name stands for a number."""
        return self.is_own_value(name) or name in CONSTANTS or self.is_physical(name)

    def is_own_value(self, name: str) -> bool:
        """Check whether the study or the line itself gives a name a value."""
        return name in self.variables or name in self.values or name in self.letters

    def hides_unit(self, name: str) -> bool:
        """Check whether a name wins over a unit of the same letters."""
        return self.is_value(name) and name not in self.letters

    def is_physical(self, name: str) -> bool:
        """Check whether a name is a constant of nature, which the study does not define itself."""
        is_own = self.is_own_value(name) or name in self.functions
        return name in PHYSICAL_CONSTANTS and not is_own

    def is_known(self, name: str) -> bool:
        """Check whether a name means anything."""
        return self.is_function(name) or self.is_value(name) or name in _OTHER_WORDS

    def and_variables(self, *names: str) -> Vocabulary:
        """Return these names with more variables."""
        if self.variables.issuperset(names):
            return self
        return replace(self, variables=self.variables.union(names))

    def and_letters(self, names: Iterable[str]) -> Vocabulary:
        """Return these names with more names that may be unknowns."""
        return replace(self, letters=self.letters.union(names))

    def all_names(self) -> frozenset[str]:
        """Return every name, for suggestions."""
        shown = set(FUNCTIONS) | set(SUMMARIES) | set(BUILDERS) | (set(CONSTANTS) - {DEGREE})
        own = self.functions | self.values | self.variables | self.letters
        return own | shown | PHYSICAL_CONSTANTS.keys()

    def cut(self, run: str, start: int) -> list[Piece]:
        """Read a run of letters, digits and ``_`` that stands at ``start`` in the text.

        Raises:
            UnknownNameError: it is no name and no product of names.
        """
        whole = spelled(run)
        end = start + len(run)
        if self.is_known(whole) or len(run) == 1 or whole in GREEK:
            return [Piece(whole, start, end)]
        if _PLANE_LETTERS.fullmatch(run):
            # The letters of the plane and of space beside one another are a product.
            return [Piece(letter, start + k, start + k + 1) for k, letter in enumerate(run)]
        pieces = self._split(run, start)
        if pieces is not None and not all(self.is_known(piece.name) for piece in pieces):
            self._refuse_capitals(run, start)
        if pieces is None:
            raise self._unknown(run, start)
        return pieces

    def _split(self, run: str, start: int) -> list[Piece] | None:
        pieces: list[Piece] = []
        at, unknown = 0, 0
        # No piece is longer than the longest name, which keeps a run of 2,000 letters quick.
        longest = max(map(len, self.all_names()), default=1)
        while at < len(run):
            if run[at].isdigit():
                stop = at + len(re.match(r"[0-9]+", run[at:])[0])  # type: ignore[index]
                if not pieces or not self.is_function(pieces[-1].name):
                    # sin2x is sin(2x), but x2 is neither x·2 nor x²: ask rather than guess.
                    return None
                pieces.append(Piece(run[at:stop], start + at, start + stop))
                at = stop
                continue
            ends = range(min(len(run), at + longest), at, -1)
            stop = next((end for end in ends if self.is_known(spelled(run[at:end]))), at + 1)
            unknown += not self.is_known(spelled(run[at:stop]))
            pieces.append(Piece(spelled(run[at:stop]), start + at, start + stop))
            at = stop
        # Two letters such as bx, of which one has no value yet, are a product; longer runs with
        # unknown letters are more likely a misspelt name.
        if unknown and (len(run) > 2 or any(piece.name == "_" for piece in pieces)):
            return None
        return pieces

    def _refuse_capitals(self, run: str, start: int) -> None:
        """Refuse a known name that is written in capitals.

        Raises:
            UnknownNameError: it is one.
        """
        near = _in_small_letters(run, self.all_names())
        if near is not None:
            message = messages.NAME_UNKNOWN_DID_YOU(name=run, near=near)
            position = (start, start + len(run))
            raise UnknownNameError(message, position=position, suggestion=near)

    def _unknown(self, run: str, start: int) -> UnknownNameError:
        position = (start, start + len(run))
        meant = _MEANT.get(run.lower())
        if meant is not None:
            message = messages.NAME_UNKNOWN_WRITE_MEANT(name=run, meant=meant)
            return UnknownNameError(message, position=position)
        near = nearest(run, self.all_names())
        if near is not None:
            message = messages.NAME_UNKNOWN_DID_YOU(name=run, near=near)
            return UnknownNameError(message, position=position, suggestion=near)
        letters = tuple(dict.fromkeys(c for c in run if not self.is_known(spelled(c))))
        if run.isalpha() and len(run) <= 4:
            product = " ".join(run)
            message = messages.NAME_UNKNOWN_DO_YOU(name=run, product=product)
            return UnknownNameError(message, position=position, suggestion=product, letters=letters)
        return UnknownNameError(messages.NAME_UNKNOWN(name=run), position=position)


#: Words for what is written otherwise here.
_MEANT = {
    "transpose": "`A^T`", "inverse": "`A^-1`", "determinant": messages.OR,
    "average": "`mean(L)`", "length": "`count(L)`", "size": "`count(L)`",
    "deviation": "`sd(L)`", "conjugate": "`conj(z)`", "choose": "`binomial(n, k)`",
    "last": messages.INSIDE_SQUARE_BRACKETS,
    "all": messages.INSIDE_SQUARE_BRACKETS_2,
}  # fmt: skip


def _in_small_letters(run: str, names: frozenset[str]) -> str | None:
    return next((name for name in sorted(names) if name.lower() == run.lower() != ""), None)


def nearest(run: str, names: frozenset[str]) -> str | None:
    """Return the known name that differs from ``run`` by one slip, or None.

    A slip is one letter too many, one missing, one wrong, or two neighbours exchanged.
    """
    in_capitals = _in_small_letters(run, names)
    if in_capitals is not None:
        return in_capitals
    names_near = [
        name for name in names if len(name) >= 2 and len(run) >= 2 and _one_slip(run, name)
    ]
    # The name with the same first letter, then the shortest, is the likeliest.
    return min(names_near, key=lambda name: (name[0] != run[0], len(name), name), default=None)


def _one_slip(a: str, b: str) -> bool:
    if a.lower() == b.lower():
        return True
    if abs(len(a) - len(b)) > 1 or (min(len(a), len(b)) < 3 and len(a) == len(b)):
        return False
    start = next(
        (k for k, (x, y) in enumerate(zip(a, b, strict=False)) if x != y), min(len(a), len(b))
    )
    rest_a, rest_b = a[start:], b[start:]
    exchanged = rest_a[:2] == rest_b[:2][::-1] and rest_a[2:] == rest_b[2:]
    return exchanged or rest_a[1:] == rest_b or rest_a == rest_b[1:] or rest_a[1:] == rest_b[1:]

"""The two kinds of failure that a student sees: a wrong text and a limit reached.

Every class has a ``code``; ``docs/errors.md`` lists them all, and a test holds it to that.
"""

from dataclasses import dataclass

from axis_path.core import messages


@dataclass(frozen=True, slots=True)
class Repair:
    """A change that mends a text.

    Attributes:
        position: what is replaced, ``(start, end)``; equal ends insert.
        text: what stands there then.
        label: what a button that does it says.
    """

    position: tuple[int, int]
    text: str
    label: str


class MathError(Exception):
    """The student's text is wrong, or asks for what is not handled yet.

    Attributes:
        message: one sentence in plain words, for the student.
        position: ``(start, end)`` in the text that was read, end excluded.
        code: a fixed word for programs.
        suggestion: a text that may stand at ``position`` instead, or None.
        letters: names without a value that could become sliders.
        path: of the field of a struct that is wrong; empty for a text of the language.
        repair: a change of the text that mends it, or None.
    """

    code = "language.wrong"

    def __init__(
        self,
        message: str,
        *,
        position: tuple[int, int] = (0, 0),
        suggestion: str | None = None,
        letters: tuple[str, ...] = (),
        repair: Repair | None = None,
        path: str = "",
    ) -> None:
        super().__init__(message)
        self.message = message
        self.position = position
        self.suggestion = suggestion
        self.letters = letters
        self.path = path
        if repair is None and suggestion is not None:
            repair = Repair(position, suggestion, messages.USE_SUGGESTION(suggestion=suggestion))
        self.repair = repair


class GrammarError(MathError):
    """The text does not read as a line of the language."""

    code = "language.grammar"


class UnknownNameError(MathError):
    """A run of letters that is no known name; another line may still define it."""

    code = "language.unknown_name"


class NoValueError(MathError):
    """A letter that is used and has no value yet."""

    code = "language.no_value"


def no_value(name: str, position: tuple[int, int] = (0, 0)) -> NoValueError:
    """Return the error of a name without a value; X and Y may be meant as x and y."""
    if name in ("X", "Y"):
        small = name.lower()
        message = messages.NO_VALUE_OR_SMALL_LETTER(name=name, small=small)
        return NoValueError(message, position=position, letters=(name,), suggestion=small)
    message = messages.NO_VALUE(name=name)
    return NoValueError(message, position=position, letters=(name,))


class ArgumentCountError(MathError):
    """A function was given more or fewer values than it takes."""

    code = "language.argument_count"


class ShapeError(MathError):
    """A number, a point or a list where another of them is wanted."""

    code = "language.shape"


class UnitError(MathError):
    """Units that do not fit together, found before anything is computed."""

    code = "language.units"


class NotHandledError(MathError):
    """A line of the language that this version cannot work with yet, and says so."""

    code = "language.not_handled"


class NameTakenError(MathError):
    """A name that belongs to the language or to another line."""

    code = "study.name_taken"


class CycleError(MathError):
    """Definitions that depend on each other."""

    code = "study.cycle"


class DomainError(MathError):
    """A domain whose ends leave nothing, or have no value."""

    code = "study.domain"


class ListError(MathError):
    """A list that cannot be made, or lists that do not fit together."""

    code = "study.list"


class SliderError(MathError):
    """A slider's value, ends or step that cannot be."""

    code = "study.slider"


class EquationError(MathError):
    """An equation, inequality or system that cannot be solved as it is typed."""

    code = "locate.equation"


class DataError(MathError):
    """Cells that are no numbers, or a fit that cannot be made from them."""

    code = "data.wrong"


class WindowError(MathError):
    """Bounds between which nothing can be drawn."""

    code = "draw.window"


class TableError(MathError):
    """A table that cannot be made from its start, stop and step."""

    code = "tabulate.table"


class HaltedError(MathError):
    """A line that was turned off because computing it used up the time or memory there is."""

    code = "study.halted"


class CommandError(MathError):
    """A command that cannot be carried out on this study."""

    code = "study.command"


class FormatError(MathError):
    """A study document that cannot be read."""

    code = "study.format"


class LimitError(MathError):
    """A limit of ``core.limits`` was reached."""

    code = "limit"


class StoppedError(LimitError):
    """A calculation took longer than anybody waits for it, or was cancelled."""

    code = "limit.time"


class CancelledError(StoppedError):
    """Nobody waits for a calculation any more."""

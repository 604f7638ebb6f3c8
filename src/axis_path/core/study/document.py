"""The open study format: a study as plain data, and back.

A document is JSON: ``{"format": "axis-path-study", "version": 1, "angle_unit": …, "lines": […],
"findings": […], "table": …}``. Numbers that must stay exact are texts. ``docs/study-format.md``
describes every field.
"""

from __future__ import annotations

from dataclasses import asdict, dataclass, field
from fractions import Fraction
from typing import Any

from axis_path.core.errors import FormatError, MathError
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import FINDINGS, LINE_LENGTH, LINES
from axis_path.core.study.axes import AxesSpec, axes_from_dict, axes_to_dict
from axis_path.core.study.line import StudyLine
from axis_path.core.study.sliders import SliderRange, exact_number, written_number
from axis_path.core.study.style import LineStyle, style_from_dict, style_to_dict

FORMAT, VERSION = "axis-path-study", 1


@dataclass(frozen=True, slots=True)
class Ask:
    """A search that is kept with the study and done again whenever something changes.

    Attributes:
        line: the id of the function's line.
        low: the lower end as it was typed; None for the domain of the function.
    """

    id: int
    line: int
    low: str | None = None
    high: str | None = None


@dataclass(frozen=True, slots=True)
class TableSpec:
    """The start, stop and step of the table of values, as typed."""

    start: str = "-5"
    stop: str = "5"
    step: str = "1"


@dataclass(frozen=True, slots=True)
class Check:
    """Points of a function that are shown over its curve.

    Attributes:
        line: the id of the function's line.
        count: how many evenly spaced points, as typed; empty for a step.
        step: their distance, as typed; empty for a count.
    """

    line: int
    count: str = ""
    step: str = ""


@dataclass(frozen=True, slots=True)
class Work:
    """A line of the scratch calculator, as typed."""

    id: int
    text: str


@dataclass(frozen=True, slots=True)
class Document:
    """All that is kept of a study."""

    unit: AngleUnit
    lines: tuple[StudyLine, ...] = ()
    asks: tuple[Ask, ...] = ()
    table: TableSpec = field(default_factory=TableSpec)
    working: tuple[Work, ...] = ()
    axes: AxesSpec = field(default_factory=AxesSpec)
    check: Check | None = None


def document_to_dict(document: Document) -> dict[str, Any]:
    """Give a document as plain data for JSON."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "angle_unit": document.unit.value,
        "lines": [_line_to_dict(line) for line in document.lines],
        "findings": [
            {"id": ask.id, "line": ask.line, "low": ask.low, "high": ask.high}
            for ask in document.asks
        ],
        "table": {
            "start": document.table.start,
            "stop": document.table.stop,
            "step": document.table.step,
        },
        **({} if document.check is None else {"check": asdict(document.check)}),
        **({} if document.axes == AxesSpec() else {"axes": axes_to_dict(document.axes)}),
        **(
            {"working": [{"id": work.id, "text": work.text} for work in document.working]}
            if document.working
            else {}
        ),
    }


def _line_to_dict(line: StudyLine) -> dict[str, Any]:
    kept: dict[str, Any] = {"id": line.id, "text": line.text}
    if line.hidden:
        kept["hidden"] = True
    if line.aside:
        kept["aside"] = True
    if line.given is not None:
        kept["given"] = line.given
    if line.tone is not None:
        kept["tone"] = line.tone
    if line.style != LineStyle():
        kept["style"] = style_to_dict(line.style)
    if line.slider is not None:
        kept["slider"] = {
            "low": written_number(line.slider.low),
            "high": written_number(line.slider.high),
            "step": written_number(line.slider.step),
        }
    return kept


def document_from_dict(given: object) -> Document:
    """Read a document.

    Raises:
        FormatError: it is no study, of a later version, or a field is not what it should be.
    """
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        raise FormatError("This is no Axis Path study.")
    version = given.get("version")
    if version != VERSION:
        raise FormatError(
            f"This study has version {version} of the format; version {VERSION} can be read."
        )
    try:
        unit = AngleUnit(_field(given, "angle_unit", str))
    except ValueError as err:
        raise FormatError("The unit of angles is radians or degrees.") from err
    lines = [_line(each) for each in _field(given, "lines", list)]
    if len(lines) > LINES.value:
        raise FormatError(f"A study can have {LINES.value} lines.")
    if len({line.id for line in lines}) != len(lines):
        raise FormatError("Two lines of the study have the same id.")
    asks = [_ask(each) for each in _field(given, "findings", list, [])]
    if len(asks) > FINDINGS.value:
        raise FormatError(f"A study can keep {FINDINGS.value} findings.")
    table = _field(given, "table", dict, {})
    spec = TableSpec(*(_field(table, name, str, default) for name, default in
                       (("start", "-5"), ("stop", "5"), ("step", "1"))))  # fmt: skip
    working = [_work(each) for each in _field(given, "working", list, [])]
    if len(working) > LINES.value:
        raise FormatError(f"The working of a study can have {LINES.value} lines.")
    axes = axes_from_dict(given.get("axes", {}))
    check = None if given.get("check") is None else _check(_field(given, "check", dict))
    return Document(unit, tuple(lines), tuple(asks), spec, tuple(working), axes, check)


_MISSING = object()


def _field(given: dict[str, Any], name: str, kind: type, default: object = _MISSING) -> Any:  # noqa: ANN401 - the kind says which
    value = given.get(name, default)
    if value is _MISSING or not isinstance(value, kind) or (kind is int and value is True):
        raise FormatError(f"The field `{name}` of the study is missing or of the wrong kind.")
    return value


def _line(given: object) -> StudyLine:
    if not isinstance(given, dict):
        raise FormatError("A line of the study is of the wrong kind.")
    text = _field(given, "text", str)
    if len(text) > LINE_LENGTH.value:
        raise FormatError(f"A line of the study has more than {LINE_LENGTH.value:,} characters.")
    slider = given.get("slider")
    return StudyLine(
        id=_field(given, "id", int),
        text=text,
        hidden=_field(given, "hidden", bool, False),
        aside=_field(given, "aside", bool, False),
        given=given["given"] if isinstance(given.get("given"), str) else None,
        slider=_slider(slider) if isinstance(slider, dict) else None,
        tone=given["tone"] if isinstance(given.get("tone"), int) else None,
        style=style_from_dict(given.get("style", {})),
    )


def _slider(given: dict[str, Any]) -> SliderRange:
    try:
        low, high, step = (
            exact_number(_field(given, name, str)) for name in ("low", "high", "step")
        )
        return SliderRange(low, high, step)
    except MathError as err:
        raise FormatError(f"A slider of the study cannot be: {err.message}") from err


def _check(given: dict[str, Any]) -> Check:
    texts = (_field(given, name, str, "")[: LINE_LENGTH.value] for name in ("count", "step"))
    return Check(_field(given, "line", int), *texts)


def _ask(given: object) -> Ask:
    if not isinstance(given, dict):
        raise FormatError("A finding of the study is of the wrong kind.")
    ends = [given.get(name) for name in ("low", "high")]
    low, high = (end if isinstance(end, str) else None for end in ends)
    return Ask(_field(given, "id", int), _field(given, "line", int), low, high)


def _work(given: object) -> Work:
    if not isinstance(given, dict):
        raise FormatError("A line of the working is of the wrong kind.")
    text = _field(given, "text", str)
    if len(text) > LINE_LENGTH.value:
        raise FormatError(f"A line of the working has more than {LINE_LENGTH.value:,} characters.")
    return Work(_field(given, "id", int), text)


def range_from_texts(low: str, high: str, step: str) -> SliderRange:
    """Make the range of a slider from typed numbers.

    Raises:
        SliderError: one is no number, or nothing moves between them.
    """
    parts: list[Fraction] = [exact_number(text.strip()) for text in (low, high, step)]
    return SliderRange(*parts)

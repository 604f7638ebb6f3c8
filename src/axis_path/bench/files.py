"""Files that leave the Bench: the table as CSV and as a workbook, pictures, the study itself."""

from __future__ import annotations

import math
import tempfile
from collections.abc import Iterator
from typing import BinaryIO

import orjson

from axis_path.bench.answer import Answer, FileAnswer
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import BenchRequest, read_request
from axis_path.bench.tables import Cell, csv_blocks, table_rows, workbook
from axis_path.picture import Format, Look, make_picture

_WORKBOOK = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_SMALLEST_SCALE, _LARGEST_SCALE = 0.05, 6
_STUDY = "study"
_BLOCK_BYTES = 1 << 18


def table_csv(job: Job) -> FileAnswer:
    """Return the whole table as CSV, sent as it is computed."""
    lines = csv_blocks(_table_rows(job))
    # The head is made now, so that what cannot be made is refused and not sent in part.
    head = next(lines)
    return FileAnswer(_encoded(head, lines), "text/csv")


def _encoded(head: str, lines: Iterator[str]) -> Iterator[bytes]:
    yield head.encode()
    for block in lines:
        yield block.encode()


def table_workbook(job: Job) -> FileAnswer:
    """Return the whole table as a workbook."""
    file = tempfile.TemporaryFile()  # noqa: SIM115 - it is closed when it has been sent
    try:
        workbook(_table_rows(job), file)
    except BaseException:
        file.close()
        raise
    file.seek(0)
    return FileAnswer(_read_blocks(file), _WORKBOOK)


def _read_blocks(file: BinaryIO) -> Iterator[bytes]:
    with file:
        while block := file.read(_BLOCK_BYTES):
            yield block


def _table_rows(job: Job) -> Iterator[list[list[Cell]]]:
    asked = read_request(job)
    return table_rows(
        asked.study,
        with_units=asked.given.get("units") is True,
        with_exact=asked.given.get("exact") is True,
    )


def picture(job: Job) -> Answer:
    """Return the present state as an SVG, a PNG, a PDF, or as a file of the open study format."""
    asked = read_request(job)
    carried = asked.study.to_dict() | {
        "title": job.context["title"], "window": asked.window.to_dict(),
    }  # fmt: skip
    wanted = asked.given.get("format")
    if wanted == _STUDY:
        return Answer(orjson.dumps(carried, option=orjson.OPT_INDENT_2))
    scale, look = _look(asked)
    if wanted not in tuple(Format):
        raise RequestError("This picture format is not supported.")
    scene = asked.study.scene(asked.window, reading_x=asked.reading_x, with_trails=True).to_dict()
    made = make_picture(scene, carried, Format(wanted), look, scale=scale)
    return Answer(made.data, made.media_type)


def _look(asked: BenchRequest) -> tuple[float, Look]:
    scale = asked.given.get("scale", 1)
    if (
        isinstance(scale, bool)
        or not isinstance(scale, int | float)
        or not math.isfinite(scale)
        or not _SMALLEST_SCALE <= scale <= _LARGEST_SCALE
    ):
        raise RequestError(f"A picture is scaled by {_SMALLEST_SCALE} to {_LARGEST_SCALE}.")
    flags = (asked.given.get(name) is True for name in ("white", "with_reading", "dark"))
    return float(scale), Look(*flags)

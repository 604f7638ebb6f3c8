"""Pictures as files, with the study that they were made from inside; and the study back."""

from __future__ import annotations

import base64
import json
import logging
import re
import struct
import zlib
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from importlib.resources import files
from io import BytesIO
from typing import Any
from xml.etree.ElementTree import ParseError

import orjson
import resvg_py
import svg2pdf_py  # type: ignore[import-untyped]
from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import iterparse

from axis_path.picture import messages
from axis_path.picture.svg import FONTS, Look, draw_svg

# Files are often cut or mended; whether there is a study in them is all that matters.
logging.getLogger("pypdf").setLevel(logging.CRITICAL)
_KEY, _ATTACHMENT = "axis-path-study", "axis-path-study.json"
_PNG_HEAD = b"\x89PNG\r\n\x1a\n"
_IN_PDF = re.compile(rb"%axis-path-study ([A-Za-z0-9+/=]+)")
#: A picture of more pixels is not made.
LARGEST_PX = 40_000_000


class PictureError(Exception):
    """A picture that cannot be made, or a file without a study; the message is for the student."""


class Format(StrEnum):
    """The formats of pictures."""

    SVG = "svg"
    PNG = "png"
    PDF = "pdf"


@dataclass(frozen=True, slots=True)
class Picture:
    """A file.

    Attributes:
        data: its bytes.
        media_type: what it is, for a browser.
    """

    data: bytes
    media_type: str


_MEDIA = {Format.SVG: "image/svg+xml", Format.PNG: "image/png", Format.PDF: "application/pdf"}


def make_picture(
    scene: dict[str, Any], study: dict[str, Any], form: Format, look: Look, *, scale: float = 1
) -> Picture:
    """Make a file of a scene that carries the study along.

    Args:
        scene: what ``Scene.to_dict`` gives.
        study: the study in the open format.
        form: the format.
        look: how it looks.
        scale: of a PNG, how many pixels a px of the screen becomes.

    Raises:
        PictureError: it would be too large.
    """
    width, height = scene["window"]["width"], scene["window"]["height"]
    if width * height * scale**2 > LARGEST_PX:
        raise PictureError(messages.PICTURE_WOULD_TOO_LARGE)
    carried = json.dumps(study, ensure_ascii=True)
    match form:
        case Format.SVG:
            data = draw_svg(scene, look, metadata=carried).encode()
        case Format.PNG:
            made = resvg_py.svg_to_bytes(
                svg_string=draw_svg(scene, look), zoom=scale, skip_system_fonts=True,
                font_files=list(font_files()),
            )  # fmt: skip
            data = _with_text(bytes(made), carried)
        case Format.PDF:
            made = svg2pdf_py.svg_to_pdf(draw_svg(scene, look), _font_database())
            data = _with_attachment(bytes(made), carried)
    return Picture(data, _MEDIA[form])


@cache
def font_files() -> tuple[str, ...]:
    """Return the faces that pictures are drawn with."""
    own = [str(path) for path in sorted(FONTS.glob("*.ttf"))]
    return (*own, str(files("ziamath") / "fonts" / "STIXTwoMath-Regular.ttf"))


@cache
def _font_database() -> svg2pdf_py.FontDatabase:
    database = svg2pdf_py.FontDatabase()
    for path in font_files():
        database.load_font_file(path)
    return database


def _with_attachment(pdf: bytes, text: str) -> bytes:
    """Attach a text to a PDF, as a file that any viewer lists."""
    from pypdf import PdfWriter

    writer = PdfWriter(clone_from=BytesIO(pdf))
    writer.add_attachment(_ATTACHMENT, text.encode())
    file = BytesIO()
    writer.write(file)
    return file.getvalue()


def _attachment_of(data: bytes) -> str:
    """Return the text that is attached to a PDF.

    Raises:
        ValueError: there is none, or it is too large.
    """
    from pypdf import PdfReader
    from pypdf.errors import PyPdfError

    try:
        files = PdfReader(BytesIO(data)).attachments.get(_ATTACHMENT)
    except (PyPdfError, KeyError, TypeError, AttributeError, RecursionError) as err:
        raise ValueError(messages.PDF_DAMAGED) from err
    if not files or len(files[0]) > _LARGEST_STUDY:
        raise ValueError(messages.NO_STUDY)
    return files[0].decode()


def _with_text(png: bytes, text: str) -> bytes:
    """Put a text into a PNG, as a compressed chunk before its end.

    Source: *Portable Network Graphics*, W3C Recommendation, section 11.3.4.3 (zTXt).
    """
    body = _KEY.encode() + b"\0\0" + zlib.compress(text.encode())
    chunk = b"zTXt" + body
    made = struct.pack(">I", len(body)) + chunk + struct.pack(">I", zlib.crc32(chunk))
    end = png.rindex(b"IEND") - 4
    return png[:end] + made + png[end:]


def study_in(data: bytes) -> Any:  # noqa: ANN401 - whoever reads it checks it
    """Return the study that a picture, or a file of the open format, carries.

    Raises:
        PictureError: there is none in it.
    """
    if len(data) > _LARGEST_FILE:
        raise PictureError(messages.FILE_TOO_LARGE_STUDY)
    try:
        return orjson.loads(_carried(data))
    except (ValueError, zlib.error, struct.error, ParseError, DefusedXmlException) as err:
        raise PictureError(messages.THERE_NO_STUDY_FILE) from err


def _carried(data: bytes) -> str:
    if data.startswith(_PNG_HEAD):
        return _text_of_png(data)
    if data.startswith(b"%PDF"):
        # Pictures that were saved before version 2 of the format carry it in a comment.
        comment = _IN_PDF.search(data)
        return base64.b64decode(comment[1]).decode() if comment else _attachment_of(data)
    start = data.lstrip(b"\xef\xbb\xbf \t\r\n")[:1]
    return _text_of_svg(data) if start == b"<" else data.decode()


def _text_of_svg(data: bytes) -> str:
    """Return the text of the first ``metadata`` element.

    Raises:
        ValueError: there is none; ParseError, DefusedXmlException: it is no XML that may be read.
    """
    depth = 0
    for event, element in iterparse(BytesIO(data), events=("start", "end")):
        depth += 1 if event == "start" else -1
        if depth > _DEEPEST_SVG:
            raise ValueError(messages.ELEMENTS_NESTED_TOO_DEEP)
        if event == "end" and element.tag.rpartition("}")[2] == "metadata":
            return element.text or ""
    raise ValueError(messages.NO_STUDY)


def _text_of_png(data: bytes) -> str:
    at = len(_PNG_HEAD)
    while at + 12 <= len(data):
        length, kind = struct.unpack(">I4s", data[at : at + 8])
        body = data[at + 8 : at + 8 + length]
        if kind == b"zTXt" and body.startswith(_KEY.encode() + b"\0\0"):
            unpacked = zlib.decompressobj().decompress(body[len(_KEY) + 2 :], _LARGEST_STUDY)
            return unpacked.decode()
        at += 12 + length
    raise ValueError(messages.NO_STUDY)


#: A study of more bytes is not read, nor a file, nor elements that are nested deeper.
_LARGEST_STUDY, _LARGEST_FILE, _DEEPEST_SVG = 4 * 1024 * 1024, 16 * 1024 * 1024, 60

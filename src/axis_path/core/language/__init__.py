"""The typed language: from text to trees and from trees to print.

``scan`` cuts a line into tokens with the names known, ``read`` makes a tree of them, ``lines``
tells what kind of line it is, ``mathml`` prints. Nothing here computes a value.
Read ``tree.py`` first, then ``lines.py``.
"""

from axis_path.core.language.lines import (
    FunctionLine,
    Line,
    NoteLine,
    ParameterLine,
    domain_start,
    head_name,
    is_function_head,
    read_line,
)
from axis_path.core.language.mathml import typeset, typeset_domain, typeset_line
from axis_path.core.language.read import read_expression
from axis_path.core.language.vocabulary import GREEK, NAME_PATTERN, Vocabulary, nearest, spelled

__all__ = [
    "GREEK",
    "NAME_PATTERN",
    "FunctionLine",
    "Line",
    "NoteLine",
    "ParameterLine",
    "Vocabulary",
    "domain_start",
    "head_name",
    "is_function_head",
    "nearest",
    "read_expression",
    "read_line",
    "spelled",
    "typeset",
    "typeset_domain",
    "typeset_line",
]

"""The typed language: from text to trees and from trees to print.

``scan`` cuts a line into tokens with the names known, ``read`` makes a tree of them, ``lines``
tells what kind of line it is, ``mathml`` prints. Nothing here computes a value.
Read ``tree.py`` first, then ``lines.py``.
"""

from axis_path.core.language.hints import hint_of
from axis_path.core.language.latex import latex, latex_comparisons, latex_line
from axis_path.core.language.line_types import (
    FunctionLine,
    Line,
    NoteLine,
    RelationLine,
    SetLine,
    ValueLine,
    line_nodes,
    own_variables,
)
from axis_path.core.language.lines import domain_start, head_name, is_function_head, read_line
from axis_path.core.language.mathml import (
    typeset,
    typeset_comparison,
    typeset_comparisons,
    typeset_domain,
    typeset_domains,
    typeset_line,
    typeset_signature,
    typeset_unit,
)
from axis_path.core.language.notes import NotePart, note_parts
from axis_path.core.language.plain import plain, plain_line
from axis_path.core.language.read import read_expression
from axis_path.core.language.tree import INFINITY
from axis_path.core.language.vocabulary import (
    GREEK,
    NAME_PATTERN,
    SUMMARIES,
    WORDS,
    Vocabulary,
    nearest,
    spelled,
)

__all__ = [
    "GREEK",
    "INFINITY",
    "NAME_PATTERN",
    "SUMMARIES",
    "WORDS",
    "FunctionLine",
    "Line",
    "NoteLine",
    "NotePart",
    "RelationLine",
    "SetLine",
    "ValueLine",
    "Vocabulary",
    "domain_start",
    "head_name",
    "hint_of",
    "is_function_head",
    "latex",
    "latex_comparisons",
    "latex_line",
    "line_nodes",
    "nearest",
    "note_parts",
    "own_variables",
    "plain",
    "plain_line",
    "read_expression",
    "read_line",
    "spelled",
    "typeset",
    "typeset_comparison",
    "typeset_comparisons",
    "typeset_domain",
    "typeset_domains",
    "typeset_line",
    "typeset_signature",
    "typeset_unit",
]

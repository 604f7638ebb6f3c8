"""Studies: lines and what they mean together, sliders, and the facade ``Study``.

``analysis.py`` finds out what the lines mean, ``study.py`` is the public face, ``scene.py`` puts
together what the bench draws.
"""

from axis_path.core.compile.definition import Definition
from axis_path.core.document.data import FitRequest, Plot
from axis_path.core.features.axes.section import AxesSpec, GridKind
from axis_path.core.features.findings.answer import Answer, Row
from axis_path.core.features.findings.answers import answer
from axis_path.core.features.findings.section import QueryKind, SavedQuery
from axis_path.core.features.working.section import WorkingLine
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.kinds.problems import problem_dict
from axis_path.core.lines.domains import NewEnd, number_text, rewrite_domain, round_to_px
from axis_path.core.lines.family import Family
from axis_path.core.lines.meaning import VALUED, Kind
from axis_path.core.lines.moving import Runner, Trail
from axis_path.core.lines.sliders import (
    AtEnd,
    Play,
    Slider,
    SliderKind,
    SliderRange,
    slider_value,
    written_number,
)
from axis_path.core.scene.overview import overview
from axis_path.core.scene.scene import Scene, make_scene
from axis_path.core.study.commands import Change, apply
from axis_path.core.study.study import Study
from axis_path.core.tabulate import TableSpec

__all__ = [
    "VALUED",
    "Answer",
    "AtEnd",
    "AxesSpec",
    "Change",
    "Definition",
    "Family",
    "FitRequest",
    "GridKind",
    "Kind",
    "NewEnd",
    "Play",
    "Plot",
    "QueryKind",
    "Row",
    "Runner",
    "SavedQuery",
    "Scene",
    "Slider",
    "SliderKind",
    "SliderRange",
    "Study",
    "TableSpec",
    "Trail",
    "WorkingLine",
    "answer",
    "apply",
    "end_text",
    "make_scene",
    "number_text",
    "overview",
    "problem_dict",
    "rewrite_domain",
    "round_to_px",
    "slider_value",
    "written_number",
]

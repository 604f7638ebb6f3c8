"""Studies: lines and what they mean together, sliders, and the facade ``Study``.

``analysis.py`` finds out what the lines mean, ``study.py`` is the public face, ``scene.py`` puts
together what the bench draws.
"""

from axis_path.core.study.axes import AxesSpec, GridKind, axes_to_dict
from axis_path.core.study.commands import apply_command
from axis_path.core.study.definition import Definition
from axis_path.core.study.document import Ask, TableSpec, Work, range_from_texts
from axis_path.core.study.domains import NewEnd, number_text, rewrite_domain, round_to_px
from axis_path.core.study.lane import end_text
from axis_path.core.study.meaning import VALUED, Kind
from axis_path.core.study.scene import Scene, make_scene, problem_dict
from axis_path.core.study.sliders import SliderRange, slider_value
from axis_path.core.study.study import Study

__all__ = [
    "VALUED",
    "Ask",
    "AxesSpec",
    "Definition",
    "GridKind",
    "Kind",
    "NewEnd",
    "Scene",
    "SliderRange",
    "Study",
    "TableSpec",
    "Work",
    "apply_command",
    "axes_to_dict",
    "end_text",
    "make_scene",
    "number_text",
    "problem_dict",
    "range_from_texts",
    "rewrite_domain",
    "round_to_px",
    "slider_value",
]

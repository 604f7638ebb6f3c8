"""From functions to pictures as plain data: windows, sampled curves, ticks.

Read ``sample.py`` for the promise that a curve is never joined across a break.
"""

from axis_path.core.draw.curves.check import SamplingCheck, check_sampling
from axis_path.core.draw.curves.path import sample_path
from axis_path.core.draw.curves.sample import Curve, sample_curve, visible_domain
from axis_path.core.draw.frame import HOME_X, HOME_Y, Extent, extent_of, frame, frame_between, home
from axis_path.core.draw.mark_labels import place_labels
from axis_path.core.draw.pixels import Flag
from axis_path.core.draw.relations.levels import LevelMap, draw_levels
from axis_path.core.draw.relations.relation import RealRelation, RelationPicture, draw_relation
from axis_path.core.draw.ticks import Labels, Ticks, make_log_ticks, make_ticks, nice_step, plain
from axis_path.core.draw.window import Window

__all__ = [
    "HOME_X",
    "HOME_Y",
    "Curve",
    "Extent",
    "Flag",
    "Labels",
    "LevelMap",
    "RealRelation",
    "RelationPicture",
    "SamplingCheck",
    "Ticks",
    "Window",
    "check_sampling",
    "draw_levels",
    "draw_relation",
    "extent_of",
    "frame",
    "frame_between",
    "home",
    "make_log_ticks",
    "make_ticks",
    "nice_step",
    "place_labels",
    "plain",
    "sample_curve",
    "sample_path",
    "visible_domain",
]

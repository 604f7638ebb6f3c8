"""The feature."""

from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.what_if.commands import COMMANDS
from axis_path.core.features.what_if.drawing import what_if_in_scene
from axis_path.core.features.what_if.section import WhatIfSpec, renamed

FEATURE = Feature(
    name="what_if",
    section=Section(WhatIfSpec, "what_if", renamed=renamed),
    commands=COMMANDS,
    scene=what_if_in_scene,
)

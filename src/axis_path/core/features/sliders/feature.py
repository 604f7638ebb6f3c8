"""The feature."""

from axis_path.core.features.feature import Feature
from axis_path.core.features.sliders.commands import COMMANDS

FEATURE = Feature(
    name="sliders",
    commands=COMMANDS,
)

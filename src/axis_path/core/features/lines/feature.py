"""The feature."""

from axis_path.core.features.feature import Feature
from axis_path.core.features.lines.commands import COMMANDS

FEATURE = Feature(
    name="lines",
    commands=COMMANDS,
)

"""The feature."""

from axis_path.core.features.families.commands import COMMANDS
from axis_path.core.features.feature import Feature

FEATURE = Feature(
    name="families",
    commands=COMMANDS,
)

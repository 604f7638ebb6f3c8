"""The feature."""

from axis_path.core.features.feature import Feature
from axis_path.core.features.motion.commands import COMMANDS

FEATURE = Feature(
    name="motion",
    commands=COMMANDS,
)

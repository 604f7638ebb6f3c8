"""The feature."""

from axis_path.core.features.feature import Feature
from axis_path.core.features.settings.commands import COMMANDS

FEATURE = Feature(
    name="settings",
    commands=COMMANDS,
)

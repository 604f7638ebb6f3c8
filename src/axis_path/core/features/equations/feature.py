"""The feature."""

from axis_path.core.features.equations.commands import COMMANDS
from axis_path.core.features.equations.row import sets_in_scene
from axis_path.core.features.feature import Feature

FEATURE = Feature(name="equations", commands=COMMANDS, scene=sets_in_scene)

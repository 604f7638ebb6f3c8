"""The feature."""

from axis_path.core.features.entries.commands import COMMANDS
from axis_path.core.features.feature import Feature

FEATURE = Feature(name="entries", commands=COMMANDS)
"""It keeps nothing: the entries are part of their lines."""

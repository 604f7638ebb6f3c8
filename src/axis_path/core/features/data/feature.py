"""The feature."""

from axis_path.core.features.data import section
from axis_path.core.features.data.commands import COMMANDS
from axis_path.core.features.data.section import Data
from axis_path.core.features.feature import Feature, Section

FEATURE = Feature(
    name="data",
    section=Section(Data, section.to_fields, section.from_fields),
    commands=COMMANDS,
)

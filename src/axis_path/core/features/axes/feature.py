"""The feature."""

from axis_path.core.features.axes import section
from axis_path.core.features.axes.commands import COMMANDS
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.feature import Feature, Section

FEATURE = Feature(
    name="axes",
    section=Section(AxesSpec, section.to_fields, section.from_fields),
    commands=COMMANDS,
)

"""The feature."""

from axis_path.core.features.axes.commands import COMMANDS
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.feature import Feature, Section

FEATURE = Feature(
    name="axes",
    section=Section(AxesSpec, "axes"),
    commands=COMMANDS,
)

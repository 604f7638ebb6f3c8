"""The feature."""

from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.units.commands import COMMANDS
from axis_path.core.features.units.row import units_in_scene


def _without_line(section: ShownUnits, line_id: int) -> ShownUnits:
    return section.with_row(line_id, "")


FEATURE = Feature(
    name="units",
    section=Section(ShownUnits, "units", without_line=_without_line),
    commands=COMMANDS,
    scene=units_in_scene,
)

"""The feature."""

from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.units.commands import COMMANDS
from axis_path.core.features.units.row import units_in_scene
from axis_path.core.language import Vocabulary


def _renamed(section: ShownUnits, _names: Vocabulary, name: str, new: str) -> ShownUnits:
    return section.renamed(name, new)


FEATURE = Feature(
    name="units",
    section=Section(ShownUnits, "units", renamed=_renamed, without_line=ShownUnits.without_line),
    commands=COMMANDS,
    scene=units_in_scene,
)

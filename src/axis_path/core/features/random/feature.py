"""The feature."""

from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.random.commands import COMMANDS

FEATURE = Feature(
    name="random",
    section=Section(RandomSeed, names={"number": "random_seed"}),
    commands=COMMANDS,
)

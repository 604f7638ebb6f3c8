"""The colours of a picture: those of the screen's two looks, which ``base.css`` names too."""

from dataclasses import dataclass, replace


@dataclass(frozen=True, slots=True)
class Palette:
    """The colours of one look.

    Attributes:
        tones: those of the curves.
    """

    paper: str
    ink: str
    ink_soft: str
    grid: str
    grid_faint: str
    amber: str
    amber_deep: str
    tones: tuple[str, ...]


LIGHT = Palette(
    "#fffdf6", "#1c282d", "#55626a", "#ddd5c0", "#efeadb", "#f0b32a", "#8a5a00",
    ("#0b6b6b", "#b5382a", "#5b3a9e", "#1f5fa8", "#5c6710", "#a02a6b", "#7a4a12", "#3d4a55"),
)  # fmt: skip
DARK = Palette(
    "#161d20", "#ece7d8", "#a7b2b4", "#303b40", "#20292d", "#f0b32a", "#f3c45a",
    ("#4fc3bd", "#ff8a78", "#b79cf5", "#7db8f5", "#c2cf62", "#f08bc0", "#dba866", "#b4c2cc"),
)  # fmt: skip
#: For print: the light look on white.
WHITE = replace(LIGHT, paper="#ffffff")
#: Dashes of the tones in px, as ``curves.paint.js`` has them.
DASHES: tuple[tuple[float, ...], ...] = (
    (), (9, 5), (2.5, 3), (10, 3, 2.5, 3), (14, 4), (5, 3), (10, 3, 2, 3, 2, 3), (6, 3, 2, 3),
)  # fmt: skip


def tone_of(row: dict[str, object]) -> int:
    """Return the tone of a row as an index."""
    tone = row.get("tone")
    return tone % len(DASHES) if isinstance(tone, int) else 0

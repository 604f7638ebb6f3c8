"""The colours of a picture: those of the screen's light look, which ``base.css`` names too."""

PAPER, WHITE = "#fffdf6", "#ffffff"
INK, INK_SOFT = "#1c282d", "#55626a"
GRID, GRID_FAINT = "#ddd5c0", "#efeadb"
AMBER, AMBER_DEEP = "#f0b32a", "#8a5a00"
TONES = (
    "#0b6b6b", "#b5382a", "#5b3a9e", "#1f5fa8", "#5c6710", "#a02a6b", "#7a4a12", "#3d4a55",
)  # fmt: skip
#: Dashes of the tones in px, as ``paint.js`` has them.
DASHES: tuple[tuple[float, ...], ...] = (
    (), (9, 5), (2.5, 3), (10, 3, 2.5, 3), (14, 4), (5, 3), (10, 3, 2, 3, 2, 3), (6, 3, 2, 3),
)  # fmt: skip


def tone_of(row: dict[str, object]) -> int:
    """Give the tone of a row as an index."""
    tone = row.get("tone")
    return tone % len(TONES) if isinstance(tone, int) else 0

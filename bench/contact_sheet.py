"""Draw the zoo as a sheet of small pictures, to be looked at kind by kind.

Run: PYTHONPATH=src:. .venv/bin/python -m bench.contact_sheet functions|paths|relations|levels sheet.png
"""

from __future__ import annotations

import re
import sys
from pathlib import Path

import resvg_py

from axis_path.core import Study, Window
from axis_path.picture import draw_svg
from axis_path.picture.formats import font_files
from tests.core.test_paths import ZOO as PATHS
from tests.core.test_relations import LINES as EQUATIONS
from tests.core.test_sampling import ZOO as FUNCTIONS

WIDTH, HEIGHT, ACROSS = 220, 150, 8
REGIONS = ("3x + y > 1", "1 < x^2 + y^2 <= 9", "y < sin(3x)", "1/x < y", "0 < x < y", "sin(x y) = 0",
           "x^2 - 2x y + y^2 = 0", "sin(x^2 + y^2) = cos(x y)", "floor(x) - 1 = 0", "x^2 + y^2 = 0.0004")  # fmt: skip
LEVELS = ("d(x, y) = x y", "d(x, y) = sin(x) + sin(y)", "d(x, y) = 1/(x^2 + y^2)", "d(x, y) = x/y",
          "d(x, y) = floor(x) + y/9", "d(x, y) = sqrt(25 - x^2 - y^2)", "d(x, y) = x^2/8 - y^2/5")  # fmt: skip
KINDS = {
    "functions": [f"f(x) = {text}" for text, _ in FUNCTIONS],
    "paths": [line for line, _ in PATHS],
    "relations": [line for line, _ in EQUATIONS] + list(REGIONS),
    "levels": list(LEVELS),
}


def small(line: str, place: int) -> str:
    """Draw one line in a small window, at its place on the sheet."""
    study = Study()
    study.define(line)
    svg = draw_svg(study.scene(Window((-10, 10), (-7, 7), WIDTH, HEIGHT)).to_dict())
    # Every picture has a frame of its own, and the faces of the sheet.
    svg = re.sub(r"<style>.*?</style>", "", svg, flags=re.DOTALL)
    svg = svg.replace('id="frame"', f'id="frame{place}"').replace(
        "url(#frame)", f"url(#frame{place})"
    )
    x, y = place % ACROSS * (WIDTH + 8), place // ACROSS * (HEIGHT + 24)
    text = line[:44].replace("&", "&amp;").replace("<", "&lt;")
    return f'<g transform="translate({x} {y})">{svg}<text x="2" y="{HEIGHT + 14}">{text}</text></g>'


def main() -> None:
    kind, target = sys.argv[1], Path(sys.argv[2])
    lines = KINDS[kind]
    rows = -(-len(lines) // ACROSS)
    width, height = ACROSS * (WIDTH + 8), rows * (HEIGHT + 24)
    body = "".join(small(line, place) for place, line in enumerate(lines))
    sheet = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" font-size="10" '
        f'font-family="Atkinson Hyperlegible Next"><rect width="100%" height="100%" fill="#fff"/>'
        f"{body}</svg>"
    )
    target.write_bytes(
        bytes(
            resvg_py.svg_to_bytes(
                svg_string=sheet, skip_system_fonts=True, font_files=list(font_files())
            )
        )
    )
    print(f"{len(lines)} pictures: {target}")


if __name__ == "__main__":
    main()

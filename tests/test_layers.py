"""One direction of imports: nothing below knows what is above it."""

import ast
import subprocess
import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SOURCES = ROOT / "src" / "axis_path"
#: From the bottom up; a folder may import from those before it and from itself.
CORE = (
    "wording",
    "messages",
    "errors",
    "limits",
    "contract",
    "threads",
    "deadline",
    "arithmetic",
    "catalogue",
    "language",
    "dimensions",
    "evaluate",
    "draw",
    "locate",
    "tabulate",
    "data",
    "algebra",
    "lines",
    "document",
    "compile",
    "kinds",
    "features",
    "scene",
    "study",
    "warm",
)
LAYERS = ("core", "wording", "store", "picture", "jobs", "bench", "compute", "web", "serving")
#: What the core must not touch: the web, the database, files, clocks, chance.
FOREIGN = {
    "flask",
    "sqlalchemy",
    "alembic",
    "werkzeug",
    "psycopg",
    "random",
    "time",
    "datetime",
    "socket",
    "subprocess",
    "os",
    "requests",
    "urllib",
}


def imported(path: Path) -> set[str]:
    found = set[str]()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            found.update(alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.add(node.module)
            found.update(f"{node.module}.{alias.name}" for alias in node.names)
    return found


class LayersTest(unittest.TestCase):
    def test_imports_go_downwards_only(self) -> None:
        for path in SOURCES.rglob("*.py"):
            parts = path.relative_to(SOURCES).with_suffix("").parts
            if parts[0] not in LAYERS:
                continue
            allowed = LAYERS[: LAYERS.index(parts[0]) + 1]
            for name in imported(path):
                if name.startswith("axis_path."):
                    with self.subTest(path=str(path.relative_to(ROOT)), name=name):
                        self.assertIn(name.split(".")[1], allowed)

    def test_parts_of_the_core_use_only_parts_below_them(self) -> None:
        for path in (SOURCES / "core").rglob("*.py"):
            part = path.relative_to(SOURCES / "core").with_suffix("").parts[0]
            if part == "__init__":
                continue
            allowed = CORE[: CORE.index(part) + 1]
            for name in imported(path):
                words = name.split(".")
                if words[:2] == ["axis_path", "core"] and len(words) > 2:
                    with self.subTest(path=str(path.relative_to(ROOT)), name=name):
                        self.assertIn(words[2], allowed)

    def test_core_imports_no_web_or_store_module(self) -> None:
        for path in (SOURCES / "core").rglob("*.py"):
            for name in imported(path):
                with self.subTest(path=path.name, name=name):
                    self.assertNotIn(name.split(".")[0], FOREIGN)

    def test_no_flask_is_reachable_from_the_core(self) -> None:
        program = (
            "import sys, axis_path.core\n"
            "print(sorted({'flask', 'sqlalchemy', 'alembic', 'gunicorn'} & set(sys.modules)))"
        )
        done = subprocess.run(
            [sys.executable, "-c", program],
            capture_output=True,
            text=True,
            check=True,
            env={"PYTHONPATH": str(ROOT / "src")},
        )
        self.assertEqual("[]", done.stdout.strip())

    def test_no_text_is_ever_executed(self) -> None:
        for path in SOURCES.rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text())):
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                    with self.subTest(path=path.name):
                        self.assertNotIn(
                            node.func.id, {"eval", "exec", "sympify", "compile", "__import__"}
                        )

"""Where things are."""

from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
VAR = ROOT / "var"
SOURCES = ROOT / "src"
REQUIREMENTS = ROOT / "requirements"

"""Where things are."""

from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
VAR = ROOT / "var"
#: Without links: what is compiled is known by the path of its source.
SOURCES = (ROOT / "src").resolve()
REQUIREMENTS = ROOT / "requirements"

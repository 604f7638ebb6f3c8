"""The documentation says what is true today."""

import re
import unittest
from pathlib import Path

from axis_path.core import errors, limits
from axis_path.core.catalogue import CONSTANTS, DEGREE, FUNCTIONS
from axis_path.core.errors import MathError
from axis_path.core.study.commands import NAMES

ROOT = Path(__file__).resolve().parent.parent
DOCS = ROOT / "docs"


class DocsTest(unittest.TestCase):
    def test_every_error_code_is_explained(self) -> None:
        text = (DOCS / "errors.md").read_text()
        classes = [c for c in vars(errors).values() if isinstance(c, type)]
        for made in classes:
            if issubclass(made, MathError):
                with self.subTest(made.code):
                    self.assertIn(f"`{made.code}`", text)

    def test_every_limit_is_listed_with_its_value(self) -> None:
        text = (DOCS / "limits.md").read_text()
        for name, limit in limits.ALL.items():
            with self.subTest(name):
                self.assertIn(f"| {limit.meaning} | {limit.value:,} {limit.unit} |", text)

    def test_every_function_and_constant_is_listed(self) -> None:
        text = (DOCS / "language.md").read_text()
        for name in [*FUNCTIONS, *(set(CONSTANTS) - {DEGREE})]:
            with self.subTest(name):
                # The whole name: `sin` is not listed by `sinh`.
                self.assertRegex(text, rf"`{re.escape(name)}(?![\w])")

    def test_every_command_is_described_with_its_fields(self) -> None:
        text = (DOCS / "commands.md").read_text()
        rows = dict(re.findall(r"^\| `(\w+)` \| (.*)$", text, re.M))
        self.assertEqual({"do", *NAMES}, set(rows))
        for name, kind in NAMES.items():
            for field in kind.__struct_fields__:
                with self.subTest(name, field=field):
                    self.assertIn(f"`{field}`", rows[name])

    def test_links_lead_somewhere(self) -> None:
        for page in [ROOT / "README.md", ROOT / "CHANGELOG.md", *DOCS.rglob("*.md")]:
            for target in re.findall(r"\]\(([^)#]+)", page.read_text()):
                if not target.startswith("http"):
                    with self.subTest(page=page.name, target=target):
                        self.assertTrue((page.parent / target).exists())

    def test_every_module_states_its_purpose(self) -> None:
        for path in (ROOT / "src").rglob("*.py"):
            with self.subTest(path.name):
                self.assertTrue(path.read_text().startswith('"""'), path)

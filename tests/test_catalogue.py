"""The catalogue of messages holds all that is said, and its translations fit their gaps."""

import json
import re
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from launcher.catalogue import (
    SOURCES,
    Message,
    catalogue_of,
    collect,
    languages,
    made_files,
    translations,
)
from tests.pseudo import SAME_EVERYWHERE

MESSAGES = collect()
GAP = re.compile(r"%\(\w+\)s|\{\w+(?::[^}]*)?\}")
TAG = re.compile(
    r"\{#.*?#\}|\{% block body_class %\}.*?\{% endblock %\}|\{% call \S*\.(?:field|input)\(.*?\{% endcall %\}|\{%.*?%\}|\{\{.*?\}\}|<(script|svg|code)\b.*?</\1>|<!doctype[^>]*>"
    r"|</?[a-z](?:\"(?:\{\{.*?\}\}|[^\"])*\"|[^>\"])*>",
    re.DOTALL,
)
SAID_BY_ATTRIBUTE = re.compile(r"\s(?:title|aria-label|placeholder|alt)=\"([^\"{]*)\"")


class CatalogueTest(unittest.TestCase):
    def test_templates_say_nothing_outside_the_catalogue(self) -> None:
        for path in sorted(SOURCES.rglob("*.html")):
            text = path.read_text()
            said = [part.strip() for part in TAG.sub("\0", text).split("\0")]
            said += SAID_BY_ATTRIBUTE.findall(text)
            for part in said:
                words = SAME_EVERYWHERE.sub("", part)
                with self.subTest(path=path.name, part=part):
                    self.assertIsNone(re.search(r"[^\W\d_]{2,}", words))

    def test_one_and_several_have_the_same_gaps(self) -> None:
        for message in MESSAGES:
            if message.many:
                with self.subTest(message.one):
                    gaps = set(GAP.findall(message.many)) - {"{count}", "{count:,}"}
                    self.assertLessEqual(
                        set(GAP.findall(message.one)) - {"{count}"}, gaps | {"{count:,}"}
                    )

    def test_translations_are_complete_and_keep_their_gaps(self) -> None:
        for tag in languages():
            catalogue = catalogue_of(tag, MESSAGES)
            for message in MESSAGES:
                for string in translations(catalogue, message):
                    with self.subTest(tag, message=message.one):
                        self.assertTrue(string)
                        known = set(GAP.findall(message.one + message.many))
                        self.assertLessEqual(set(GAP.findall(string)), known)
            for path, content in made_files(tag, catalogue, MESSAGES).items():
                with self.subTest(path=path):
                    self.assertEqual(content, path.read_bytes(), "run tools/refresh-catalogue")


class CollectTest(unittest.TestCase):
    def test_texts_are_collected_from_sources_of_all_kinds(self) -> None:
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            (folder / "messages.py").write_text(
                'LONG = Text("It is " "too long.")\nROWS = Text("{count} row", "{count} rows")\n'
                'other("not said")\nText(computed)\n'
            )
            (folder / "page.html").write_text(
                '<p title="{{ _(\'Move\') }}">{{ _("a " "b") }} {{ ngettext("one", "many", n) }}</p>'
            )
            (folder / "part.js").write_text(
                'const a = say("Slider {name}", { name });\n'
                'sayCount("{count} name", "{count} names", count);\nthis.store.say("Frame");\n'
            )
            with mock.patch.multiple("launcher.catalogue", SOURCES=folder, ROOT=folder):
                found = {(m.one, m.many, m.is_in_browser) for m in collect()}

        self.assertEqual(
            {
                ("It is too long.", "", False), ("{count} row", "{count} rows", False),
                ("Move", "", False), ("a b", "", False), ("one", "many", False),
                ("Slider {name}", "", True), ("{count} name", "{count} names", True),
                ("Frame", "", True),
            },
            found,
        )  # fmt: skip

    def test_a_language_keeps_its_translations_when_texts_come_and_go(self) -> None:
        rows = Message("{count} row", "{count} rows", "table.js")
        frame, home = Message("Frame", "", "plane.html"), Message("Home", "", "plane.js")
        with tempfile.TemporaryDirectory() as name:
            with mock.patch("launcher.catalogue.CATALOGUES", Path(name)):
                first = catalogue_of("de", [rows, frame])
                first.get(rows.key).string = ("{count} Zeile", "{count} Zeilen")  # type: ignore[union-attr]
                first.get(frame.key).string = "Einpassen"  # type: ignore[union-attr]
                for path, content in made_files("de", first, [rows, frame]).items():
                    path.parent.mkdir(parents=True, exist_ok=True)
                    path.write_bytes(content)
                self.assertEqual(["de"], languages())
                second = catalogue_of("de", [rows, home])
                files = made_files("de", second, [rows, home])

            self.assertEqual(["{count} Zeile", "{count} Zeilen"], translations(second, rows))
            self.assertEqual([""], translations(second, home))
            self.assertIsNone(second.get("Frame"))
            script = json.loads(next(c for p, c in files.items() if p.suffix == ".json"))
            self.assertEqual(
                {"{count} row": ["{count} Zeile", "{count} Zeilen"], "Home": [""]}, script
            )

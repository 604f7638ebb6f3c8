"""The catalogue of messages holds all that is said, and its translations fit their gaps."""

import re
import unittest

from launcher.catalogue import SOURCES, catalogue_of, collect, languages, made_files, translations
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

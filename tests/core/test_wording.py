"""Texts that can be said in another language are ordinary English texts until they are."""

import copy
import pickle
import re
import unittest

from axis_path.core.errors import MathError, no_value
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.wording import Joined, Numeral, Text, spoken

ZEROS = Text("{count} zero of {name}", "{count} zeros of {name}")
LIMIT = Text("The line has {length:,} characters. It is {reason}.")
LONG = Text("too long")


class Backwards:
    """Says every word backwards, with decimal commas."""

    def template(self, one: str, many: str, count: int) -> str:
        text = many if many and count != 1 else one
        return re.sub(r"\{[^}]*\}|\w+", lambda m: m[0] if m[0][0] == "{" else m[0][::-1], text)

    def numeral(self, text: str) -> str:
        return text.translate(str.maketrans(".,", ",."))


class WordingTest(unittest.TestCase):
    def test_a_text_is_its_english_sentence(self) -> None:
        self.assertEqual("1 zero of f", ZEROS(count=1, name="f"))
        self.assertEqual("0 zeros of f", ZEROS(count=0, name="f"))
        self.assertEqual(
            "The line has 2,001 characters. It is too long.", LIMIT(length=2001, reason=LONG)
        )
        self.assertEqual("Too long", LONG.capitalize())
        self.assertEqual("too long; 2.5", Joined([LONG, "", Numeral("2.5")], "; "))

    def test_a_speaker_says_all_parts_of_a_text(self) -> None:
        said = [
            spoken(text, Backwards())
            for text in (
                LIMIT(length=2001, reason=LONG), ZEROS(count=2, name=Numeral("0.5")),
                LONG.capitalize(), Joined([LONG, Numeral("1,234.5")], "; "), "f(x)", 7,
            )
        ]  # fmt: skip

        self.assertEqual(
            ["ehT enil sah 2.001 sretcarahc. tI si oot gnol.", "2 sorez fo 0,5", "Oot gnol", "oot gnol; 1.234,5", "f(x)", 7],
            said,
        )  # fmt: skip

    def test_copies_can_still_be_translated(self) -> None:
        for text in (ZEROS(count=3, name="g"), LONG, LONG.capitalize(), Joined([LONG, "x"])):
            for made in (pickle.loads(pickle.dumps(text)), copy.deepcopy(text)):  # noqa: S301 - our own
                with self.subTest(text):
                    self.assertEqual(text, made)
                    self.assertEqual(spoken(text, Backwards()), spoken(made, Backwards()))

    def test_an_error_of_the_language_can_be_translated(self) -> None:
        with self.assertRaises(MathError) as caught:
            read_expression("2 sinn(x)", Vocabulary())
        message = caught.exception.message

        self.assertEqual("`sinn` is unknown. Did you mean `sin`?", message)
        self.assertIn("si", spoken(message, Backwards()).split(" "))
        self.assertIn("`a`", no_value("a").message)

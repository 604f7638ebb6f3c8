"""The reader chooses the language and the decimal sign, and everything follows."""

from typing import Any

from axis_path.web import Settings, create_app
from tests.pseudo import TAG, marked, pseudo_language, stray_texts
from tests.web.test_views import WebTest


class ReaderTest(WebTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.enterClassContext(pseudo_language())
        cls.app = create_app(Settings(cls.url, "a secret for tests"))
        cls.addClassCleanup(cls.app.extensions["axis_path"].engine.dispose)

    def choose(self, **given: str) -> Any:
        return self.client.post("/reader", data={"csrf_token": self.token, **given})

    def said_of(self, text: str) -> str:
        study_id = self.make(text)
        answer = self.post(study_id, "scene")
        return str(answer["scene"]["rows"][0]["problem"]["message"])

    def test_pages_speak_the_chosen_language_and_nothing_else(self) -> None:
        self.make("f(x) = x^2")
        self.assertEqual("/studies", self.choose(language=TAG, page="/studies").location)
        for address in ("/studies", "/studies?q=nothing", "/nowhere"):
            page = self.client.get(address).get_data(as_text=True)
            with self.subTest(address):
                self.assertIn(f'lang="{TAG}"', page)
                self.assertEqual([], stray_texts(page))

    def test_errors_of_the_core_speak_it_too(self) -> None:
        english = self.said_of("x $ 2")
        self.assertEqual("`$` cannot be used here.", english)
        self.choose(language=TAG)
        self.assertEqual(marked(english), self.said_of("x $ 2"))

    def test_the_browser_asks_for_a_language_until_one_is_chosen(self) -> None:
        wishes = {"Accept-Language": f"{TAG}, en;q=0.5"}
        self.assertIn(f'lang="{TAG}" data-decimal-sign=","', self.page(wishes))
        self.choose(decimal_sign=".")
        self.assertIn(f'lang="{TAG}" data-decimal-sign="."', self.page(wishes))
        self.choose(language="en")
        self.assertIn('lang="en" data-decimal-sign="."', self.page(wishes))
        # The form sends both; a sign that was not touched gives way to that of the language.
        self.choose(language=TAG, decimal_sign=".")
        self.assertIn(f'lang="{TAG}" data-decimal-sign=","', self.page({}))
        self.choose(language="en", decimal_sign=".")
        self.assertIn('lang="en" data-decimal-sign="."', self.page({}))

    def page(self, headers: dict[str, str]) -> str:
        return self.client.get("/studies", headers=headers).get_data(as_text=True)

    def test_wrong_choices_change_nothing_and_lead_nowhere_else(self) -> None:
        for given in ({"language": "../x"}, {"decimal_sign": ";"}, {"language": "xx"}):
            self.choose(**given)
            self.assertIn('lang="en" data-decimal-sign="."', self.page({}))
        for page in (
            "//elsewhere.example",
            "https://elsewhere.example/studies",
            "",
            "javascript:x",
        ):
            with self.subTest(page):
                self.assertEqual("/studies", self.choose(language="en", page=page).location)

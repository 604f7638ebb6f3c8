"""A study that ends the process which draws it, as a student sees it."""

from tests.browser.bench import BrowserTest


class PoisonedTest(BrowserTest):
    site = "tests.poisoned_site"

    def test_crashing_line_is_turned_off_with_a_message(self) -> None:
        self.open_new_study("f(x) = x^2 - 2")
        self.page.fill("#new-line", "# abort")
        self.page.press("#new-line", "Enter")
        sentence = self.page.get_by_text("Computing this line used up the time or memory there is")
        sentence.wait_for()
        self.settle()
        # The other line is drawn, and the page goes on.
        self.assertGreater(self.ink(), 500)
        self.write("g(x) = x")
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        sentence.wait_for()
        self.assertEqual(3, self.page.locator(".row-item").count())

    def test_open_page_learns_of_a_newer_version(self) -> None:
        self.open_new_study("f(x) = x")
        address = self.page.url
        other = self.open_page()
        other.goto(address)
        other.wait_for_selector(".tick-label")
        self.write("g(x) = 2x")
        other.fill("#new-line", "h(x) = 3x")
        other.press("#new-line", "Enter")
        banner = other.get_by_role("alert").filter(has_text="changed in another window")
        banner.wait_for()
        self.assertFalse(banner.get_by_role("button", name="Try again").is_visible())
        banner.get_by_role("button", name="Reload the page").click()
        other.wait_for_selector(".tick-label")
        other.wait_for_function("() => document.querySelectorAll('.row-item').length === 2")

"""Pages in a real browser: the list of studies, access for all, looks and sizes, weight."""

import re

from tests.browser.bench import BrowserTest

#: What a page may weigh without its fonts, in bytes.
LARGEST_PAGE = 600_000


class StudiesTest(BrowserTest):
    def test_study_list_create_rename_copy_delete_restore(self) -> None:
        self.open_new_study()
        self.page.get_by_role("link", name="Axis Path").click()
        card = self.page.locator(".study-card", has_text="Untitled study").first
        card.get_by_text("Rename").first.click()
        card.get_by_label("New title of Untitled study").fill("Pier <b>7</b>")
        card.get_by_role("button", name="Rename").click()
        self.page.get_by_role("button", name="Duplicate Pier <b>7</b>").click()
        titles = self.page.locator(".study-title")
        self.assertEqual("Pier <b>7</b> (copy)", titles.first.inner_text())
        count = titles.count()
        self.page.get_by_role("button", name="Delete Pier <b>7</b> (copy)").click()
        self.assertEqual(count - 1, titles.count())
        self.page.get_by_role("button", name="Undo").click()
        self.assertEqual(count, titles.count())

    def test_the_demo_is_there(self) -> None:
        self.page.goto(self.base)
        self.assertEqual(
            ["Morning tide", "Mooring line", "Beam sweep", "Wake", "Breakwater", "Fuel log"],
            self.page.locator(".study-title").all_inner_texts()[-6:],
        )


class AccessTest(BrowserTest):
    def test_axe_finds_no_violations(self) -> None:
        for scheme in ("light", "dark"):
            for width in (1280, 620):
                self.page = self.open_page(width=width, color_scheme=scheme)
                with self.subTest(scheme, width=width):
                    self.page.goto(f"{self.base}/studies")
                    self.check_access()
                    self.open_demo("Mooring line")
                    self.check_access()
                    for tab in ("Values", "Working", "Reference"):
                        self.page.get_by_role("tab", name=tab).click()
                        self.settle()
                        self.check_access()
                    self.page.goto(f"{self.base}/nowhere")
                    self.check_access()

    def test_axe_finds_nothing_while_a_bad_line_is_written(self) -> None:
        self.open_new_study("f(x) = a x", "g(x) = sinn(x)", "a = 2")
        self.page.get_by_role("button", name="Ends, step and play of a").click()
        self.row("f").locator(".row-formula").click()
        self.page.wait_for_timeout(300)
        self.check_access()

    def test_everything_is_reached_with_the_keyboard_alone(self) -> None:
        self.open_demo("Mooring line")
        self.page.get_by_role("tab", name="Values").click()
        reached = set[str]()
        for _ in range(150):
            self.page.keyboard.press("Tab")
            name = self.page.evaluate(
                "() => document.activeElement.getAttribute('aria-label')"
                " ?? document.activeElement.id ?? document.activeElement.innerText"
            )
            reached.add(str(name) or self.page.evaluate("() => document.activeElement.innerText"))
        for wanted in (
            "Slider s",
            "Lower end of the domain of rope",
            "Hide rope",
            "Delete water",
            "Turn clear off",
            "tab-values",
            "new-line",
            "left bound",
            "Home window",
            "study-title",
        ):
            with self.subTest(wanted):
                self.assertIn(wanted, reached)


class LookTest(BrowserTest):
    def test_nothing_is_cut_off_at_any_width(self) -> None:
        for width, height in ((1280, 800), (1024, 768), (1000, 700), (768, 1024), (390, 844)):
            self.page = self.open_page(width=width, height=height)
            self.open_demo("Morning tide")
            wide = self.page.evaluate("() => document.documentElement.scrollWidth")
            with self.subTest(width):
                self.assertLessEqual(wide, width)
                self.assertGreater(self.ink(), 300)

    def test_a_long_formula_is_made_smaller_and_not_cut(self) -> None:
        self.open_demo("Mooring line")
        button = self.row("rope").locator(".row-formula")
        formula = self.box(button.locator("math"))
        room = self.box(button)
        self.assertLessEqual(formula["x"] + formula["width"], room["x"] + room["width"])
        self.assertIn("rope(x) = s cosh(x/s)", button.get_attribute("title") or "")

    def test_the_panel_folds_away_to_give_the_plane_the_width(self) -> None:
        self.open_demo("Morning tide")
        before = self.box(self.page.locator(".plane-surface"))["width"]
        self.page.get_by_role("button", name="Fold the side panel away").click()
        self.settle()
        self.assertGreater(self.box(self.page.locator(".plane-surface"))["width"], before + 300)
        self.page.get_by_role("button", name="Show the side panel").click()
        self.settle()
        self.assertEqual(before, self.box(self.page.locator(".plane-surface"))["width"])

    def test_dark_is_chosen_and_stays_chosen(self) -> None:
        self.open_demo("Morning tide")
        self.page.get_by_role("button", name="Light or dark").click()
        self.page.reload()
        self.page.wait_for_selector(".tick-label")
        self.assertEqual("dark", self.page.evaluate("document.documentElement.dataset.bsTheme"))

    def test_formulas_and_texts_use_the_faces_that_are_shipped(self) -> None:
        self.open_demo("Morning tide")
        loaded = self.page.evaluate(
            "() => document.fonts.ready.then(() => [...document.fonts]"
            ".filter((f) => f.status === 'loaded').map((f) => f.family.replaceAll('\"', '')))"
        )
        self.assertLessEqual({"Atkinson Hyperlegible Next", "STIX Two Math"}, set(loaded))


class WeightTest(BrowserTest):
    def test_the_bench_is_light_and_asks_no_one_else(self) -> None:
        self.open_demo("Morning tide")
        entries = self.page.evaluate(
            "() => [...performance.getEntriesByType('navigation'),"
            " ...performance.getEntriesByType('resource')].map((e) => [e.name, e.transferSize])"
        )
        strangers = [url for url, _ in entries if not re.match(rf"{self.base}/|data:", url)]
        self.assertEqual([], strangers)
        self.assertGreater(len(entries), 8)
        self.assertLess(sum(n for url, n in entries if "/fonts/" not in url), LARGEST_PAGE)

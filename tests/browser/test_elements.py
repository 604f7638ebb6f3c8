"""Elements of a picture, put in place in the browser that will show them."""

from typing import Any

from tests.browser.bench import BrowserTest


class ElementTest(BrowserTest):
    def call(self, expression: str, module: str) -> Any:
        """Return the value of an expression that uses the module as ``m``."""
        self.page.goto(f"{self.base}/studies")
        return self.page.evaluate(
            "async (module) => { const root = document.querySelector('link[rel=stylesheet]').href;"
            f" const m = await import(new URL('../../js/' + module, root)); return {expression}; }}",
            module,
        )

    def test_elements_that_stay_are_changed_in_place(self) -> None:
        found = self.call(
            """(() => {
              const target = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
              const shown = () => target.innerHTML.replaceAll(' xmlns="http://www.w3.org/2000/svg"', '');
              m.put(target, [m.svg('line', { x1: 1, class: 'a' }), m.label('one', 2, 3, {})]);
              const [line, text] = target.children;
              const first = shown();
              m.put(target, [m.svg('line', { x1: 4 }), m.label('<b>', 2, 5, {}), m.svg('g', {}, [m.svg('rect', { x: 1 })])]);
              const second = shown();
              const areKept = target.children[0] === line && target.children[1] === text;
              m.put(target, [m.svg('path', { d: 'M0 0' }), m.svg('g', {}, [])]);
              const third = shown();
              m.put(target, []);
              return [first, second, areKept, third, shown()];
            })()""",
            "bench/plane/svg.js",
        )
        self.assertEqual(
            [
                '<line x1="1" class="a"></line><text transform="translate(2 3)">one</text>',
                '<line x1="4"></line><text transform="translate(2 5)">&lt;b&gt;</text><g><rect x="1"></rect></g>',
                True,
                '<path d="M0 0"></path><g></g>',
                "",
            ],
            found,
        )

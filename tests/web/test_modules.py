"""A page's script is what its modules say, in the order in which a browser would run them."""

import unittest

from axis_path.web.modules import ModuleError, join_modules

FILES = {
    "js/a/main.js": 'import Lib from "../../vendor/lib.js";\nimport { two } from "./two.js";\nimport { one, Three } from "../b/one.js";\nlog(one, two, Three, Lib);',
    "js/a/two.js": '// @ts-check\nimport { one } from "../b/one.js";\n/** import { x } from "./x.js" and export it. */\nexport const two = one + 1;\n',
    "js/b/one.js": "export const one = 1;\nexport class Three {}\nexport async function later() {}\n",
}


def joined(entry: str = "js/a/main.js", **changed: str) -> str:
    files = FILES | {f"js/a/{name}.js": text for name, text in changed.items()}
    return join_modules(entry, files.__getitem__, "../../")


class ModulesTest(unittest.TestCase):
    def test_each_module_stands_once_behind_what_it_imports(self) -> None:
        lines = joined().splitlines()
        self.assertEqual('import Lib from "../../vendor/lib.js";', lines[0])
        heads = [line[3:] for line in lines if line.startswith("// js/")]
        self.assertEqual(["js/b/one.js", "js/a/two.js", "js/a/main.js"], heads)
        self.assertIn("return { one, Three, later };", lines)
        self.assertIn("const { one, Three } = module_js_b_one_js;", lines)
        self.assertFalse([line for line in lines[1:] if line.startswith(("import", "export"))])

    def test_what_is_not_foreseen_is_refused(self) -> None:
        for text in (
            'import { one as first } from "../b/one.js";', 'import * as all from "../b/one.js";',
            'import "../b/one.js";', "const a = 1;\nexport { a };", "export default 3;",
            "export let a = 1;", 'const late = await import("../b/one.js");', "log(import.meta.url);",
            'import One from "../b/one.js";', 'import { two } from "./main.js";',
        ):  # fmt: skip
            with self.subTest(text), self.assertRaises(ModuleError):
                joined(two=text)

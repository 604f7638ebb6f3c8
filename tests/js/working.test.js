// The grid of a matrix, its keys, the shapes of results, and the table of names.
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import {
  arranged,
  nameRows,
} from "../../src/axis_path/web/static/js/bench/panels/names/names_table.model.js";
import { stepOf } from "../../src/axis_path/web/static/js/bench/panels/working/cell_keys.js";
import * as grid from "../../src/axis_path/web/static/js/bench/panels/working/grid.model.js";
import {
  complexButtons,
  shapeButtons,
  shapeWords,
} from "../../src/axis_path/web/static/js/bench/panels/working/shapes.model.js";

describe("a matrix as cells", () => {
  test("what is typed and what stands in the cells are the same", () => {
    for (const [text, head, cells] of [
      [
        "[[1, 2], [3, 4]]",
        "",
        [
          ["1", "2"],
          ["3", "4"],
        ],
      ],
      [
        "M = [[sqrt(2), f(1, 2)], [(1 + i)/2, 0.5]]",
        "M = ",
        [
          ["sqrt(2)", "f(1, 2)"],
          ["(1 + i)/2", "0.5"],
        ],
      ],
      ["L_1 = [1, 4, 9]", "L_1 = ", [["1"], ["4"], ["9"]]],
      ["[[7]]", "", [["7"]]],
    ]) {
      const read = grid.cellsOf(text);
      assert.deepEqual(read, { head, cells });
      assert.equal(read.head + grid.typed(cells), text === "[[7]]" ? "[7]" : text);
    }
  });
  test("anything else is left alone", () => {
    for (const text of [
      "",
      "M = ",
      "A^-1",
      "[[1, 2], [3]]",
      "[1, [2]]",
      "[[1, 2], [3, 4]] + 1",
      "[[1, 2)",
      "[(1, 2]",
    ]) {
      assert.equal(grid.cellsOf(text), null, text);
    }
  });
  test("empty cells are 0", () => {
    assert.equal(
      grid.typed([
        ["", " 2 "],
        ["x", ""],
      ]),
      "[[0, 2], [x, 0]]",
    );
    assert.equal(grid.typed([[""], ["5"]]), "[0, 5]");
  });
  test("cells of a spreadsheet are pasted", () => {
    assert.deepEqual(grid.pasted("1\t2\r\n3\t4\r\n"), [
      ["1", "2"],
      ["3", "4"],
    ]);
    assert.deepEqual(grid.pasted("1; 2\n3; 4"), [
      ["1", "2"],
      ["3", "4"],
    ]);
    assert.deepEqual(grid.pasted("1,5\t2"), [["1,5", "2"]]);
    assert.deepEqual(grid.pasted("7"), [["7"]]);
    assert.deepEqual(grid.pasted("a\tb\n\tc"), [
      ["a", "b"],
      ["", "c"],
    ]);
  });
  test("a block makes the grid grow, up to its limit", () => {
    const start = [
      ["1", "2"],
      ["3", "4"],
    ];
    assert.deepEqual(grid.withBlock(start, [["9"]], 0, 1), [
      ["1", "9"],
      ["3", "4"],
    ]);
    assert.deepEqual(
      grid.withBlock(
        start,
        [
          ["5", "6"],
          ["7", "8"],
        ],
        1,
        1,
      ),
      [
        ["1", "2", ""],
        ["3", "5", "6"],
        ["", "7", "8"],
      ],
    );
    const tall = grid.withBlock(
      start,
      Array.from({ length: 99 }, () => ["1"]),
      0,
      0,
    );
    assert.equal(tall.length, grid.MOST_ROWS);
    assert.deepEqual(start, [
      ["1", "2"],
      ["3", "4"],
    ]);
  });
  test("rows and columns are added and removed", () => {
    const start = [
      ["1", "2"],
      ["3", "4"],
    ];
    assert.deepEqual(grid.resized(start, 3, 1), [["1"], ["3"], [""]]);
    assert.deepEqual(grid.resized(start, 0, 0), [["1"]]);
    assert.equal(grid.resized(start, 100, 2).length, grid.MOST_ROWS);
  });
});

describe("keys in a cell", () => {
  const pressed = (key, { value = "12", start = 0, end = 0, ...more } = {}) =>
    stepOf({ key, target: { value, selectionStart: start, selectionEnd: end }, ...more });
  test("up, down and Enter leave it", () => {
    assert.deepEqual(pressed("ArrowUp"), [-1, 0]);
    assert.deepEqual(pressed("ArrowDown", { start: 1, end: 1 }), [1, 0]);
    assert.deepEqual(pressed("Enter", { start: 2, end: 2 }), [1, 0]);
  });
  test("left and right leave it at the ends of its text only", () => {
    assert.deepEqual(pressed("ArrowLeft"), [0, -1]);
    assert.equal(pressed("ArrowLeft", { start: 1, end: 1 }), null);
    assert.deepEqual(pressed("ArrowRight", { start: 2, end: 2 }), [0, 1]);
    assert.equal(pressed("ArrowRight", { start: 1, end: 1 }), null);
    // All of it is selected when a cell is entered.
    assert.deepEqual(pressed("ArrowLeft", { end: 2 }), [0, -1]);
    assert.deepEqual(pressed("ArrowRight", { end: 2 }), [0, 1]);
  });
  test("other keys and shortcuts belong to the text and the browser", () => {
    for (const key of ["a", "Tab", "Home", "Escape"]) assert.equal(pressed(key), null, key);
    for (const more of [{ ctrlKey: true }, { altKey: true }, { metaKey: true }]) {
      assert.equal(pressed("ArrowDown", more), null);
    }
  });
});

describe("shapes of results", () => {
  test("one button for each, the chosen one marked", () => {
    const result = { shapes: ["exact", "decimal", "percent"], complex_shapes: [] };
    const pick = (buttons) => buttons.filter((one) => one.isChosen).map((one) => one.shape);
    assert.deepEqual(pick(shapeButtons(result, "percent")), ["percent"]);
    assert.deepEqual(pick(shapeButtons(result, "mixed")), ["exact"]);
    assert.equal(shapeButtons({ shapes: ["decimal"] }, "decimal").length, 0);
    assert.equal(shapeButtons(null, "exact").length, 0);
    const complex = { complex_shapes: ["rectangular", "polar", "angle"] };
    assert.deepEqual(pick(complexButtons(complex, "angle")), ["angle"]);
  });
  test("sizes in words", () => {
    assert.equal(shapeWords([]), "");
    assert.equal(shapeWords([4]), "list of 4");
    assert.equal(shapeWords([2, 3]), "2 by 3 matrix");
  });
});

describe("the table of names", () => {
  const rows = [
    { id: 1, name: "M", kind: "matrix", size: "a 2 by 2 matrix", value: "[[1, 2], [3, 4]]" },
    { id: 2, name: "a", kind: "parameter", size: "", value: null },
    { id: 3, name: null, kind: "function", size: "" },
    { id: 4, name: "b", kind: "parameter", size: "", value: "−2.5" },
    { id: 5, name: "f", kind: "several", size: "", problem: { message: "`k` has no value yet." } },
    { id: 6, name: "note", kind: "note", size: "" },
    { id: 7, name: "c", kind: "relation", size: "", value: "", disabled: true },
  ];
  const all = nameRows(rows, [{ id: 2, value: 10, text: "10" }]);
  const names = (...how) => arranged(all, ...how).map((row) => row.name);
  test("kinds, values and problems in words", () => {
    assert.deepEqual(
      all.map((row) => [row.name, row.kind, row.value, row.problem]),
      [
        ["M", "2 by 2 matrix", "[[1, 2], [3, 4]]", ""],
        ["a", "slider", "10", ""],
        ["b", "number", "−2.5", ""],
        ["f", "function of several variables", "", "`k` has no value yet."],
        ["c", "equation", "", "turned off"],
      ],
    );
  });
  test("the unknowns of a set are names of their own", () => {
    const lines = [
      { id: 1, name: "h", kind: "parameter", value: "3 m", used_by: ["W", "N"] },
      { id: 2, name: null, kind: "equations" },
      { id: 3, name: "p", kind: "equations", disabled: true },
    ];
    const values = [
      { name: "W", text: "2 N", used_by: ["f"] },
      { name: "N", text: "1 N", used_by: [] },
    ];
    const found = nameRows(lines, [], { 2: { values }, 3: { values } });
    assert.deepEqual(
      found.map((row) => [row.key, row.kind, row.value, row.uses, row.usedBy]),
      [
        ["1 h", "number", "3 m", [], ["W", "N"]],
        ["2 W", "unknown", "2 N", ["h"], ["f"]],
        ["2 N", "unknown", "1 N", ["h"], []],
      ],
    );
  });
  test("what a name uses, and what uses it", () => {
    const linked = nameRows(
      [
        { id: 1, name: "a", kind: "parameter", size: "", value: "2", used_by: ["b", "f"] },
        { id: 2, name: "b", kind: "parameter", size: "", value: "4", used_by: ["f"] },
        { id: 3, name: "f", kind: "function", size: "", used_by: [] },
      ],
      [],
    );
    assert.deepEqual(
      linked.map((row) => [row.uses, row.usedBy]),
      [
        [[], ["b", "f"]],
        [["a"], ["f"]],
        [["a", "b"], []],
      ],
    );
  });
  test("sorted by each column, both ways", () => {
    assert.deepEqual(names("", "place", false), ["M", "a", "b", "f", "c"]);
    assert.deepEqual(names("", "name", false), ["a", "b", "c", "f", "M"]);
    assert.deepEqual(names("", "name", true), ["M", "f", "c", "b", "a"]);
    const byValue = names("", "value", false);
    assert.ok(byValue.indexOf("b") < byValue.indexOf("a"));
  });
  test("every word that is sought stands somewhere", () => {
    assert.deepEqual(names("matrix", "place", false), ["M"]);
    assert.deepEqual(names("2 MATRIX", "place", false), ["M"]);
    assert.deepEqual(names("slider number", "place", false), []);
    assert.deepEqual(names("  ", "place", false), ["M", "a", "b", "f", "c"]);
  });
});

import assert from "node:assert/strict";
import { describe, test } from "node:test";

const WORDS = {
  "Undo: {what}": ["Zurück: {what}"],
  "{count} row copied.": ["{count} Zeile kopiert.", "{count} Zeilen kopiert."],
  Frame: ["Einpassen"],
  Home: [""],
};

/** Load the module anew, as a page in some language does. */
async function loaded(words, decimalSign) {
  globalThis.document = {
    documentElement: { dataset: { decimalSign } },
    querySelector: (selector) =>
      selector === "#reader-words" && words ? { textContent: JSON.stringify(words) } : null,
  };
  const address = "../../src/axis_path/web/static/js/shared/words.js";
  const module = await import(`${address}?${Math.random()}`);
  delete globalThis.document;
  return module;
}

describe("what the scripts say", () => {
  test("is English where nothing is translated", async () => {
    const { say, sayCount, numeral, grouped } = await loaded(null, ".");
    assert.equal(say("Undo: {what}", { what: "Move a" }), "Undo: Move a");
    assert.equal(sayCount("{count} row copied.", "{count} rows copied.", 1), "1 row copied.");
    assert.equal(sayCount("{count} row copied.", "{count} rows copied.", 0), "0 rows copied.");
    assert.equal(numeral("1,234.5"), "1,234.5");
    assert.equal(grouped(20000), "20,000");
  });

  test("is said in the words and with the decimal sign of the reader", async () => {
    const { say, sayCount, numeral, grouped } = await loaded(WORDS, ",");
    assert.equal(say("Undo: {what}", { what: "a = 2.5" }), "Zurück: a = 2.5");
    assert.equal(say("Frame"), "Einpassen");
    assert.equal(sayCount("{count} row copied.", "{count} rows copied.", 1), "1 Zeile kopiert.");
    assert.equal(sayCount("{count} row copied.", "{count} rows copied.", 7), "7 Zeilen kopiert.");
    assert.equal(numeral("−1,234.5"), "−1.234,5");
    assert.equal(grouped(20000), "20.000");
  });

  test("falls back to English, and keeps gaps that nobody fills", async () => {
    const { say, sayCount } = await loaded(WORDS, ".");
    assert.equal(say("Home"), "Home");
    assert.equal(say("Slider {name}", {}), "Slider {name}");
    assert.equal(say("Slider {name}"), "Slider {name}");
    const told = sayCount("{count} of {all}", "{count} of {all}", 3, { all: "9" });
    assert.equal(told, "3 of 9");
  });
});

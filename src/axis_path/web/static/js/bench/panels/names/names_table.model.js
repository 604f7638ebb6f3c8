// @ts-check
/** All names of a study as a table: found by letters, sorted by a column; no DOM. */
import { say } from "../../../shared/words.js";

/** @typedef {{key: string, id: number, name: string, kind: string, size: string, value: string, problem: string, place: number, uses: string[], usedBy: string[]}} NameRow */
/** @typedef {"place" | "name" | "kind" | "value"} Column */

const KINDS = {
  parameter: say("number"),
  several: say("function of several variables"),
  polar: say("polar curve"),
  relation: say("equation"),
  region: say("inequality"),
  truth: say("statement"),
};

/** All names of a study, those of sets of equations too. @param {any[]} rows @param {any[]} sliders @param {Record<string, any>} [sets] by the ids of their rows. @returns {NameRow[]} */
export function nameRows(rows, sliders, sets = {}) {
  const entries = rows.flatMap((row) => [row, ...unknownsOf(row, sets[row.id])]);
  return namesOf(entries, sliders);
}

/** The unknowns of a set as rows of their own. @param {any} row @param {any} [set] */
const unknownsOf = (row, set) =>
  (row.disabled ? [] : (set?.values ?? [])).map(({ name, text, used_by: usedBy }) => ({
    id: row.id,
    name,
    kind: say("unknown"),
    value: text,
    used_by: usedBy,
  }));

/** @param {any[]} rows @param {any[]} sliders @returns {NameRow[]} */
function namesOf(rows, sliders) {
  const values = new Map(sliders.map((slider) => [slider.id, slider.text ?? String(slider.value)]));
  const usersOf = (row) => row.used_by ?? [];
  return rows
    .map((row, place) => ({ ...row, place }))
    .filter((row) => row.name && row.kind !== "note" && row.kind !== "equations")
    .map(({ id, name, kind, size, value, problem, disabled, place, ...row }) => ({
      key: `${id} ${name}`,
      id,
      name,
      // The size says what it is too: `3 by 3 matrix`.
      kind: size ? size.replace(/^an? /, "") : values.has(id) ? "slider" : (KINDS[kind] ?? kind),
      size: size ?? "",
      value: values.get(id) ?? value ?? "",
      problem: disabled ? say("turned off") : (problem?.message ?? ""),
      place,
      uses: rows.filter((other) => usersOf(other).includes(name)).map((other) => other.name),
      usedBy: usersOf(row),
    }));
}

/** The rows in which all words stand, in order. @param {NameRow[]} rows @param {string} sought @param {Column} column @param {boolean} isDown */
export function arranged(rows, sought, column, isDown) {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const found = rows.filter((row) => {
    const text = `${row.name} ${row.kind} ${row.size} ${row.value}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const numeric = (text) => Number(text.replace("−", "-"));
  const compare = (a, b) => {
    if (column === "place") return a.place - b.place;
    const [x, y] = [numeric(a[column]), numeric(b[column])];
    if (column === "value" && Number.isFinite(x) && Number.isFinite(y)) return x - y;
    return a[column].localeCompare(b[column], "en", { numeric: true });
  };
  return found.sort((a, b) => (isDown ? -compare(a, b) : compare(a, b)));
}

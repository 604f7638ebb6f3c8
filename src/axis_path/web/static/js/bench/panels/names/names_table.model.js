// @ts-check
/** All names of a study as a table: found by letters, sorted by a column; no DOM. */

/** @typedef {{id: number, name: string, kind: string, size: string, value: string, problem: string, place: number, uses: string[], usedBy: string[]}} NameRow */
/** @typedef {"place" | "name" | "kind" | "value"} Column */

const KINDS = {
  parameter: "number",
  several: "function of several variables",
  polar: "polar curve",
  relation: "equation",
  region: "inequality",
  truth: "statement",
};

/** The rows of a study that define a name. @param {any[]} rows @param {any[]} sliders @returns {NameRow[]} */
export function nameRows(rows, sliders) {
  const values = new Map(sliders.map((slider) => [slider.id, slider.text ?? String(slider.value)]));
  const usersOf = (row) => row.used_by ?? [];
  return rows
    .map((row, place) => ({ ...row, place }))
    .filter((row) => row.name && row.kind !== "note")
    .map(({ id, name, kind, size, value, problem, disabled, place, ...row }) => ({
      id,
      name,
      // The size says what it is too: `3 by 3 matrix`.
      kind: size ? size.replace(/^an? /, "") : values.has(id) ? "slider" : (KINDS[kind] ?? kind),
      size: size ?? "",
      value: values.get(id) ?? value ?? "",
      problem: disabled ? "turned off" : (problem?.message ?? ""),
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

// @ts-check
/**
 * The rows of the table of values. They are painted by hand: a table that scrolls makes more rows a
 * second than bindings can follow.
 */
import { say } from "../../../shared/words.js";

/**
 * @typedef {{row: number, x: string, typed: string, value: number, sign: string, description: string,
 *   cells: {shown: string, reason: string, isUndefined: boolean}[]}} Line
 * @typedef {{current: number | null, first: number | null, around: Line[], isSelected: (row: number) => boolean}} Choice
 */

/** @param {string} tag @param {Record<string, string>} [attributes] @param {(Node | string)[]} [children] */
function made(tag, attributes = {}, children = []) {
  const element = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
  element.append(...children);
  return element;
}

/** What a row was painted from. @type {WeakMap<Element, Line>} */
const painted = new WeakMap();

/** @param {Line} line */
function madeHead(line) {
  const head = made("th", { scope: "row" }, [made("span", {}, [line.x])]);
  if (line.sign)
    head.append(
      made(
        "button",
        {
          type: "button",
          class: "row-happens",
          tabindex: "-1",
          title: line.description,
          "aria-label": line.description,
        },
        [line.sign],
      ),
    );
  return head;
}

/** @param {Line["cells"][0]} cell */
const madeCell = ({ shown, reason, isUndefined }) =>
  made(
    "td",
    { ...(isUndefined ? { class: "is-undefined" } : {}), ...(reason ? { title: reason } : {}) },
    [shown],
  );

/** @param {Line} line */
function madeRow(line) {
  const row = made(
    "tr",
    { "data-value-row": String(line.row), "aria-rowindex": String(line.row + 2) },
    [madeHead(line), ...line.cells.map(madeCell)],
  );
  painted.set(row, line);
  return row;
}

/** Let a row show what it is now: only cells that differ are made anew. @param {Element} row @param {Line} before @param {Line} line */
function changeRow(row, before, line) {
  if (before.x !== line.x || before.sign !== line.sign || before.description !== line.description)
    row.children[0].replaceWith(madeHead(line));
  line.cells.forEach((cell, k) => {
    const { shown, reason, isUndefined } = before.cells[k];
    const element = row.children[k + 1];
    if (reason !== cell.reason || isUndefined !== cell.isUndefined)
      element.replaceWith(madeCell(cell));
    else if (shown !== cell.shown) /** @type {Text} */ (element.firstChild).data = cell.shown;
  });
  painted.set(row, line);
}

/** Bring rows between two spaces up to date; one that stays is not made anew, so that it keeps the focus. @param {Element} above @param {Element} below @param {Line[]} lines */
export function paintRows(above, below, lines) {
  const wanted = new Set(lines);
  let element = above.nextElementSibling;
  const next = () => {
    while (
      element !== below &&
      element &&
      !wanted.has(/** @type {Line} */ (painted.get(element)))
    ) {
      const gone = element;
      element = element.nextElementSibling;
      gone.remove();
    }
  };
  for (const line of lines) {
    const before = element && painted.get(element);
    if (
      element &&
      before?.row === line.row &&
      !wanted.has(before) &&
      before.cells.length === line.cells.length
    ) {
      changeRow(element, before, line);
      element = element.nextElementSibling;
      continue;
    }
    next();
    if (element !== below && element && painted.get(element) === line)
      element = element.nextElementSibling;
    else below.parentNode?.insertBefore(madeRow(line), element);
  }
  next();
}

/** Mark which row is the present one, which stand around a place, and which are selected. @param {Element} body @param {Choice} choice */
export function markRows(body, { current, first, around, isSelected }) {
  for (const row of body.querySelectorAll("[data-value-row]")) {
    const line = /** @type {Line} */ (painted.get(row));
    const isCurrent = line.row === current;
    row.className = [
      isCurrent && "is-current",
      around.includes(line) && "is-around",
      isSelected(line.row) && "is-selected",
    ]
      .filter(Boolean)
      .join(" ");
    row.setAttribute("aria-current", String(isCurrent));
    /** @type {HTMLElement} */ (row).tabIndex =
      isCurrent || (current === null && line.row === first) ? 0 : -1;
  }
}

/** The row that an event happened in. @param {Event} event @returns {Line | undefined} */
export function lineOf(event) {
  const row = /** @type {Element} */ (event.target).closest?.("[data-value-row]");
  return row ? painted.get(row) : undefined;
}

/** The row of a number, if it is painted. @param {Element} body @param {number | null} row */
export const rowOf = (body, row) =>
  /** @type {HTMLElement | null} */ (body.querySelector(`[data-value-row="${row}"]`));

/**
 * Put a field in the place of a row's place; what is typed is given when it is left, null if nothing was.
 * @param {Element} body @param {Line} line @param {(typed: string | null) => void} leave
 */
export function editPlace(body, line, leave) {
  const row = rowOf(body, line.row);
  const shown = row?.querySelector("th span");
  if (!row || !shown) return;
  const field = /** @type {HTMLInputElement} */ (
    made("input", {
      class: "place-field",
      autocomplete: "off",
      spellcheck: "false",
      "aria-label": say("x-value of this row"),
    })
  );
  field.value = line.typed;
  let isLeft = false;
  /** @param {boolean} isKept */
  const end = (isKept) => {
    if (isLeft) return;
    isLeft = true;
    const typed = field.value.trim();
    field.replaceWith(shown);
    leave(isKept && typed && typed !== line.typed ? typed : null);
  };
  field.addEventListener("blur", () => end(true));
  field.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Enter") end(true);
    if (event.key === "Escape") end(false);
    if (event.key === "Enter" || event.key === "Escape") row.focus();
  });
  shown.replaceWith(field);
  field.select();
}

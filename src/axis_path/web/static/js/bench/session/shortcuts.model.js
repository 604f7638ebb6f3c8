// @ts-check
/** Every shortcut of the Bench: what is shown in the sheet of keys; no DOM. */

export const SHORTCUTS = Object.freeze([
  {
    title: "Everywhere",
    keys: [
      ["Ctrl Z", "undo"],
      ["Ctrl Shift Z", "redo"],
      ["Space", "stop all motion, while something moves"],
      ["?", "this sheet"],
    ],
  },
  {
    title: "Plane",
    keys: [
      ["← →", "move the reading line"],
      ["Page Up, Page Down", "move it in coarse steps"],
      ["Shift ← → ↑ ↓", "move the window"],
      ["+ -", "zoom in, zoom out"],
      ["Home", "home window"],
      [", .", "earlier window, later window"],
      ["F", "the whole page for the plane, and back"],
      ["S", "hear the curve of the chosen line"],
      ["Esc", "give up the box that is drawn"],
    ],
  },
  {
    title: "Writing a line",
    keys: [
      ["Enter", "keep the line"],
      ["Esc", "leave it as it was"],
      ["↑ ↓", "earlier lines, or the names that are offered"],
      ["Tab", "take the name that is offered"],
      ["Ctrl Space", "offer names"],
    ],
  },
  {
    title: "Lines",
    keys: [
      ["↑ ↓ on the number", "move the line"],
      ["Space on the number", "choose the line; with Shift all from the one before"],
      ["← →", "on an end of a domain or a slider: move it"],
      ["Shift ← →", "move it in coarse steps"],
      ["F2 or a digit", "on an end of a domain: type it"],
      ["Delete", "on an end of a domain: take it away"],
    ],
  },
  {
    title: "Tables and panels",
    keys: [
      ["← →", "on a tab: the next panel"],
      ["↑ ↓", "in a table: from row to row, with the reading line"],
      ["Enter, Backspace", "in a table: finer between two rows, coarser again"],
      ["F2", "in a table: change an x-value"],
      ["← → ↑ ↓", "on a border between two parts: move it; Enter resets it"],
    ],
  },
]);

const KEY = "axis-path-shortcuts";

/** Whether shortcuts work, as it is kept in a browser. @param {Storage} storage */
export const areOn = (storage) => storage.getItem(KEY) !== "off";

/** @param {Storage} storage @param {boolean} isOn */
export const keepOn = (storage, isOn) => storage.setItem(KEY, isOn ? "on" : "off");

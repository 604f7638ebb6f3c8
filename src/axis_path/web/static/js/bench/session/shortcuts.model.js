// @ts-check
/** Every shortcut of the Bench: what is shown in the sheet of keys; no DOM. */
import { say } from "../../shared/words.js";

export const SHORTCUTS = Object.freeze([
  {
    title: say("Everywhere"),
    keys: [
      [say("Ctrl Z"), say("undo")],
      [say("Ctrl Shift Z"), say("redo")],
      [say("Space"), say("stop all motion, while something moves")],
      ["?", say("this list")],
    ],
  },
  {
    title: say("Plane"),
    keys: [
      ["← →", say("move the reading line")],
      [say("Page Up, Page Down"), say("move it in coarse steps")],
      ["Shift ← → ↑ ↓", say("move the window")],
      ["+ -", say("zoom in, zoom out")],
      [say("Home"), say("home window")],
      [", .", say("earlier window, later window")],
      ["F", say("plane only, and back")],
      ["S", say("hear the curve of the selected line")],
      [say("Esc"), say("cancel the box")],
    ],
  },
  {
    title: say("Writing a line"),
    keys: [
      [say("Enter"), say("keep the line")],
      [say("Esc"), say("cancel")],
      ["↑ ↓", say("earlier lines, or the suggestions")],
      [say("Tab"), say("accept the suggestion")],
      [say("Ctrl Space"), say("show suggestions")],
    ],
  },
  {
    title: say("Lines"),
    keys: [
      [say("↑ ↓ on the number"), say("move the line")],
      [say("Space on the number"), say("select the line; with Shift all lines up to this one")],
      ["← →", say("on an end of a domain or a slider: move it")],
      ["Shift ← →", say("move it in coarse steps")],
      [say("F2 or a digit"), say("on an end of a domain: type it")],
      [say("Delete"), say("on an end of a domain: remove it")],
    ],
  },
  {
    title: say("Tables and panels"),
    keys: [
      ["← →", say("on a tab: the next panel")],
      ["↑ ↓", say("in a table: from row to row, with the reading line")],
      [say("Enter, Backspace"), say("in a table: more rows between two rows, fewer again")],
      ["F2", say("in a table: change an x-value")],
      ["← → ↑ ↓", say("on a border between two parts: move it; Enter resets it")],
    ],
  },
]);

const KEY = "axis-path-shortcuts";

/** Whether shortcuts work, as it is kept in a browser. @param {Storage} storage */
export const areOn = (storage) => storage.getItem(KEY) !== "off";

/** @param {Storage} storage @param {boolean} isOn */
export const keepOn = (storage, isOn) => storage.setItem(KEY, isOn ? "on" : "off");

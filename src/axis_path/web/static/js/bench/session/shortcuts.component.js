// @ts-check
/** The sheet of keys, with the switch that turns shortcuts off. */
import { areOn, keepOn, SHORTCUTS } from "./shortcuts.model.js";

/** @param {import("./engine.js").Engine} engine */
export const shortcuts = (engine) => () => ({
  init() {
    engine.store.hasShortcuts = read();
    this.$watch("$store.bench.isKeySheetOpen", (isOpen) => {
      if (isOpen) this.$refs.sheet.showModal();
      else this.$refs.sheet.close();
    });
  },
  get groups() {
    return SHORTCUTS.map(({ title, keys }) => ({
      title,
      keys: keys.map(([key, does]) => ({ key, does })),
    }));
  },
  open() {
    this.$store.bench.isKeySheetOpen = true;
  },
  nothing() {},
  close() {
    this.$store.bench.isKeySheetOpen = false;
  },
  switchThem(event) {
    this.$store.bench.hasShortcuts = event.target.checked;
    try {
      keepOn(localStorage, event.target.checked);
    } catch {
      // Storage can be closed; the choice then lasts as long as the page.
    }
  },
});

function read() {
  try {
    return areOn(localStorage);
  } catch {
    return true;
  }
}

// @ts-check
/** A new set of equations, written with one equation in each line; the typed text stays in step. */
import { equationsOf, setText } from "./set_text.js";

export function makeNewSet() {
  return {
    isSetOpen: false,
    setLines: "",
    setLabel: "",

    toggleSet() {
      this.isSetOpen = !this.isSetOpen;
      if (!this.isSetOpen) return;
      this.isGridOpen = false;
      const { label, equations } = equationsOf(this.text);
      Object.assign(this, { setLabel: label, setLines: equations.join("\n") });
      this.$nextTick(() => this.$refs.setLines.focus());
    },
    get setLineCount() {
      return Math.max(3, this.setLines.split("\n").length + 1);
    },
    writeSet() {
      this.text = setText(this.setLabel, this.setLines);
      this.typed();
    },
  };
}

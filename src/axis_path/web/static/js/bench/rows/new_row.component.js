// @ts-check
/** The field for a new line, which stands below all rows. */

import { together } from "../../shared/together.js";
import { makeGrid } from "../panels/working/matrix_grid.js";
import { makeNewSet } from "../sets/new_set.js";
import { makeCompletion, rememberLine } from "./completion.js";
import { makeWriting } from "./writing.js";

/** @param {import("../session/engine.js").Engine} engine */
export const newRow = (engine) => () =>
  together(makeWriting(engine), makeCompletion(engine), makeGrid(), makeNewSet(), {
    row: { id: null, text: "" },
    get shownProblem() {
      return this.text ? this.writtenProblem : null;
    },
    get problemText() {
      return this.previewedText;
    },
    clear() {
      this.text = "";
      this.isGridOpen = false;
      this.isSetOpen = false;
      this.recallAt = null;
      this.stopOffering();
      this.forgetPreview();
    },
    repair() {
      const mended = this.mendedText;
      this.put({ text: mended, caret: mended.length });
    },
    nothing() {},
    /** Examples for somebody who begins a line, or the study. */
    get showsHelp() {
      return !this.text && (this.hasFocus || !this.$store.bench.rows.length);
    },
    async keep() {
      const text = this.text.trim();
      if (!text) return;
      rememberLine(engine.store.id, text);
      this.clear();
      const error = await engine.commit([{ do: "write", id: null, text }]);
      if (error) {
        this.text = text;
        this.showRefusal(error);
        return;
      }
      this.$nextTick(() => {
        const list = this.$root.parentElement;
        list.scrollTop = list.scrollHeight;
      });
    },
  });

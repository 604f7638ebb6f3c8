// @ts-check
/** The table taken elsewhere: copied, saved, printed. */
import { askFile } from "../../../shared/api.js";
import { saveAs } from "../../../shared/save.js";
import { sayCount } from "../../../shared/words.js";
import { plainNumber } from "./values.model.js";

/** @param {import("../../session/engine.js").Engine} engine */
export function makeTableFiles(engine) {
  return {
    copied: "",
    /** The rows that stand here, for a spreadsheet. */
    async copyRows() {
      const head = [this.variable, ...this.columns.map((column) => column.name)].join("\t");
      const chosen = this.hasSelection
        ? this.lines.filter((line) => this.isSelected(line.row))
        : this.lines;
      const rows = chosen.map((line) =>
        [line.x, ...line.cells.map((cell) => (cell.isUndefined ? "" : plainNumber(cell.shown)))]
          .map(plainNumber)
          .join("\t"),
      );
      await navigator.clipboard.writeText([head, ...rows].join("\n"));
      this.copied = sayCount("{count} row copied.", "{count} rows copied.", rows.length);
    },
    withUnits: false,
    withExact: false,
    isSaving: false,
    isPrinting: false,
    async save(kind) {
      this.isSaving = true;
      this.refused = "";
      try {
        const chosen = engine.body({ units: this.withUnits, exact: this.withExact });
        saveAs(await askFile(`${engine.path}/table.${kind}`, chosen), `values.${kind}`);
      } catch (error) {
        this.refused = error.message;
      }
      this.isSaving = false;
    },
    saveCsv() {
      return this.save("csv");
    },
    saveWorkbook() {
      return this.save("xlsx");
    },
    /** Print the table alone. */
    async printRows() {
      this.isPrinting = true;
      document.body.classList.add("prints-table");
      await this.$nextTick();
      print();
      document.body.classList.remove("prints-table");
      this.isPrinting = false;
    },
  };
}

// @ts-check
/** Columns that are pasted, loaded or dropped: read, shown where they are doubtful, taken, and drawn. */
import { post } from "../../../shared/api.js";
import { grouped, say, sayCount } from "../../../shared/words.js";
import { askWindow } from "../../viewport/actions.js";
import { unitsOf } from "../../viewport/affine.model.js";
import { base64Of, drawnPairs, isInWindow } from "./reading.model.js";

const LARGEST_FILE = 4_000_000;
const WORKBOOK = /\.(xlsx|xlsm)$/i;

/** The bounds of a window in units of its axes. */
const unitWindow = ({ x, y, log_x, log_y }) => ({ x: unitsOf(x, log_x), y: unitsOf(y, log_y) });

/** Frame what is drawn; undo takes the data back, and not the window first. @param {import("../../session/engine.js").Engine} engine */
async function frame(engine) {
  await askWindow(engine, { how: "frame" });
  engine.viewport.settle();
}

/** @param {import("../../session/engine.js").Engine} engine */
export function makeReading(engine) {
  return {
    pasted: "",
    /** How the letters of a loaded file are written; empty for what was typed or pasted. */
    encoding: "",
    /** The sheets of a loaded workbook, the one that is read, and the file. @type {{names: string[], name: string, content: string} | null} */
    workbook: null,
    /** What a pasted text holds, before it is taken. @type {any} */
    reading: null,
    /** What was taken without a question: it can be read in another way. @type {any} */
    taken: null,
    /** The names of the columns that the study has. @type {string[]} */
    columnNames: [],

    get hasPasted() {
      return this.pasted.trim() !== "";
    },
    /** What is pasted is read at once. */
    afterPaste() {
      this.encoding = "";
      this.workbook = null;
      this.$nextTick(() => this.readPasted());
    },
    readPasted() {
      return this.read({});
    },
    /** Read the text, and take it if nothing in it is doubtful. */
    async read(more, isSure = true) {
      try {
        this.dataProblem = "";
        const reading = await post(`${engine.path}/read_data`, { text: this.pasted, ...more });
        this.reading = { ...reading, headText: reading.header ? "yes" : "no" };
      } catch (error) {
        this.reading = null;
        this.dataProblem = error.message;
        return;
      }
      if (isSure && !this.reading.bad_count && !this.replaced.length) await this.takeColumns();
    },
    get readTold() {
      const { separator, decimal } = this.reading ?? {};
      const decimals = decimal === "," ? say("decimal commas") : say("decimal points");
      const read = say("Separator: {separator}, with {decimals}.", { separator, decimals });
      if (!this.encoding) return read;
      return `${read} ${say("Encoding of the file: {encoding}.", { encoding: this.encoding })}`;
    },
    /** Columns of the study that would be replaced. */
    get replaced() {
      const names = (this.reading?.columns ?? []).map((column) => column.name);
      return names.filter((name) => this.columnNames.includes(name));
    },
    get replacedText() {
      const { replaced } = this;
      return replaced.length
        ? say("The study already has {names}. The old cells were replaced.", {
            names: replaced.join(", "),
          })
        : "";
    },

    load(event) {
      const [file] = event.target.files;
      event.target.value = "";
      return file && this.loadFile(file);
    },
    /** A file that was dropped on the page. @param {File | null} file */
    loadDropped(file) {
      if (!file) return;
      this.$store.bench.droppedFile = null;
      this.loadFile(file);
    },
    /** @param {File} file */
    async loadFile(file) {
      this.workbook = null;
      if (file.size > LARGEST_FILE) {
        this.dataProblem = say(
          "This file has {size} bytes; the limit is {most}. Copy only the columns you need.",
          { size: grouped(file.size), most: grouped(LARGEST_FILE) },
        );
        return;
      }
      const bytes = await file.arrayBuffer();
      if (WORKBOOK.test(file.name)) {
        await this.readSheet(base64Of(bytes), "");
        return;
      }
      try {
        this.pasted = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
        this.encoding = "UTF-8";
      } catch {
        // Older programs write one byte for each letter.
        this.pasted = new TextDecoder("windows-1252").decode(bytes);
        this.encoding = "Windows-1252";
      }
      await this.readPasted();
    },
    /** @param {string} content @param {string} sheet */
    async readSheet(content, sheet) {
      try {
        this.dataProblem = "";
        const workbook = await post(`${engine.path}/read_workbook`, { content, sheet });
        this.workbook = { names: workbook.sheets, name: workbook.sheet, content };
        this.pasted = workbook.text;
        this.encoding = "";
      } catch (error) {
        this.dataProblem = error.message;
        return;
      }
      // Whoever has several sheets may mean another one: it is shown before it is taken.
      await this.read({ separator: say("tab"), decimal: "." }, this.workbook.names.length === 1);
    },
    get sheetNames() {
      return this.workbook?.names ?? [];
    },
    get sheetName() {
      return this.workbook?.name ?? "";
    },
    get hasSheets() {
      return this.sheetNames.length > 1;
    },
    chooseSheet(event) {
      if (this.workbook) this.readSheet(this.workbook.content, event.target.value);
    },

    readAgain(event) {
      const { name, value } = event.target;
      const { separator, decimal, header } = this.reading;
      const options = { separator, decimal, header };
      this.read({ ...options, [name]: name === "header" ? value === "yes" : value }, false);
    },
    get readColumns() {
      return (this.reading?.columns ?? []).map((column) => ({
        ...column,
        shown: [...column.cells.slice(0, 4), ...(column.cells.length > 4 ? ["…"] : [])]
          .map((text) => text || "—")
          .join("  "),
        count: say("{count} cells", { count: column.cells.length }),
      }));
    },
    get badCells() {
      return (this.reading?.bad ?? []).map((cell) => ({
        ...cell,
        key: `${cell.line} ${cell.column}`,
        words: say("line {line}, column {column}: “{text}”", {
          line: cell.line,
          column: cell.column,
          text: cell.text,
        }),
      }));
    },
    get badText() {
      const count = this.reading?.bad_count ?? 0;
      return count
        ? sayCount(
            "{count} cell was skipped because it is not a number:",
            "{count} cells were skipped because they are not numbers:",
            count,
          )
        : "";
    },
    /** Take what was read and draw it, in one step that can be undone. */
    async takeColumns() {
      const { reading } = this;
      const columns = reading.columns.map(({ name, unit, cells }) => ({
        name,
        unit,
        cells: cells.map((text) => (text ? text.replace("−", "-") : null)),
      }));
      const pairs = drawnPairs(columns);
      /** @type {import("#types/commands").AnyCommand[]} */
      const plots = pairs.map(([x, y]) => ({ do: "plot", x: x.name, y: y.name }));
      const error = await engine.commit([{ do: "columns", columns }, ...plots]);
      this.dataProblem = error ? error.message : "";
      if (error) return;
      this.taken = { reading, pasted: this.pasted, encoding: this.encoding };
      this.reading = null;
      this.pasted = this.encoding = "";
      if (pairs.length && !isInWindow(pairs, unitWindow(engine.window))) await frame(engine);
      const drawn = pairs
        .map(([x, y]) => say("{y} against {x}", { y: y.name, x: x.name }))
        .join(", ");
      const rows = Math.max(...columns.map((column) => column.cells.length));
      this.$store.bench.say(
        [
          sayCount(
            "Added {count} column of {rows} rows.",
            "Added {count} columns of {rows} rows.",
            columns.length,
            { rows },
          ),
          pairs.length ? say("On the plane: {curves}.", { curves: drawn }) : "",
        ].join(" "),
        "undo",
      );
    },
    /** Take back what was taken, and show how it was read. */
    async readDifferently() {
      const { taken } = this;
      this.taken = null;
      await engine.step("undo");
      this.pasted = taken.pasted;
      this.encoding = taken.encoding;
      this.reading = taken.reading;
    },
    forgetReading() {
      this.reading = null;
      this.workbook = null;
    },
  };
}

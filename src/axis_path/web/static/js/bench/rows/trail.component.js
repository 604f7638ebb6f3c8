// @ts-check
/** The points of a trail, to be read off and taken away as a file. */
import { askFile } from "../../shared/api.js";
import { saveAs } from "../../shared/save.js";
import { say, sayCount } from "../../shared/words.js";

const SHOWN = 50;
/** More digits than the plane tells apart, fewer than are kept. */
const DIGITS = 6;

/** @param {import("../session/engine.js").Engine} engine */
export const trailBox = (engine) => () => ({
  trailLine: "",
  trailFrom: 0,
  trailProblem: "",

  get trailRows() {
    return this.$store.bench.rows.filter((row) => row.trail);
  },
  get hasTrails() {
    return this.trailRows.length > 0;
  },
  get trailRow() {
    const { trailRows: rows } = this;
    const hasPlaces = (row) =>
      this.$store.bench.trailTick >= 0 && engine.trails.last(row.id, 1).length > 0;
    return rows.find((row) => String(row.id) === this.trailLine) ?? rows.find(hasPlaces) ?? rows[0];
  },
  chooseTrail(event) {
    this.trailLine = event.target.value;
  },
  get trailId() {
    return this.trailRow?.id;
  },
  /** Read anew whenever a point was added. */
  get trailPlaces() {
    return this.$store.bench.trailTick >= 0 && this.trailRow
      ? engine.trails.last(this.trailRow.id, Infinity).filter((position) => position !== null)
      : [];
  },
  get trailLines() {
    const all = this.trailPlaces;
    const first = Math.max(all.length - SHOWN - this.trailFrom, 0);
    return all
      .slice(first, first + SHOWN)
      .map(([x, y], k) => ({ key: first + k + 1, x: shown(x), y: shown(y) }))
      .reverse();
  },
  get trailText() {
    const count = this.trailPlaces.length;
    if (!count) return say("No points yet: move a slider or the runner.");
    return sayCount("{count} point, the latest first", "{count} points, the latest first", count);
  },
  get hasPlaces() {
    return this.trailPlaces.length > 0;
  },
  get hasOlder() {
    return this.trailPlaces.length > SHOWN + this.trailFrom;
  },
  get hasNewer() {
    return this.trailFrom > 0;
  },
  older() {
    this.trailFrom += SHOWN;
  },
  newer() {
    this.trailFrom = Math.max(this.trailFrom - SHOWN, 0);
  },
  change(how) {
    engine.carryOut([{ do: "trail", id: this.trailRow.id, how }]);
  },
  clear() {
    this.change("clear");
  },
  thin() {
    this.change("thin");
  },
  async save() {
    this.trailProblem = "";
    try {
      saveAs(
        await askFile(`${engine.path}/trail`, engine.body({ line: this.trailRow.id })),
        say("trail of {name}.csv", { name: this.trailRow.name }),
      );
    } catch (error) {
      this.trailProblem = error.message;
    }
  },
});

const shown = (value) => String(Number(value.toPrecision(DIGITS))).replace("-", "−");

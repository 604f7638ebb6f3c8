// @ts-check
/** The reading line on the plane: it follows the pointer and the keys, and is caught by marks. */
import { say } from "../../shared/words.js";
import { abscissa, ordinate, pxOf } from "../viewport/affine.model.js";
import { across, down } from "./marks.paint.js";

/** A mark this near to the pointer is caught. */
const CATCH_PX = 7;

/** What is located, in the words of one of each kind. */
const LOCATED = {
  zeros: say("zero at {name}"),
  extrema: say("extremum at {name}"),
  inflections: say("point of inflection at {name}"),
  crossing: say("crossing of the y axis at {name}"),
  breaks: say("break at {name}"),
  intersections: say("intersection at {name}"),
  point: say("point at {name}"),
};

/** What is said of a finding under the pointer. @param {any} mark */
function caughtFinding(mark) {
  const found = (LOCATED[mark.kind] ?? "{name}").replace("{name}", mark.name);
  return mark.text
    ? say("{found}; press to remove its label", { found })
    : say("{found}; press to label it", { found });
}

/** @param {import("../session/engine.js").Engine} engine */
export function makeReading(engine) {
  return {
    /** What was located, nearest to a place. */
    findingNear(at) {
      const findings = engine.findingsNow();
      /** @type {{away: number, mark: any} | null} */
      let best = null;
      if (!findings) return null;
      for (const mark of findings.marks) {
        const away = Math.hypot(
          across(findings.shift, mark.x) - at.x,
          down(findings.shift, mark.y) - at.y,
        );
        if (away <= CATCH_PX && (!best || away < best.away)) best = { away, mark };
      }
      return best?.mark ?? null;
    },
    /** One press on a mark labels it, and one more takes the label away. */
    toggleLabel(mark) {
      const before = (engine.findingsNow()?.marks ?? [])
        .filter((other) => other.query === mark.query && other.text)
        .map((other) => other.row);
      const labels = mark.text
        ? before.filter((other) => other !== mark.row)
        : [...before, mark.row];
      engine.carryOut([{ do: "label_finding", query: mark.query, labels }]);
    },
    /** Read where the pointer is; a mark that is near is caught, and named. */
    readAt(at) {
      const findings = this.findingNear(at);
      if (findings) {
        this.$store.bench.caught = caughtFinding(findings);
        engine.read(findings.value, ordinate(engine.window, engine.size.height, at.y));
        return;
      }
      const caught = this.markNear(at);
      this.$store.bench.caught = caught
        ? `${caught.row.name} = 0 at ${caught.row.variable} = ${caught.mark.text}`
        : "";
      const { window, size } = engine;
      const x = caught ? caught.mark.value : abscissa(window, size.width, at.x);
      engine.read(x, ordinate(window, size.height, at.y));
    },
    markNear(at) {
      const { rows, axes } = engine.picture.scene ?? { rows: [] };
      if (!axes || axes.x_axis === null || Math.abs(at.y - axes.x_axis / 10) > CATCH_PX)
        return null;
      /** @type {{away: number, row: any, mark: any} | null} */
      let best = null;
      for (const row of rows) {
        for (const mark of (row.curve && row.lane?.marks) ?? []) {
          const away = Math.abs(mark.x / 10 - at.x);
          if (away <= CATCH_PX && (!best || away < best.away)) best = { away, row, mark };
        }
      }
      return best;
    },
    /** Move the reading line by a pixel's worth of x. */
    nudge(direction) {
      const { width } = engine.size;
      const present =
        engine.reading === null ? width / 2 : pxOf(engine.window, width, engine.reading);
      const px = Math.min(Math.max(present + 2 * direction, 0), width);
      engine.read(abscissa(engine.window, width, px));
      engine.reports.readSoon();
      engine.hearing.step(engine.reading);
    },
  };
}

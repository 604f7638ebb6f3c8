// @ts-check
/** The look of a row: its colour, stroke, weight, marks, and its flag. */
import { say } from "../../shared/words.js";

/** The colours, and the strokes that belong to them, in words. */
const COLOURS = [
  say("teal"),
  say("red"),
  say("violet"),
  say("blue"),
  say("olive"),
  say("magenta"),
  say("brown"),
  say("slate"),
];
const STROKES = [
  say("solid"),
  say("dashed"),
  say("dotted"),
  say("dash and dot"),
  say("long dashes"),
  say("short dashes"),
  say("dash and two dots"),
  say("even dashes"),
];

/** @param {import("../session/engine.js").Engine} engine */
export function makeLook(engine) {
  return {
    get toneChoices() {
      return STROKES.map((stroke, k) => ({
        k,
        name: say("{colour}, {stroke}", { colour: COLOURS[k], stroke }),
        className: `tone-${k}`,
        isPresent: (this.row.tone ?? 0) % STROKES.length === k,
      }));
    },
    get strokeValue() {
      return this.lineStyle.stroke === null ? "" : String(this.lineStyle.stroke);
    },
    get strokeChoices() {
      return [
        { value: "", words: say("default") },
        ...STROKES.map((name, k) => ({ value: String(k), words: name })),
      ];
    },
    get hasPoints() {
      return this.row.kind === "point" || this.row.kind === "list";
    },
    /** Choices whose answer is still on its way: an earlier answer must not undo them. @type {Record<string, any>} */
    chosenStyle: {},
    get lineStyle() {
      return { ...this.row.style, ...this.chosenStyle };
    },
    async restyle(more) {
      const { style = {} } = more;
      this.chosenStyle = { ...this.chosenStyle, ...style };
      await engine.commit([{ do: "style", id: this.row.id, ...more }]);
      this.chosenStyle = Object.fromEntries(
        Object.entries(this.chosenStyle).filter(([name, value]) => style[name] !== value),
      );
    },
    chooseTone(event) {
      this.restyle({ tone: Number(event.currentTarget.dataset.tone) });
    },
    chooseStyle(event) {
      const { name, type, checked, value } = event.target;
      const chosen = { stroke: value === "" ? null : Number(value), weight: Number(value) };
      this.restyle({
        style: {
          [name]:
            type === "checkbox" ? checked : (chosen[name] ?? (name === "stroke" ? null : value)),
        },
      });
    },
  };
}

// @ts-check
/** The Reference: all functions and constants, found by name, meaning or group, and put into a line. */
import { getOnce } from "../../../shared/api.js";
import { say } from "../../../shared/words.js";
import { lastWritten } from "../../rows/last_written.js";

/** Ask for the Reference, once; completion shows it too. @param {import("../../session/engine.js").Engine} engine */
export async function loadReference(engine) {
  const { store } = engine;
  if (store.reference.length) return;
  try {
    const { groups, entries } = await getOnce("/reference");
    store.referenceGroups = groups;
    store.reference = entries.map((entry) => ({
      ...entry,
      sought: [entry.name, ...entry.spellings, entry.meaning, entry.group].join(" ").toLowerCase(),
    }));
  } catch (error) {
    engine.complain(error);
  }
}

/** @param {import("../../session/engine.js").Engine} engine */
export const reference = (engine) => () => ({
  sought: "",

  init() {
    if (this.$store.bench.tab === "reference") loadReference(engine);
    this.$watch("$store.bench.tab", (tab) => tab === "reference" && loadReference(engine));
  },
  get groups() {
    const words = this.sought.toLowerCase().split(/\s+/).filter(Boolean);
    const matching = this.$store.bench.reference.filter((entry) =>
      words.every((word) => entry.sought.includes(word)),
    );
    return this.$store.bench.referenceGroups
      .map((name) => ({ name, entries: matching.filter((entry) => entry.group === name) }))
      .filter((group) => group.entries.length);
  },
  get isEmpty() {
    return this.$store.bench.reference.length > 0 && !this.groups.length;
  },
  get isLoading() {
    return !this.$store.bench.reference.length;
  },
  clear() {
    this.sought = "";
  },
});

/** One entry of the Reference, in full. */
export const referenceEntry = () => () => ({
  get insertLabel() {
    return say("Insert {name}", { name: this.entry.name });
  },
  get exampleLabel() {
    return say("Insert the example {example}", { example: this.entry.example });
  },
  get alsoText() {
    return this.entry.spellings.length
      ? say("also {names}", { names: this.entry.spellings.join(", ") })
      : "";
  },
  /** The value of a constant with its uncertainty and source, or what a unit is. */
  get valueText() {
    return this.hasMore ? "" : this.entry.defined;
  },
  get hasMore() {
    return this.entry.arguments.length > 0;
  },
  insert() {
    this.put(this.entry.insert);
  },
  insertExample() {
    this.put(this.entry.example);
  },
  /** Into the line that was written last, or the new one. */
  put(text) {
    const field = document.getElementById("new-line");
    if (lastWritten.line?.$refs.input?.checkVisibility()) lastWritten.line.insert(text);
    else if (field) {
      field.focus();
      this.$nextTick(() => lastWritten.line?.insert(text));
    }
  },
});

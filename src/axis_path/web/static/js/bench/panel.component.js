// @ts-check
/** The side panel: its tabs and whether it is folded away. */

/** @param {import("./engine.js").Engine} engine */
export const panel = (engine) => () => ({
  get isFindings() {
    return this.$store.bench.tab === "findings";
  },
  get isValues() {
    return this.$store.bench.tab === "values";
  },
  get findingsIndex() {
    return this.isFindings ? 0 : -1;
  },
  get valuesIndex() {
    return this.isValues ? 0 : -1;
  },
  show(tab) {
    this.$store.bench.tab = tab;
    engine.keepViewSoon();
    engine.changed();
  },
  showFindings() {
    this.show("findings");
  },
  showValues() {
    this.show("values");
  },
  tabKey(event) {
    if (!["ArrowLeft", "ArrowRight", "Home", "End"].includes(event.key)) return;
    event.preventDefault();
    this.show(this.isFindings ? "values" : "findings");
    this.$nextTick(() => document.getElementById(`tab-${this.$store.bench.tab}`)?.focus());
  },
  fold() {
    this.$store.bench.folded = true;
    engine.keepViewSoon();
  },
  unfold() {
    this.$store.bench.folded = false;
    engine.keepViewSoon();
    engine.changed();
  },
});

// @ts-check
/** The side panel: its tabs and whether it is folded away. */

const TABS = ["findings", "values", "data", "working", "reference"];

/** @param {import("../session/engine.js").Engine} engine */
export const panel = (engine) => () => ({
  /** Whether what stands in each tab is made: when it is first opened, and not before the first picture stands. @type {Record<string, boolean>} */
  made: {},

  init() {
    this.$watch("$store.bench.tab", () => this.make());
    this.$watch("$store.bench.isReady", () =>
      requestAnimationFrame(() => setTimeout(() => this.make())),
    );
  },
  make() {
    if (!this.$store.bench.isReady) return;
    // Findings have marks on the plane, whatever tab is open.
    this.made.findings = true;
    this.made[this.$store.bench.tab] = true;
  },
  get isFindings() {
    return this.$store.bench.tab === "findings";
  },
  get isValues() {
    return this.$store.bench.tab === "values";
  },
  get isDataTab() {
    return this.$store.bench.tab === "data";
  },
  get isWorking() {
    return this.$store.bench.tab === "working";
  },
  get isReference() {
    return this.$store.bench.tab === "reference";
  },
  get hasFindings() {
    return Boolean(this.made.findings);
  },
  get hasValues() {
    return Boolean(this.made.values);
  },
  get hasData() {
    return Boolean(this.made.data);
  },
  get hasWorking() {
    return Boolean(this.made.working);
  },
  get hasReference() {
    return Boolean(this.made.reference);
  },
  get findingsIndex() {
    return this.isFindings ? 0 : -1;
  },
  get valuesIndex() {
    return this.isValues ? 0 : -1;
  },
  get dataIndex() {
    return this.isDataTab ? 0 : -1;
  },
  get workingIndex() {
    return this.isWorking ? 0 : -1;
  },
  get referenceIndex() {
    return this.isReference ? 0 : -1;
  },
  show(tab) {
    const { bench } = this.$store;
    // One more press on the tab of an open sheet closes it.
    if (bench.isSheet && bench.isSheetOpen && bench.tab === tab) bench.isSheetOpen = false;
    else bench.openTab(tab);
    engine.keepViewSoon();
    engine.changed();
  },
  showFindings() {
    this.show("findings");
  },
  showValues() {
    this.show("values");
  },
  showData() {
    this.show("data");
  },
  showWorking() {
    this.show("working");
  },
  showReference() {
    this.show("reference");
  },
  tabKey(event) {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -TABS.length, End: TABS.length }[event.key];
    if (!by) return;
    event.preventDefault();
    const at = TABS.indexOf(this.$store.bench.tab);
    // Arrows go round; Home and End stop at the ends.
    const next =
      Math.abs(by) === 1 ? (at + by + TABS.length) % TABS.length : by < 0 ? 0 : TABS.length - 1;
    this.show(TABS[next]);
    this.$nextTick(() => document.getElementById(`tab-${this.$store.bench.tab}`)?.focus());
  },
  get isUnfoldShown() {
    return this.$store.bench.isPanelFolded && !this.$store.bench.isSheet;
  },
  fold() {
    this.setFolded(true);
  },
  unfold() {
    this.setFolded(false);
    engine.changed();
  },
  /** Where the panel lies over the plane it is opened for the moment; beside it, that is kept. */
  setFolded(isFolded) {
    const { bench } = this.$store;
    if (bench.isSheet) bench.isSheetOpen = !isFolded;
    else if (bench.isOverlay) bench.isOverlayOpen = !isFolded;
    else {
      bench.folded = isFolded;
      engine.keepViewSoon();
    }
  },
});

// @ts-check
/** The side panel: its tabs and whether it is folded away. */

import { PANELS } from "./registry.js";

const TABS = PANELS.map(({ name }) => name);

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
    this.made[this.present] = true;
  },
  get panels() {
    return PANELS.map(({ name, title }) => ({
      name,
      title,
      tabId: `tab-${name}`,
      panelId: `panel-${name}`,
    }));
  },
  isShown(name) {
    return this.present === name;
  },
  isMade(name) {
    return Boolean(this.made[name]);
  },
  indexOf(name) {
    return this.isShown(name) ? 0 : -1;
  },
  titleOf(name) {
    return PANELS.find((panel) => panel.name === name)?.title ?? "";
  },
  /** The panel that is shown; one that there is no more gives way to the first. */
  get present() {
    const { tab } = this.$store.bench;
    return TABS.includes(tab) ? tab : TABS[0];
  },
  show(tab) {
    const { bench } = this.$store;
    // One more press on the tab of an open sheet closes it.
    if (bench.isSheet && bench.isSheetOpen && bench.tab === tab) bench.isSheetOpen = false;
    else bench.openTab(tab);
    engine.view.saveSoon();
    engine.subscriptions.open();
  },
  tabKey(event) {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -TABS.length, End: TABS.length }[event.key];
    if (!by) return;
    event.preventDefault();
    const at = TABS.indexOf(this.present);
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
    engine.subscriptions.open();
  },
  /** Where the panel lies over the plane it is opened for the moment; beside it, that is kept. */
  setFolded(isFolded) {
    const { bench } = this.$store;
    if (bench.isSheet) bench.isSheetOpen = !isFolded;
    else if (bench.isOverlay) bench.isOverlayOpen = !isFolded;
    else {
      bench.folded = isFolded;
      engine.view.saveSoon();
    }
  },
});

// @ts-check
/** Puts the Bench together. */
import Alpine from "../../vendor/alpine/alpine-csp.esm.min.js";
import { registerFields } from "../shared/field.js";
import { registerFormulas } from "../shared/mathml.js";
import { registerSentences } from "../shared/sentence.js";
import { planeWords } from "./description/description.component.js";
import { lane } from "./lanes/lane.component.js";
import { lanes } from "./lanes/lanes.component.js";
import { runner } from "./lanes/runner.component.js";
import { Layout } from "./layout/layout.js";
import { splitter } from "./layout/splitter.component.js";
import { panel } from "./panels/panel.component.js";
import { PANELS } from "./panels/registry.js";
import { legend } from "./plane/legend.component.js";
import { pictureBox } from "./plane/picture.component.js";
import { plane } from "./plane/plane.component.js";
import { exactForms } from "./rows/exact.component.js";
import { newRow } from "./rows/new_row.component.js";
import { row } from "./rows/row.component.js";
import { rows } from "./rows/rows.component.js";
import { bench, title } from "./session/bench.component.js";
import { Engine } from "./session/engine.js";
import { FocusKeeper } from "./session/focus_keeper.js";
import { shortcuts } from "./session/shortcuts.component.js";
import { makeStore } from "./session/store.js";
import { setSheet } from "./sets/set_sheet.component.js";
import { slider, sliders } from "./sliders/sliders.component.js";
import { axesBox } from "./viewport/axes.component.js";
import { windowBox } from "./viewport/window.component.js";

const initial = JSON.parse(document.getElementById("bench-state")?.textContent ?? "{}");

Alpine.store("bench", makeStore(initial));
const engine = new Engine(Alpine.store("bench"), initial, Alpine.mutateDom);
const components = {
  axesBox,
  bench,
  title,
  exactForms,
  lane,
  lanes,
  legend,
  panel,
  pictureBox,
  plane,
  planeWords,
  newRow,
  row,
  runner,
  setSheet,
  slider,
  sliders,
  shortcuts,
  windowBox,
};
const all = Object.assign(components, ...PANELS.map((panel) => panel.components));
for (const [name, make] of Object.entries(all)) Alpine.data(name, make(engine));
const layout = new Layout(Alpine.store("bench"));
Alpine.data("splitter", splitter(layout));
Alpine.data("rows", rows(engine, layout));
registerFields(Alpine);
registerFormulas(Alpine);
registerSentences(Alpine);
Alpine.start();
new FocusKeeper();

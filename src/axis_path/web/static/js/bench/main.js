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
import { dataPanel, fitCard } from "./panels/data/data.component.js";
import { findingCard, findingItem } from "./panels/findings/finding.component.js";
import { findings } from "./panels/findings/findings.component.js";
import { sweepBox } from "./panels/findings/sweep.component.js";
import { panel } from "./panels/panel.component.js";
import { reference, referenceEntry } from "./panels/reference/reference.component.js";
import { tableColumns } from "./panels/values/columns.component.js";
import { values } from "./panels/values/values.component.js";
import { working, workingLine } from "./panels/working/working.component.js";
import { samplingCheck } from "./plane/check.component.js";
import { legend } from "./plane/legend.component.js";
import { pictureBox } from "./plane/picture.component.js";
import { plane } from "./plane/plane.component.js";
import { exactForms } from "./rows/exact.component.js";
import { newRow } from "./rows/new_row.component.js";
import { row } from "./rows/row.component.js";
import { rows } from "./rows/rows.component.js";
import { trailBox } from "./rows/trail.component.js";
import { bench, title } from "./session/bench.component.js";
import { Engine } from "./session/engine.js";
import { FocusKeeper } from "./session/focus_keeper.js";
import { shortcuts } from "./session/shortcuts.component.js";
import { makeStore } from "./session/store.js";
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
  dataPanel,
  fitCard,
  exactForms,
  findings,
  findingCard,
  findingItem,
  lane,
  lanes,
  legend,
  panel,
  pictureBox,
  plane,
  planeWords,
  newRow,
  reference,
  referenceEntry,
  row,
  runner,
  slider,
  sliders,
  sweepBox,
  tableColumns,
  trailBox,
  values,
  samplingCheck,
  shortcuts,
  windowBox,
  working,
  workingLine,
};
for (const [name, make] of Object.entries(components)) Alpine.data(name, make(engine));
const layout = new Layout(Alpine.store("bench"));
Alpine.data("splitter", splitter(layout));
Alpine.data("rows", rows(engine, layout));
registerFields(Alpine);
registerFormulas(Alpine);
registerSentences(Alpine);
Alpine.start();
new FocusKeeper();

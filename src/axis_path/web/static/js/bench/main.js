// @ts-check
/** Puts the Bench together. */
import Alpine from "../../vendor/alpine/alpine-csp.esm.min.js";
import { registerFields } from "../shared/field.js";
import { registerFormulas } from "../shared/mathml.js";
import { registerSentences } from "../shared/sentence.js";
import { axesBox } from "./axes.component.js";
import { bench, title } from "./bench.component.js";
import { dataPanel, fitCard } from "./data.component.js";
import { Engine } from "./engine.js";
import { exactForms } from "./exact.component.js";
import { findingCard, findingItem } from "./finding.component.js";
import { findings } from "./findings.component.js";
import { lane } from "./lane.component.js";
import { lanes } from "./lanes.component.js";
import { panel } from "./panel.component.js";
import { legend } from "./legend.component.js";
import { pictureBox } from "./picture.component.js";
import { plane } from "./plane.component.js";
import { reference, referenceEntry } from "./reference.component.js";
import { newRow, row, rows } from "./rows.component.js";
import { runner } from "./runner.component.js";
import { samplingCheck } from "./check.component.js";
import { slider, sliders } from "./sliders.component.js";
import { makeStore } from "./store.js";
import { sweepBox } from "./sweep.component.js";
import { trailBox } from "./trail.component.js";
import { tableColumns } from "./columns.component.js";
import { values } from "./values.component.js";
import { windowBox } from "./window.component.js";
import { working, workingLine } from "./working.component.js";

const initial = JSON.parse(document.getElementById("bench-state")?.textContent ?? "{}");

Alpine.store("bench", makeStore(initial));
const engine = new Engine(Alpine.store("bench"), initial, Alpine.mutateDom);
const components = {
  axesBox, bench, title, dataPanel, fitCard, exactForms, findings, findingCard, findingItem, lane, lanes, legend, panel, pictureBox, plane, newRow, reference, referenceEntry, row, rows, runner, slider, sliders, sweepBox, tableColumns, trailBox, values,
  samplingCheck, windowBox, working, workingLine,
};
for (const [name, make] of Object.entries(components)) Alpine.data(name, make(engine));
registerFields(Alpine);
registerFormulas(Alpine);
registerSentences(Alpine);
Alpine.start();

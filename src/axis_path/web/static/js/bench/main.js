// @ts-check
/** Puts the Bench together. */
import Alpine from "../../vendor/alpine/alpine-csp.esm.min.js";
import { registerFormulas } from "../shared/mathml.js";
import { registerSentences } from "../shared/sentence.js";
import { axesBox } from "./axes.component.js";
import { bench, title } from "./bench.component.js";
import { Engine } from "./engine.js";
import { exactForms } from "./exact.component.js";
import { findingCard, findings } from "./findings.component.js";
import { lane } from "./lane.component.js";
import { panel } from "./panel.component.js";
import { legend } from "./legend.component.js";
import { pictureBox } from "./picture.component.js";
import { plane } from "./plane.component.js";
import { reference, referenceEntry } from "./reference.component.js";
import { newRow, row, rows } from "./rows.component.js";
import { samplingCheck } from "./check.component.js";
import { slider, sliders } from "./sliders.component.js";
import { makeStore } from "./store.js";
import { values } from "./values.component.js";
import { windowBox } from "./window.component.js";
import { working, workingLine } from "./working.component.js";

const initial = JSON.parse(document.getElementById("bench-state")?.textContent ?? "{}");

Alpine.store("bench", makeStore(initial));
const engine = new Engine(Alpine.store("bench"), initial, Alpine.mutateDom);
const components = {
  axesBox, bench, title, exactForms, findings, findingCard, lane, legend, panel, pictureBox, plane, newRow, reference, referenceEntry, row, rows, slider, values,
  samplingCheck, windowBox, working, workingLine,
};
for (const [name, make] of Object.entries(components)) Alpine.data(name, make(engine));
Alpine.data("sliders", sliders);
registerFormulas(Alpine);
registerSentences(Alpine);
Alpine.start();

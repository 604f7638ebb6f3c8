// @ts-check
/** The runner and the trail of a row. */
import { say } from "../../shared/words.js";
import { runnerOf } from "../lanes/runner.component.js";
import { AT_END } from "../sliders/slider_form.js";

/** @param {import("../session/engine.js").Engine} engine */
export function makeMotion(engine) {
  return {
    endings: AT_END,

    get canTrail() {
      return this.hasRunner || this.row.kind === "point";
    },
    get hasSetRunner() {
      return Boolean(this.row.runner?.is_set);
    },
    get isRunning() {
      return Boolean(this.$store.bench.moving[`runner-${this.row.id}`]);
    },
    get runLabel() {
      return this.isRunning
        ? say("Pause the runner of {called}", { called: this.called })
        : say("Play the runner of {called}", { called: this.called });
    },
    togglePlay() {
      if (this.isRunning) engine.motion.pause(`runner-${this.row.id}`);
      else engine.motion.play(runnerOf(engine.store, this.row.id));
    },
    get runnerText() {
      return this.row.runner?.is_set && !this.row.disabled ? this.row.runner.text : "";
    },
    get runnerAt() {
      return this.row.runner ? this.row.runner.at || String(this.row.runner.value) : "";
    },
    async putRunner(event) {
      const error = await engine.commit([{ do: "runner", id: this.row.id, t: event.target.value }]);
      this.lookProblem = error ? error.message : "";
    },
    async playRunner(event) {
      const { name, value } = event.target;
      const error = await engine.commit([
        {
          do: "runner",
          id: this.row.id,
          play: { [name]: name === "seconds" ? Number(value) : value },
        },
      ]);
      this.lookProblem = error ? error.message : "";
    },
    takeRunner() {
      engine.carryOut([{ do: "runner", id: this.row.id, t: null }]);
    },
    changeTrail(event) {
      engine.carryOut([
        { do: "trail", id: this.row.id, how: event.target.checked ? "show" : "off" },
      ]);
    },
    async showMost(event) {
      const error = await engine.commit([
        { do: "trail", id: this.row.id, how: "show", most: Number(event.target.value) },
      ]);
      this.lookProblem = error ? error.message : "";
    },
    clearTrail() {
      engine.carryOut([{ do: "trail", id: this.row.id, how: "clear" }]);
    },
  };
}

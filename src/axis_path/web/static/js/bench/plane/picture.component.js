// @ts-check
/** Pictures out: a file of what is seen, which also carries the study. */
import { askFile } from "../../shared/api.js";
import { saveAs } from "../../shared/save.js";
import { say } from "../../shared/words.js";
import { isDark } from "./tones.js";

/** @param {import("../session/engine.js").Engine} engine */
export const pictureBox = (engine) => () => ({
  isOpen: false,
  format: "png",
  scale: "2",
  white: false,
  withReading: false,
  withFindings: true,
  problem: "",
  done: "",

  toggle() {
    this.isOpen = !this.isOpen;
    this.problem = "";
    this.done = "";
    if (this.isOpen) this.$nextTick(() => this.$refs.first.focus());
  },
  close() {
    this.isOpen = false;
    this.$refs.opener.focus();
  },
  get isPng() {
    return this.format === "png";
  },
  get isStudy() {
    return this.format === "study";
  },
  /** Only a PNG can be copied everywhere. */
  get canCopy() {
    return this.isPng && "clipboard" in navigator && typeof ClipboardItem !== "undefined";
  },
  ask() {
    const look = {
      format: this.format,
      scale: this.isPng ? Number(this.scale) : 1,
      white: this.white,
      with_reading: this.withReading,
      with_findings: this.withFindings,
      dark: isDark(),
    };
    return askFile(`${engine.path}/picture`, engine.body(look));
  },
  async make(use) {
    this.problem = "";
    this.done = "";
    try {
      this.done = await use();
    } catch (error) {
      this.problem = error.message;
    }
  },
  save() {
    return this.make(async () => {
      const ending = this.isStudy ? "json" : this.format;
      const name = `${this.$store.bench.title.replace(/[^\p{L}\p{N} _-]/gu, "").trim() || "study"}.${ending}`;
      saveAs(await this.ask(), name);
      return say("Saved as {name}.", { name });
    });
  },
  copy() {
    return this.make(async () => {
      await navigator.clipboard.write([new ClipboardItem({ "image/png": this.ask() })]);
      return say("The picture is on the clipboard.");
    });
  },
});

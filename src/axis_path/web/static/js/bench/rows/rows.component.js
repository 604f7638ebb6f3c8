// @ts-check
/** The rows: definitions and notes, edited in place. */

import { runnerOf } from "../lanes/runner.component.js";
import { AT_END } from "../sliders/sliders.component.js";
import { askWindow } from "../viewport/actions.js";
import { makeCompletion, rememberLine } from "./completion.js";
import { makeWriting, together } from "./writing.js";

/** The strokes that belong to the colours, in words. */
const STROKES = [
  "solid",
  "dashed",
  "dotted",
  "dash and dot",
  "long dashes",
  "short dashes",
  "dash and two dots",
  "even dashes",
];
/** A reading with more letters takes the place of the domain. */
const LONG_READING = 18;
/** What can be drawn for several values of a slider. */
const FAMILIES = new Set(["function", "path", "polar", "relation", "region"]);
const DRAWN = new Set(["function", "path", "polar", "point", "relation", "region", "several"]);

/** @param {import("../session/engine.js").Engine} engine */
export const rows = (engine) => () => ({
  /** @type {any[]} */
  chosenRows: [],
  /** The row that is being moved, and the row it would stand behind. @type {any} */
  moving: null,

  get hasChosen() {
    return this.chosenRows.length > 0;
  },
  get chosenText() {
    return this.chosenRows.length === 1
      ? "1 line chosen"
      : `${this.chosenRows.length} lines chosen`;
  },
  choose(id) {
    this.chosenRows = this.chosenRows.includes(id)
      ? this.chosenRows.filter((each) => each !== id)
      : [...this.chosenRows, id];
  },
  chooseNone() {
    this.chosenRows = [];
  },
  async deleteChosen() {
    const ids = [...this.chosenRows];
    const error = await engine.carryOut([{ do: "remove_several", ids }]);
    if (!error)
      this.$store.bench.say(`${ids.length} lines were deleted. Undo brings them back.`, true);
    this.chosenRows = [];
  },
  hideChosen() {
    engine.carryOut(this.chosenRows.map((id) => ({ do: "hide", id, hidden: true })));
    this.chosenRows = [];
  },
  disableChosen() {
    engine.carryOut(this.chosenRows.map((id) => ({ do: "disable", id, disabled: true })));
    this.chosenRows = [];
  },

  /** Where a row is dropped: behind the last row whose middle lies above the pointer. */
  placeFor(y, id) {
    /** @type {number | null} */
    let after = null;
    for (const item of this.$refs.rows.querySelectorAll(".row-item")) {
      const box = item.getBoundingClientRect();
      const other = Number(item.dataset.row);
      if (box.top + box.height / 2 < y && other !== id) after = other;
    }
    return after;
  },
  grip(event, id) {
    if (event.button > 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    this.moving = { id, from: event.clientY, after: undefined };
  },
  pull(event) {
    if (!this.moving || Math.abs(event.clientY - this.moving.from) < 5) return;
    this.moving.after = this.placeFor(event.clientY, this.moving.id);
  },
  letGo() {
    const { moving } = this;
    this.moving = null;
    if (!moving) return;
    if (moving.after === undefined) this.choose(moving.id);
    else this.move(moving.id, moving.after);
  },
  gripKey(event, id) {
    if (event.key === " " || event.key === "Enter") this.choose(id);
    else if (event.key === "ArrowUp" || event.key === "ArrowDown")
      this.shift(id, event.key === "ArrowDown" ? 1 : -1);
    else return;
    event.preventDefault();
  },
  /** Move a row one place up or down among those that are shown. */
  shift(id, by) {
    const ids = this.shownRows.map((row) => row.id);
    const to = ids.indexOf(id) + by;
    if (to < 0 || to >= ids.length) return;
    this.move(id, by > 0 ? ids[to] : (ids[to - 1] ?? null));
  },
  move(id, after) {
    return engine.commit([{ do: "move", id, after }]);
  },
  /** Sliders have their own place; a slider with a problem shows as a row, where it can be mended. */
  get shownRows() {
    const sliders = new Set(this.$store.bench.sliders.map((slider) => slider.id));
    return this.$store.bench.rows.filter((row) => !sliders.has(row.id) || row.problem);
  },
});

/** @param {import("../session/engine.js").Engine} engine */
export const row = (engine) => () =>
  together(makeWriting(engine), makeCompletion(engine), {
    isEditing: false,
    isStyling: false,
    lookProblem: "",
    /** What was typed for a family and is not drawn yet. @type {any} */
    family: {},
    familyHow: "",
    endings: AT_END,

    /** Why nothing is drawn of the line, or not all. */
    get whyText() {
      return this.row.why?.sentence ?? "";
    },
    get canFrame() {
      return Boolean(this.row.why?.frame);
    },
    frame() {
      askWindow(engine, { how: "frame", id: this.row.id });
    },
    get isNote() {
      return this.row.kind === "note";
    },
    get isFunction() {
      return this.row.kind === "function";
    },
    /** Whether the line has a place on the plane. */
    get isDrawn() {
      return (
        (DRAWN.has(this.row.kind) && !this.row.undrawn) ||
        (this.row.kind === "list" && this.row.tone !== null)
      );
    },
    get noteText() {
      return this.row.text.replace(/^\s*#\s*/, "");
    },
    get hasFormula() {
      return Boolean(this.row.mathml);
    },
    get isRaw() {
      return !this.isNote && !this.row.mathml;
    },
    get hasLane() {
      return this.row.hasLane;
    },
    get rowClass() {
      return {
        "is-note": this.isNote && !this.isEditing,
        "is-disabled": this.row.disabled,
        "is-hidden": this.row.hidden,
        "is-editing": this.isEditing,
        "is-laneless": !this.hasLane,
        "is-chosen": this.isPicked,
        "is-target": this.moving !== null && this.moving.after === this.row.id,
        "is-moving": this.moving !== null && this.moving.id === this.row.id,
      };
    },
    get strokeClass() {
      return this.isDrawn && !this.row.disabled ? `tone-${(this.row.tone ?? 0) % 8}` : "";
    },
    get hasSecond() {
      if (this.isNote || this.isEditing) return false;
      return Boolean(
        this.closesText ||
          this.isUnrestricted ||
          this.row.domain ||
          this.stateText ||
          this.readingText ||
          this.row.undrawn,
      );
    },
    get isUnrestricted() {
      return this.isFunction && !this.row.domain && !this.row.problem;
    },
    /** A path's reading needs the room of its domain. */
    get hasLongReading() {
      return this.readingText.length > LONG_READING;
    },
    get shownDomain() {
      return this.hasLongReading ? "" : this.row.domain;
    },
    get allText() {
      return `all ${this.row.variable ?? "x"}`;
    },
    get stateText() {
      if (this.row.disabled) return "turned off";
      if (this.hasLongReading) return "";
      if (this.row.hidden) return "hidden";
      return this.row.undrawn ?? (this.row.note || this.familyText || this.row.assumed);
    },
    /** What is known exactly of a computed value, once it was looked for. */
    get found() {
      return this.row.value && !this.row.disabled ? this.$store.bench.exact[this.row.id] : null;
    },
    /** The exact form of a computed value, unless its decimal is just that. */
    get exact() {
      const found = this.found;
      return found && !found.is_plain ? found.mathml : "";
    },
    get exactNote() {
      return this.found?.note ?? "";
    },
    get readingText() {
      if (this.runnerText && (this.isRunning || !this.row.reading)) return this.runnerText;
      if (this.row.value) return this.found?.is_equal ? this.found.decimal : this.row.value;
      return this.row.reading ? this.row.reading.text : "";
    },
    get readingReason() {
      return this.row.reading?.reason ?? "";
    },
    get called() {
      return this.row.name ?? "this line";
    },
    get editTitle() {
      return `Edit ${this.row.text}`;
    },
    get inputLabel() {
      return `Text of ${this.called}`;
    },
    get hideLabel() {
      return `Hide ${this.called}`;
    },
    get hideTitle() {
      return this.row.hidden ? "Show" : "Hide: it works, but is not drawn";
    },
    get disableLabel() {
      return `Turn ${this.called} off`;
    },
    get disableTitle() {
      return this.row.disabled ? "Turn on" : "Turn off: keep it without using it";
    },
    get hasRunner() {
      return Boolean(this.row.runner);
    },
    get closesText() {
      const { closes, disabled } = this.row;
      return closes && !disabled && !this.isEditing ? `closes at ${closes.text}` : "";
    },
    get closesTitle() {
      return `This range is too short for ${this.called} to close: draw it up to ${this.row.closes?.text ?? ""}`;
    },
    close() {
      const { low, high } = this.row.closes;
      const ends =
        low === null
          ? [["high", high]]
          : [
              ["low", low],
              ["high", high],
            ];
      engine.carryOut(
        ends.map(([end, text]) => ({ do: "domain", id: this.row.id, end, text, closed: true })),
      );
    },
    get canFamily() {
      return FAMILIES.has(this.row.kind) && this.$store.bench.sliders.length > 0;
    },
    get familyText() {
      const { family } = this.row;
      if (!family || this.row.disabled) return "";
      return family.problem
        ? family.problem.message
        : `${family.members.length} curves of ${family.sign}`;
    },
    get familySlider() {
      const { sliders } = this.$store.bench;
      return (
        this.family?.slider ??
        this.row.family?.slider ??
        (sliders.find((each) => each.used_by.includes(this.row.name)) ?? sliders[0])?.id
      );
    },
    get familyForm() {
      const slider = this.$store.bench.sliders.find((each) => each.id === this.familySlider);
      const usual = { values: "", first: slider?.low ?? "", last: slider?.high ?? "", count: "5" };
      return { ...usual, ...(this.row.family ?? {}), ...this.family };
    },
    get familyByValues() {
      return (
        this.familyHow === "values" || (this.familyHow === "" && Boolean(this.row.family?.values))
      );
    },
    chooseHow(event) {
      this.familyHow = event.target.value;
    },
    setFamily(event) {
      const { name, value } = event.target;
      this.family = { ...this.family, [name]: name === "slider" ? Number(value) : value };
    },
    async drawFamily() {
      const { values, first, last, count } = this.familyForm;
      const texts = this.familyByValues ? { values } : { first, last, count };
      const error = await engine.commit([
        { do: "family", id: this.row.id, slider: this.familySlider, ...texts },
      ]);
      this.lookProblem = error ? error.message : "";
      if (!error) this.family = {};
    },
    takeFamily() {
      this.family = {};
      engine.carryOut([{ do: "family", id: this.row.id, slider: null }]);
    },
    get canTrail() {
      return this.hasRunner || this.row.kind === "point";
    },
    get isRunning() {
      return Boolean(this.$store.bench.moving[`runner-${this.row.id}`]);
    },
    get runLabel() {
      return `${this.isRunning ? "Pause" : "Play"} the runner of ${this.called}`;
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
    get unfixLabel() {
      return `Make a slider of ${this.row.name}`;
    },
    unfix() {
      engine.carryOut([{ do: "fix", id: this.row.id, fixed: false }]);
    },
    get deleteLabel() {
      return `Delete ${this.called}`;
    },

    /** While it is written, a line shows the problem of what is written, else its own. */
    get shownProblem() {
      if (this.row.disabled && this.row.problem?.code !== "study.halted" && !this.isEditing)
        return null;
      return this.isEditing ? this.writtenProblem : this.row.problem;
    },
    get problemText() {
      return this.isEditing ? this.previewedText : this.row.text;
    },

    edit() {
      this.text = this.row.text;
      this.isEditing = true;
      this.preview();
      this.$nextTick(() => {
        this.$refs.input.focus();
        this.$refs.input.select();
      });
    },
    cancel() {
      this.isEditing = false;
      this.forgetPreview();
    },
    keepOnBlur(event) {
      this.blur();
      // Looking something up for a line does not end writing it.
      if (event.relatedTarget?.closest(".panel")) return;
      if (this.isEditing) this.keep();
    },
    async keep() {
      const text = this.text.trim();
      this.isEditing = false;
      this.forgetPreview();
      if (text === this.row.text) return;
      rememberLine(engine.store.id, text);
      /** @type {import("#types/commands").AnyCommand} */
      const command = text
        ? { do: "write", id: this.row.id, text }
        : { do: "remove", id: this.row.id };
      const error = await engine.commit([command]);
      if (error) {
        this.isEditing = true;
        this.text = text;
        this.showRefusal(error);
      }
    },
    get styleLabel() {
      return `Look of ${this.called}`;
    },
    get toneChoices() {
      return STROKES.map((name, k) => ({
        k,
        name,
        className: `tone-${k}`,
        isPresent: (this.row.tone ?? 0) % STROKES.length === k,
      }));
    },
    get strokeValue() {
      return this.row.style.stroke === null ? "" : String(this.row.style.stroke);
    },
    get strokeChoices() {
      return [
        { value: "", words: "as its colour" },
        ...STROKES.map((name, k) => ({ value: String(k), words: name })),
      ];
    },
    get hasPoints() {
      return this.row.kind === "point" || this.row.kind === "list";
    },
    toggleStyle() {
      this.isStyling = !this.isStyling;
    },
    closeStyle() {
      this.isStyling = false;
    },
    restyle(more) {
      return engine.commit([{ do: "style", id: this.row.id, ...more }]);
    },
    chooseTone(event) {
      this.restyle({ tone: Number(event.currentTarget.dataset.tone) });
    },
    chooseStyle(event) {
      const { name, type, checked, value } = event.target;
      const found = { stroke: value === "" ? null : Number(value), weight: Number(value) };
      this.restyle({
        style: {
          [name]:
            type === "checkbox" ? checked : (found[name] ?? (name === "stroke" ? null : value)),
        },
      });
    },
    get gripLabel() {
      return `Move or choose ${this.called}`;
    },
    get duplicateLabel() {
      return `Duplicate ${this.called}`;
    },
    get isPicked() {
      return this.chosenRows.includes(this.row.id);
    },
    takeGrip(event) {
      this.grip(event, this.row.id);
    },
    keyGrip(event) {
      this.gripKey(event, this.row.id);
    },
    duplicateStyled() {
      this.isStyling = false;
      this.duplicate();
    },
    duplicate() {
      engine.carryOut([{ do: "duplicate", id: this.row.id }]);
    },
    hide() {
      engine.carryOut([{ do: "hide", id: this.row.id, hidden: !this.row.hidden }]);
    },
    toggleDisabled() {
      engine.carryOut([{ do: "disable", id: this.row.id, disabled: !this.row.disabled }]);
    },
    async remove() {
      const { called } = this;
      const users = this.row.used_by;
      const error = await engine.carryOut([{ do: "remove", id: this.row.id }]);
      if (error) return;
      const missed = users.length ? ` ${users.join(", ")} needed it.` : "";
      this.$store.bench.say(
        `${called} was deleted.${missed} Undo brings it back.`,
        users.length > 0,
      );
    },

    repair() {
      const mended = this.mendedText;
      if (this.isEditing) this.put({ text: mended, caret: mended.length });
      else engine.carryOut([{ do: "write", id: this.row.id, text: mended }]);
    },
    async makeSliders() {
      const names = [...this.shownProblem.letters];
      /** @type {any[]} */
      const commands = [{ do: "make_sliders", names }];
      if (this.isEditing) {
        commands.unshift({ do: "write", id: this.row.id, text: this.text.trim() });
        this.isEditing = false;
      }
      await engine.commit(commands);
    },
    nothing() {},
  });

/** @param {import("../session/engine.js").Engine} engine */
export const newRow = (engine) => () =>
  together(makeWriting(engine), makeCompletion(engine), {
    row: { id: null, text: "" },
    get shownProblem() {
      return this.text ? this.writtenProblem : null;
    },
    get problemText() {
      return this.previewedText;
    },
    clear() {
      this.text = "";
      this.recallAt = null;
      this.stopOffering();
      this.forgetPreview();
    },
    repair() {
      const mended = this.mendedText;
      this.put({ text: mended, caret: mended.length });
    },
    nothing() {},
    /** Examples for somebody who begins a line, or the study. */
    get showsHelp() {
      return !this.text && (this.hasFocus || !this.$store.bench.rows.length);
    },
    async keep() {
      const text = this.text.trim();
      if (!text) return;
      rememberLine(engine.store.id, text);
      this.clear();
      const error = await engine.commit([{ do: "write", id: null, text }]);
      if (error) {
        this.text = text;
        this.showRefusal(error);
        return;
      }
      this.$nextTick(() => {
        const list = this.$root.parentElement;
        list.scrollTop = list.scrollHeight;
      });
    },
  });

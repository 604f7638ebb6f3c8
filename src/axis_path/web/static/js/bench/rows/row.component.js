// @ts-check
/** One row: a definition or a note, edited in place. */

import { makePopoverMenu } from "../../shared/popover_menu.js";
import { together } from "../../shared/together.js";
import { say } from "../../shared/words.js";
import { makeRowSet } from "../sets/row_set.js";
import { askWindow } from "../viewport/actions.js";
import { makeCompletion, rememberLine } from "./completion.js";
import { makeFamily } from "./row_family.js";
import { makeLook } from "./row_look.js";
import { makeMenu } from "./row_menu.js";
import { makeMotion } from "./row_motion.js";
import { makeUnits } from "./row_units.js";
import { makeWriting } from "./writing.js";

/** A reading with more letters takes the place of the domain. */
const LONG_READING = 18;
const DRAWN = new Set(["function", "path", "polar", "point", "relation", "region", "several"]);

/** Whether a list or a matrix stands in its line as it is: its value would only repeat that. */
const isWrittenOut = ({ text, value }) =>
  text.includes("[") && plainEntries(text.split("=").pop()) === plainEntries(value);

/** A list or a matrix without spaces, its decimals without zeros at the end. @param {string} text */
const plainEntries = (text) =>
  text
    .replaceAll(" ", "")
    .replaceAll("−", "-")
    .replace(/\d*\.\d+/g, (number) => String(Number(number)));

/** @param {import("../session/engine.js").Engine} engine */
export const row = (engine) => () =>
  together(
    makeWriting(engine),
    makeCompletion(engine),
    makeLook(engine),
    makeMotion(engine),
    makeFamily(engine),
    makeUnits(engine),
    makeRowSet(engine),
    makePopoverMenu(),
    makeMenu(engine),
    {
      isEditing: false,

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
      get lineLabel() {
        return this.row.name
          ? say("Line {number}, {name}", { number: this.number, name: this.row.name })
          : say("Line {number}", { number: this.number });
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
      get noteParts() {
        return this.row.words.map((part, key) => ({ ...part, key }));
      },
      /** What the table of a list or a matrix shows and changes. */
      get cellsOf() {
        const { id, name } = this.row;
        return { query: { name }, target: { id }, name };
      },
      closeCells() {
        this.closeForm();
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
          "is-set": this.hasSet,
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
        return say("all {variable}", { variable: this.row.variable ?? "x" });
      },
      get stateText() {
        if (this.row.disabled) return say("turned off");
        if (this.hasLongReading) return "";
        if (this.row.hidden) return "hidden";
        return this.row.undrawn ?? (this.row.note || this.familyText || this.row.assumed);
      },
      /** What is known exactly of a computed value, once it was looked for. */
      get knownExact() {
        return this.row.value && !this.row.disabled ? this.$store.bench.exact[this.row.id] : null;
      },
      /** The exact form of a computed value, unless its decimal is just that. */
      get exact() {
        const knownExact = this.knownExact;
        if (!knownExact || knownExact.is_plain || isWrittenOut(this.row)) return "";
        return knownExact.mathml;
      },
      get exactNote() {
        return this.knownExact?.note ?? "";
      },
      get readingText() {
        if (this.runnerText && (this.isRunning || !this.row.reading)) return this.runnerText;
        if (this.row.value) {
          if (isWrittenOut(this.row)) return "";
          return this.knownExact?.is_equal ? this.knownExact.decimal : this.row.value;
        }
        return this.row.reading ? this.row.reading.text : "";
      },
      /** What the reading is the value of, such as `f(5) =`. */
      get readingOf() {
        const { reading, name, kind } = this.row;
        const abscissa = this.$store.bench.reading?.text;
        if (kind !== "function" || !reading || !abscissa || !name) return "";
        return `${name}(${abscissa}) ${reading.reason ? "is" : "="}`;
      },
      get readingReason() {
        return this.row.reading?.reason ?? "";
      },
      get called() {
        return this.row.name ?? say("line {number}", { number: this.number });
      },
      get editTitle() {
        return say("Edit {text}", { text: this.row.text });
      },
      get inputLabel() {
        return say("Text of {name}", { name: this.called });
      },
      get hideLabel() {
        return say("Hide {name}", { name: this.called });
      },
      get hideTitle() {
        return this.row.hidden ? say("Show") : say("Hide the curve (others can still use it)");
      },
      get hasRunner() {
        return Boolean(this.row.runner);
      },
      get closesText() {
        const { closes, disabled } = this.row;
        return closes && !disabled && !this.isEditing
          ? say("closes at {place}", { place: closes.text })
          : "";
      },
      get closesTitle() {
        return say("This range is too short for {name} to close. Draw it up to {place}", {
          name: this.called,
          place: this.row.closes?.text ?? "",
        });
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
      /** While it is written, a line shows the problem of what is written, else its own. */
      get shownProblem() {
        if (this.row.disabled && this.row.problem?.code !== "study.halted" && !this.isEditing)
          return null;
        return this.isEditing ? this.writtenProblem : this.row.problem;
      },
      get problemText() {
        return this.isEditing ? this.previewedText : this.row.text;
      },

      edit(event) {
        if (event.shiftKey && event.detail) {
          this.choose(this.row.id, true);
          return;
        }
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
        this.focusFormula();
      },
      focusFormula() {
        this.$nextTick(() => this.$root.querySelector(".row-formula").focus());
      },
      /** Enter keeps the line, and the work goes on at the line. */
      keepByKey() {
        this.focusFormula();
        this.keep();
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
      /** Where the row stands among those that are shown. */
      get number() {
        return this.numberOf(this.row.id);
      },
      get gripLabel() {
        return say("Line {number}: move {name}", {
          number: this.number,
          name: this.row.name ?? "it",
        });
      },
      get chooseLabel() {
        return say("Select {name}", { name: this.called });
      },
      chooseRow(event) {
        this.choose(this.row.id, event.shiftKey);
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
        const { called, number } = this;
        const users = this.row.used_by;
        const error = await engine.carryOut([{ do: "remove", id: this.row.id }]);
        if (error) return;
        this.focusAt(number - 1);
        this.$store.bench.say(
          users.length
            ? say("{name} was deleted, but {users} needed it. Undo brings it back.", {
                name: called,
                users: users.join(", "),
              })
            : say("{name} was deleted. Undo brings it back.", { name: called }),
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
    },
  );

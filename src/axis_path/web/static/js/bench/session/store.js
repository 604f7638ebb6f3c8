// @ts-check
/** What the page shows, as Alpine's reactive store; filled from scenes, field by field. */
import { say } from "../../shared/words.js";

/** Kinds of lines whose words are not their own. @type {Record<string, string>} */
const KIND_WORDS = {
  polar: say("curve by an angle"),
  several: say("function of several variables"),
};

/** Change only what differs, so that only that is drawn anew. */
function update(target, source) {
  for (const [key, value] of Object.entries(source)) {
    const same =
      typeof value === "object"
        ? JSON.stringify(target[key]) === JSON.stringify(value)
        : target[key] === value;
    if (!same) target[key] = value;
  }
}

/**
 * Bring a list of entries with ids up to date, in the order of the source.
 * @param {any[]} list @param {any[]} source
 * @param {Map<number, string>} taken what each entry was taken from: one that is the same is not looked into.
 */
function updateList(list, source, taken) {
  const known = new Map(list.map((entry) => [entry.id, entry]));
  const sameOrder =
    list.length === source.length && source.every((entry, k) => list[k].id === entry.id);
  for (const entry of source) {
    const present = known.get(entry.id);
    const text = JSON.stringify(entry);
    if (present && taken.get(entry.id) !== text) update(present, entry);
    taken.set(entry.id, text);
  }
  if (!sameOrder) {
    const next = source.map((entry) => known.get(entry.id) ?? entry);
    list.splice(0, list.length, ...next);
  }
}

/** The parts of a row that the page shows; its curve, its lane and where it is read are only painted. */
/** @param {import("#types/answers").Row} row */
const shownRow = ({ curve, lane, flag, family, reading, ...row }) => ({
  ...row,
  hasLane: lane !== null,
  family: shownFamily(family),
  reading: reading && { text: reading.text, reason: reading.reason },
});

/** The curves of a family are only painted. */
const shownFamily = (family) =>
  family && { ...family, members: family.members.map(({ text, problem }) => ({ text, problem })) };

/** @param {import("#types/answers").SceneSlider} slider */
const shownSlider = (slider) => ({
  ...slider,
  lowText: slider.low.replace("-", "−").replace(/\bpi\b|(?<=\d)pi\b/, "π"),
  highText: slider.high.replace("-", "−").replace(/\bpi\b|(?<=\d)pi\b/, "π"),
});

/** @typedef {ReturnType<typeof shownRow>} ShownRow */

/** @param {any} initial */
export function makeStore(initial) {
  const takenRows = new Map();
  const takenSliders = new Map();
  return {
    id: initial.id,
    title: initial.title,
    unit: initial.unit,
    undo: initial.undo,
    redo: initial.redo,
    table: initial.table,
    /** @type {ShownRow[]} */
    rows: [],
    /** @type {ReturnType<typeof shownSlider>[]} */
    sliders: [],
    /** @type {any} */
    reading: null,
    /** @type {any} */
    empty: null,
    window: initial.view.window,
    tab: initial.view.tab ?? "findings",
    folded: initial.view.folded ?? false,
    /** Whether the side panel lies over the plane, and whether it is open there. */
    isOverlay: false,
    isOverlayOpen: false,
    /** Whether the side panel is a sheet from below, and whether it is open. */
    isSheet: false,
    isSheetOpen: false,
    /** Whether a line is being written. */
    isWriting: false,
    saving: false,
    problem: "",
    /** What helps: to ask again, or to reload the page. @type {"retry" | "reload"} */
    remedy: "retry",
    /** What failed. @type {"change" | "picture"} */
    problemOf: "change",
    said: "",
    /** What happened, where everyone should see it; until the next change. */
    notice: "",
    /** Whether what happened can be undone beside the words. */
    isNoticeUndone: false,
    /** Whether single keys and Ctrl do something beside what a field does. */
    hasShortcuts: true,
    isKeySheetOpen: false,
    /** Whether the plane has the whole page. */
    isPlaneOnly: false,
    /** Whether the plane is shown in words too. */
    isDescribed: false,
    /** The line whose curve was heard last. @type {number | null} */
    heardLine: null,
    /** A file that was dropped on the page, for the Data panel. @type {File | null} */
    droppedFile: null,
    /** Whether a file is held over the page. */
    isDropping: false,
    isReady: false,
    /** Where the legend stands, if it is shown. @type {any} */
    legend: null,
    /** The lines of the title. @type {any[]} */
    titles: [],
    /** The mark that the pointer has caught, in words. */
    caught: "",
    /** The sampling check that is shown. @type {any} */
    check: null,
    /** The function that its row asks to check next. @type {number | null} */
    checkLine: null,
    /** Whether the next drag on the plane draws a box to zoom into. */
    isBoxing: false,
    /** Whether the next drag on the plane draws a box around points of data, and that box. */
    isChoosing: false,
    /** @type {[[number, number], [number, number]] | null} */
    dataBox: null,
    /** Whether the next drag on the plane draws a bracket to search in. */
    isBracketing: false,
    /** Where to search next, as it was dragged: the line, and both ends as texts. @type {any} */
    bracket: null,
    /** The place around which the table of values is to be seen. @type {number | null} */
    valueWanted: null,
    /** How the axes look, as kept with the study. */
    axes: initial.axes_spec,
    /** With how many digits findings are shown. */
    digits: initial.digits,
    /** What the axes say of themselves, such as a note where labels and functions disagree. */
    axesNote: null,
    /** Whether there are windows to step back and forward to. */
    trail: { back: false, forward: false, isUndone: false, isRedone: false },
    /** What plays, by its key. @type {Record<string, boolean>} */
    moving: {},
    /** Counts up whenever a trail goes on. */
    trailTick: 0,
    /** The connection is lost; everything goes on when it is back. */
    isWaiting: false,
    waitingText: "",
    /** Pictures are slower than usual: the server is still getting ready. */
    isWarming: initial.is_compiled === false,
    /** The picture could not be brought up to date. */
    isStale: false,
    /** Something takes long and can be given up. */
    isSlow: false,
    /** Computed values with their exact forms, by the ids of their rows. @type {Record<string, any>} */
    exact: {},
    /** The units of rows and axes; null in a study without units. @type {any} */
    units: null,
    /** The sets of equations in short, by the ids of their lines. @type {any} */
    sets: {},
    /** What the what-if table is made from. @type {any} */
    whatIf: {},
    /** The line whose equations are open; null for none. @type {number | null} */
    openedSet: null,
    /** Every function and constant, once it was asked for. @type {any[]} */
    reference: [],
    /** @type {string[]} */
    referenceGroups: [],

    /** The names that the study itself defines, as a line can use them. */
    get ownNames() {
      const unknowns = Object.values(this.sets).flatMap((set) =>
        set.values.map(({ name, mathml }) => ({
          name,
          signature: mathml,
          meaning: say("unknown of a set of equations"),
          insert: name,
        })),
      );
      return [...this.rowNames, ...unknowns];
    },
    /** The names that rows define themselves. */
    get rowNames() {
      return this.rows
        .filter(
          (row) =>
            row.name &&
            !row.disabled &&
            !row.problem &&
            row.kind !== "relation" &&
            row.kind !== "region" &&
            row.kind !== "equations",
        )
        .map((row) => {
          const isCalled = row.variables.length > 0;
          return {
            name: row.name,
            signature: row.mathml,
            meaning: say("{kind} of this study", { kind: KIND_WORDS[row.kind] ?? row.kind }),
            insert: isCalled ? `${row.name}(` : row.name,
          };
        });
    },
    get savedText() {
      if (this.isUnsaved) return say("not saved");
      return this.saving ? say("saving …") : say("saved");
    },
    /** Whether the last change was refused or got lost on the way. */
    get isUnsaved() {
      return Boolean(this.problem) && this.problemOf === "change";
    },
    get isPanelFolded() {
      if (this.isSheet) return !this.isSheetOpen;
      return this.isOverlay ? !this.isOverlayOpen : this.folded;
    },
    /** What would be undone: the last move of the window, or the last change of the study. */
    get undoable() {
      return this.trail.isUndone ? say("move of the window") : this.undo;
    },
    get redoable() {
      return this.trail.isRedone ? say("move of the window") : this.redo;
    },
    get undoTitle() {
      return this.undoable
        ? say("Undo: {what} (Ctrl+Z)", { what: this.undoable })
        : say("Nothing to undo");
    },
    get redoTitle() {
      return this.redoable
        ? say("Redo: {what} (Ctrl+Shift+Z)", { what: this.redoable })
        : say("Nothing to redo");
    },
    get functions() {
      return this.rows.filter((row) => row.kind === "function" && !row.disabled && row.hasLane);
    },

    /** Open a tab of the side panel, and the panel with it. @param {string} tab */
    openTab(tab) {
      this.tab = tab;
      if (this.isSheet) this.isSheetOpen = true;
      else if (this.isOverlay) this.isOverlayOpen = true;
      else this.folded = false;
    },

    /** Say what happened: to those who listen, and visibly if it matters to all. @param {string} words @param {boolean | "undo"} [isVisible] "undo" offers to undo it beside the words. */
    say(words, isVisible = false) {
      this.said = words;
      this.notice = isVisible ? words : "";
      this.isNoticeUndone = isVisible === "undo";
    },

    /** Take over a scene. */
    take(scene) {
      updateList(this.rows, scene.rows.map(shownRow), takenRows);
      updateList(this.sliders, scene.sliders.map(shownSlider), takenSliders);
      update(this, {
        reading: scene.reading,
        empty: scene.empty,
        unit: scene.unit,
        table: scene.table,
        isReady: true,
        check: scene.check,
        legend: scene.legend,
        titles: scene.axes.title.map((line, id) => ({ ...line, id })),
        axes: scene.axes_spec,
        digits: scene.digits,
        axesNote: scene.axes.note,
        units: scene.units,
        sets: scene.sets,
        whatIf: scene.what_if_spec,
      });
    },
    takeHistory({ undo, redo }) {
      this.undo = undo;
      this.redo = redo;
      this.problem = "";
    },
  };
}

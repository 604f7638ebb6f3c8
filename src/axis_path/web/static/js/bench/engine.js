// @ts-check
/**
 * Holds what the hand is doing and keeps the page and the server together.
 *
 * A state is a version of the study, the drafts on it (what is being dragged), the window and the
 * reading line. `look` asks for the scene of the present state; `commit` keeps commands. An answer
 * for another version than the present one is never painted.
 */
import { Answers } from "../shared/answers.js";
import { ApiError, ask, getOnce, post } from "../shared/api.js";
import { Follower } from "../shared/follower.js";
import { equalised, shiftBetween, showing } from "./affine.model.js";
import { Trail } from "./trail.model.js";

const VIEW_DELAY_MS = 500;
/** A hand that has not moved for so long is at rest. */
const REST_MS = 40;
/** While the old picture follows the hand, exact ones are asked for no faster than this. */
const WINDOW_PACE_MS = 35;

export class Engine {
  /**
   * @param {any} store the reactive store. @param {any} initial
   * @param {(paint: () => void) => void} unobserved runs what replaces many elements of a picture,
   * which nobody else needs to look through.
   */
  constructor(store, initial, unobserved) {
    this.store = store;
    this.unobserved = unobserved;
    this.path = `/studies/${initial.id}`;
    this.version = initial.version;
    this.window = initial.view.window;
    this.reading = initial.view.reading ?? null;
    /** @type {number | null} */
    this.pointerY = null;
    this.isReadingTyped = false;
    this.size = { width: 0, height: 0 };
    /** @type {any[]} */
    this.drafts = [];
    /** @type {any} */
    this.scene = null;
    this.trail = new Trail();
    this.waiting = Promise.resolve();
    this.pending = 0;
    this.viewTimer = 0;
    this.panelTimer = 0;
    /** Called after each paint, and whenever the picture moves. @type {Set<(scene: any, shift: any) => void>} */
    this.painters = new Set();
    /** Tables and findings: told at once that they are behind, and asked for after the picture. @type {Set<{mark: () => void, ask: () => void}>} */
    this.watchers = new Set();
    this.arePanelsDue = false;
    this.isLookNeeded = false;
    this.answers = new Answers(({ part, ...body }) => ask(`${this.path}/${part}`, body));
    /** Commands the hand will probably try next. @type {any[]} */
    this.expected = [];
    /** The line that was written last. @type {any} */
    this.writing = null;
    this.scenes = new Follower(
      (body) => this.answers.get(body),
      (answer) => this.takeAnswer(answer),
      (error) => {
        // What is shown is not of this state.
        this.store.isStale = true;
        this.complain(error);
      },
      () => this.rest(),
    );
  }

  /** The present state as a request. @param {object} [more] */
  body(more = {}) {
    return {
      version: this.version,
      drafts: this.drafts,
      window: { ...this.window, ...this.size },
      reading: this.reading,
      is_reading_typed: this.isReadingTyped,
      ...more,
    };
  }

  /** Ask for the scene of the present state. @param {number} [pace] see `Follower.ask`. */
  look(pace = 0) {
    this.isLookNeeded = true;
    this.ask(pace);
  }

  /** Ask for the scene, or for the reading line alone if nothing else changed since the last one. */
  ask(pace = 0) {
    if (!this.size.width) return;
    this.scenes.ask(() => {
      const part = this.isLookNeeded || !this.scene ? "scene" : "reading";
      this.isLookNeeded = false;
      return this.body(part === "reading" && this.pointerY !== null ? { part, pointer_y: this.pointerY } : { part });
    }, pace);
  }

  takeAnswer(answer) {
    if (answer.version !== this.version) {
      // It was asked before a change was kept: ask again, for where the hand is now.
      this.look();
      return;
    }
    if (answer.scene) this.show(answer.scene);
    else if (!this.isLookNeeded) this.showReading(answer);
  }

  /** Put a new reading line into the last scene. */
  showReading({ reading, values }) {
    const rows = this.scene.rows.map((row) => ({ ...row, reading: values[row.id] ?? null }));
    this.show({ ...this.scene, rows, reading });
  }

  /** Show a scene: numbers and texts first, then the picture, in one turn of the page. */
  show(scene) {
    this.scene = scene;
    this.adopt(scene.window);
    this.store.isStale = false;
    const wasEqual = this.store.axes.equal;
    this.store.take(scene);
    if (this.store.axes.equal && !wasEqual) this.setWindow(this.window);
    this.paint();
    this.panelsSoon();
  }

  /** Paint the last scene where it stands in the present window. */
  paint() {
    if (!this.scene || !this.size.width) return;
    const shift = shiftBetween(this.scene.window, this.window, this.size);
    this.unobserved(() => {
      for (const painter of this.painters) painter(this.scene, shift);
    });
  }

  /** The state changed in more than the reading line. */
  changed() {
    for (const watcher of this.watchers) watcher.mark();
    this.arePanelsDue = true;
    this.panelsSoon();
  }

  /** Ask for what hangs on the picture: at once, or when a hand that drags comes to rest. */
  panelsSoon() {
    clearTimeout(this.panelTimer);
    if (!this.arePanelsDue) return;
    if (!this.drafts.length && !this.scenes.isBehind) this.askPanels();
    else this.panelTimer = setTimeout(() => this.arePanelsDue && !this.scenes.isBehind && this.askPanels(), REST_MS);
  }

  /** The picture comes first: what hangs on it is asked for when it stands. */
  askPanels() {
    this.arePanelsDue = false;
    for (const watcher of this.watchers) watcher.ask();
  }

  /**
   * Move the reading line.
   * @param {number} x in axis units @param {number | null} [pointerY] how high the pointer is.
   * @param {boolean} [isTyped] whether it is taken as it is, not rounded to a pixel.
   */
  read(x, pointerY = null, isTyped = false) {
    this.reading = x;
    this.pointerY = pointerY;
    this.isReadingTyped = isTyped;
    this.ask();
    this.keepViewSoon();
  }

  /** Look through another window; the old picture follows at once. */
  setWindow(window) {
    this.trail.leave(this.window);
    this.window = this.fitted(window);
    this.store.trail = this.trail.state;
    this.paint();
    this.look(WINDOW_PACE_MS);
    this.keepViewSoon();
  }

  /** Move the window if an abscissa is outside of it. @param {number} x in axis units */
  reveal(x) {
    const window = showing(this.window, x);
    if (window !== this.window) this.setWindow(window);
  }

  /** Where an axis has become logarithmic, or plain again, the server says what is seen on it. */
  adopt({ x, y, log_x, log_y }) {
    if (log_x === Boolean(this.window.log_x) && log_y === Boolean(this.window.log_y)) return;
    this.window = { x, y, log_x, log_y };
    // The windows before are of other axes.
    this.trail = new Trail();
    this.store.trail = this.trail.state;
    this.keepViewSoon();
  }

  /** With equal scales a window is as high as its width asks for. */
  fitted(window) {
    return this.store.axes.equal && this.size.width ? equalised(window, this.size) : window;
  }

  /** Go to an earlier window, or forward again. @param {-1 | 1} by */
  stepWindow(by) {
    const window = this.trail.step(by, this.window);
    if (!window) return;
    this.window = window;
    this.store.trail = this.trail.state;
    this.paint();
    this.look();
    this.changed();
    this.keepViewSoon();
  }

  resize(width, height) {
    if (width === this.size.width && height === this.size.height) return;
    this.size = { width, height };
    this.window = this.fitted(this.window);
    this.paint();
    this.look();
  }

  /** The picture stands: time for what hangs on it, and for what may come next. */
  rest() {
    this.panelsSoon();
    this.answers.foresee(this.expected.map((command) => this.body({ part: "scene", drafts: [command] })));
    this.expected = [];
  }

  /**
   * Try a command out while the hand moves.
   * @param {object} command
   * @param {object[]} [expected] commands the hand will probably try next.
   */
  draft(command, expected = []) {
    if (!this.drafts.length) this.answers.begin();
    this.drafts = [command];
    this.expected = expected;
    this.look();
    this.changed();
  }

  /** Forget what was tried out. */
  dropDrafts() {
    if (!this.drafts.length) return;
    this.drafts = [];
    this.look();
    this.changed();
  }

  /**
   * Keep commands; they are carried out one batch after the other.
   * @param {object[]} commands
   * @returns {Promise<ApiError | null>} the refusal, if the commands were refused.
   */
  commit(commands) {
    return this.inTurn(() => this.body({ drafts: [], commands }), "commands");
  }

  /** @param {"undo" | "redo"} what */
  step(what) {
    return this.inTurn(() => this.body({ drafts: [], do: what }), "history");
  }

  inTurn(makeBody, address) {
    this.pending += 1;
    this.store.notice = "";
    this.store.saving = true;
    const turn = this.waiting.then(() => this.send(makeBody, address));
    this.waiting = turn.then(() => undefined);
    return turn.finally(() => {
      this.pending -= 1;
      if (!this.pending) this.store.saving = false;
    });
  }

  async send(makeBody, address) {
    try {
      const answer = await post(`${this.path}/${address}`, makeBody());
      this.version = answer.version;
      this.drafts = [];
      this.store.takeHistory(answer);
      this.show(answer.scene);
      this.changed();
      return null;
    } catch (error) {
      this.drafts = [];
      this.look();
      this.changed();
      if (!(error instanceof ApiError) || error.status === 0 || error.status === 409 || error.status >= 500) this.complain(error);
      return error;
    }
  }

  complain(error) {
    this.store.problem = error.message;
  }

  /** Ask for the Reference, once; completion and its panel show it. */
  async loadReference() {
    if (this.store.reference.length) return;
    try {
      const { groups, entries } = await getOnce("/reference");
      this.store.referenceGroups = groups;
      this.store.reference = entries.map((entry) => ({
        ...entry,
        sought: [entry.name, ...entry.spellings, entry.meaning, entry.group].join(" ").toLowerCase(),
      }));
    } catch (error) {
      this.complain(error);
    }
  }

  keepViewSoon() {
    clearTimeout(this.viewTimer);
    this.viewTimer = setTimeout(() => this.keepView(), VIEW_DELAY_MS);
  }

  /** Keep the window and the open tab, which have no history. */
  async keepView(options = {}) {
    clearTimeout(this.viewTimer);
    this.viewTimer = 0;
    const { tab, folded } = this.store;
    const body = { window: { ...this.window, ...this.size }, reading: this.reading, tab, folded };
    if (!this.size.width) return;
    await post(`${this.path}/view`, body, options).catch((error) => this.complain(error));
  }

  /** Put the reading line to a typed place. @param {string} text */
  async askReading(text) {
    const answer = await post(`${this.path}/window`, this.body({ how: "reading", text }));
    this.reveal(answer.x);
    this.read(answer.x, null, true);
  }

  /** Ask for another window: home, framed, or from typed bounds. */
  async askWindow(request) {
    const answer = await post(`${this.path}/window`, this.body(request));
    this.setWindow(answer.window);
    this.changed();
  }
}

// @ts-check
/**
 * Holds what the hand is doing and keeps the page and the server together.
 *
 * A state is a version of the study, the drafts on it (what is being dragged), the window and the
 * reading line. `look` asks for the scene of the present state; `commit` keeps commands. An answer
 * for another version than the present one is never painted.
 */
import { ApiError, post } from "../../shared/api.js";
import { Backoff } from "../../shared/backoff.js";
import { LatestAnswer } from "../../shared/latest_answer.js";
import { Hearing } from "../description/hearing.js";
import { SceneClient } from "../transport/client.js";
import { shiftBetween } from "../viewport/affine.model.js";
import { Viewport } from "../viewport/viewport.js";
import { Found } from "./found.model.js";
import { Motion } from "./motion.js";
import { MotionSamples } from "./motion_samples.js";
import { Reports } from "./reports.js";
import { Subscriptions } from "./subscriptions.js";
import { Trails } from "./trails.model.js";

/** @typedef {import("#types/commands").AnyCommand} Command */
/** @typedef {import("#types/answers").BenchScene} Scene */

const VIEW_DELAY_MS = 500;
/** Without an answer it is tried again after so long, and each time after twice as long. */
const BACK_MS = 700;
const LONGEST_BACK_MS = 15_000;
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
    this.client = new SceneClient(this, initial);
    this.version = initial.version;
    this.viewport = new Viewport(this, initial.view);
    /** What a hand passes through. */
    this.samples = new MotionSamples(this);
    this.reading = initial.view.reading ?? null;
    /** @type {number | null} */
    this.pointerY = null;
    this.isReadingTyped = false;
    /** What the hand tries out. @type {any[]} */
    this.hand = [];
    /** How long it took lately until a new picture stood on the screen, in ms: since it was there, */
    this.showing = 0;
    /** and since it was asked for. */
    this.coming = 0;
    /** Counts what is shown, */
    this.turn = 0;
    /** and how often it is painted. */
    this.paints = 0;
    /** What plays by itself. */
    this.motion = new Motion(this);
    this.trails = new Trails(initial.trails);
    /** What is told to those who listen. */
    this.reports = new Reports(store);
    this.hearing = new Hearing(this);
    this.found = new Found();
    /** What waits for the connection to come back. @type {(() => void)[]} */
    this.whenBack = [];
    /** How many new places of trails are being kept. @type {Record<string, number>} */
    this.sentPlaces = {};
    /** @type {Scene | null} */
    this.scene = null;
    this.waiting = Promise.resolve();
    this.pending = 0;
    /** What is to be kept when the hand has rested. @type {any} */
    this.soon = null;
    this.viewTimer = 0;
    /** Paints what it can of a scene before it is shown. @type {((scene: any) => Promise<void>) | null} */
    this.prepare = null;
    this.backTimer = 0;
    this.backoff = new Backoff(BACK_MS, LONGEST_BACK_MS);
    // Nobody waits for a pause to end when the network is there again, or the page is looked at.
    for (const [target, name] of [
      [window, "online"],
      [document, "visibilitychange"],
    ]) {
      /** @type {EventTarget} */ (target).addEventListener(String(name), () => this.tryAgainNow());
    }
    /** Called for each paint, and whenever the picture moves; they paint canvases, and give what changes elements. @type {Set<(scene: any, shift: any) => (() => void) | void>} */
    this.painters = new Set();
    /** The scales of paths' lanes that a hand is on, by the ids of their rows. @type {Map<number, {low: number, high: number}>} */
    this.frozen = new Map();
    /** Which findings a hand that moves takes along: none, those on the plane, or the ledger too. @type {"" | "marks" | "ledger"} */
    this.foundWanted = "";
    /** The drafts of the picture that stands: findings of another state are not painted on it. @type {any[] | null} */
    this.shownDrafts = [];
    /** Tables, findings, and all else that hangs on the picture. */
    this.subscriptions = new Subscriptions(this);
    this.isLookNeeded = false;
    /** The line that was written last. @type {any} */
    this.writing = null;
    this.scenes = new LatestAnswer(
      (body) => this.client.get(body),
      (answer, body, sentAt) => this.takeAnswer(answer, body, sentAt),
      (error) => this.fail(error),
      () => this.rest(),
      (answer, body) => this.noteAnswer(answer, body),
    );
  }

  /** The window one looks through, in units or decades. */
  get window() {
    return this.viewport.window;
  }

  /** The size of the plane, in px. */
  get size() {
    return this.viewport.size;
  }

  /** All that differs from what is kept. @returns {any[]} */
  get drafts() {
    return [...this.hand, ...this.motion.commands()];
  }

  /** The present state as a request. @param {object} [more] */
  body(more = {}) {
    return {
      version: this.version,
      drafts: this.drafts,
      window: this.viewport.asked(this.window),
      reading: this.reading,
      is_reading_typed: this.isReadingTyped,
      ...(this.pointerY === null ? {} : { pointer_y: this.pointerY }),
      ...(this.store.dataBox ? { box: this.store.dataBox } : {}),
      ...more,
    };
  }

  /** The present state as a request for its scene. @param {object} [more] */
  sceneBody(more = {}) {
    const body = this.body({ part: "scene", ...this.viewport.soon, ...more });
    return body.drafts.length && this.foundWanted ? { ...body, found: this.foundWanted } : body;
  }

  /** Ask for the scene of the present state. @param {number} [pace] see `LatestAnswer.ask`. */
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
      if (part === "scene") return this.sceneAsked();
      return this.body({ part });
    }, pace);
  }

  /** The question for the present scene: what was passed is of no use where the scene is at hand. */
  sceneAsked() {
    const body = this.sceneBody(this.samples.visits());
    const passed = this.samples.states();
    return this.client.has(body) ? body : { ...body, ...passed };
  }

  /** What is shown is not of this state; without a connection the same is asked again by itself. */
  fail(error) {
    this.store.isStale = true;
    if (!error.isTemporary) {
      this.motion.drop();
      this.complain(error, "picture");
      return;
    }
    this.wait(error);
  }

  /** A part beside the picture has no answer: it is asked for again with the picture. @param {any} error */
  failPart(error) {
    if (!error.isTemporary) {
      // What the student has stopped stays said, whatever picture comes.
      this.complain(error, error.code === "stopped" ? "change" : "picture");
      return;
    }
    if (!this.store.isWaiting) this.whenBack.push(() => this.changed());
    this.wait(error);
  }

  /** The server cannot answer just now: say so, and ask again after a pause that grows. @param {any} error */
  wait(error) {
    this.store.waitingText =
      error.code === "network"
        ? "There is no connection to the server. Your work is kept, and this goes on by itself."
        : error.message;
    this.store.isWaiting = true;
    clearTimeout(this.backTimer);
    this.backTimer = setTimeout(() => this.look(), this.backoff.pause(error.retryAfterMs));
  }

  /** The server may answer again: do not wait for the pause to end. */
  tryAgainNow() {
    if (!this.store.isWaiting || document.visibilityState === "hidden") return;
    clearTimeout(this.backTimer);
    this.look();
  }

  /** What the next question must know of this answer: where trails have come to. */
  noteAnswer(answer, body) {
    if (answer.version !== this.version) return;
    if (answer.visited) this.goOn(answer.visited, Boolean(body.joined));
    this.samples.reach(body.visits);
  }

  takeAnswer(answer, body, sentAt) {
    this.backoff.reset();
    // What was said of an earlier question is not true any more.
    if (this.store.problemOf === "picture") this.store.problem = "";
    if (this.store.isWaiting) {
      this.store.isWaiting = false;
      for (const each of this.whenBack.splice(0)) each();
    }
    if (answer.version !== this.version) {
      // It was asked before a change was kept: ask again, for where the hand is now.
      this.look();
      return;
    }
    if (answer.scene)
      return this.showAll(
        [
          ...(answer.before ?? []).map((scene) => ({ scene, drafts: null })),
          { scene: answer.scene, drafts: body.drafts, found: answer.found },
        ],
        sentAt,
      );
    else if (!this.isLookNeeded) this.showReading(answer);
  }

  /** Show states one after the other, one in each frame; what comes later takes their place. @param {any[]} states @param {number} sentAt when they were asked for. */
  showAll(states, sentAt) {
    this.turn += 1;
    this.noteShowing(sentAt);
    const { turn, version } = this;
    const next = () => {
      if (turn !== this.turn || version !== this.version) return;
      const { scene, drafts, found } = states.shift();
      this.shownDrafts = drafts;
      // Bounds may follow sliders: the marks are of the window that the scene is of.
      if (found) this.found.take({ ...found, window: scene.window, drafts }, this.version);
      this.show(scene);
      this.subscriptions.follow(found);
      if (states.length) requestAnimationFrame(next);
    };
    // A hand that goes on goes on seeing frames meanwhile; one that pauses sees the picture sooner without.
    if (!this.viewport.goesOn || !this.prepare) return next();
    return this.prepare(states[0].scene).then(next, next);
  }

  /** Note how long it takes until the frame that is begun has been handed over. @param {number} sentAt */
  noteShowing(sentAt) {
    const began = performance.now();
    requestAnimationFrame(() =>
      setTimeout(() => {
        const now = performance.now();
        this.showing = (this.showing + now - began) / 2;
        this.coming = (this.coming + now - sentAt) / 2;
      }),
    );
  }

  /** Trails go on. @param {Record<string, import("./trails.model.js").Place[]>} visited @param {boolean} isJoined */
  goOn(visited, isJoined) {
    if (!Object.keys(visited).length) return;
    this.trails.visit(visited, isJoined);
    this.store.trailTick += 1;
  }

  /** Put a new reading line into the last scene. */
  showReading({ reading, values }) {
    const rows = (this.scene?.rows ?? []).map((row) => ({
      ...row,
      reading: values[row.id] ?? null,
    }));
    this.show({ ...this.scene, rows, reading });
  }

  /** Show a scene: numbers and texts first, then the picture, in one turn of the page. */
  show(scene) {
    this.scene = scene;
    this.viewport.adopt(scene.window);
    this.store.isStale = false;
    const wasEqual = this.store.axes.equal;
    this.store.take(scene);
    this.reports.take(scene);
    if (this.store.axes.equal && !wasEqual) this.viewport.set(this.window);
    if (this.viewport.goesOn && this.viewport.isStretched) this.paintNext();
    else this.paint();
    this.subscriptions.soon();
  }

  /** Paint the last scene where it stands in the present window. */
  paint() {
    if (!this.scene || !this.size.width) return;
    this.paints += 1;
    const shift = shiftBetween(this.scene.window, this.window, this.size);
    this.unobserved(() => {
      // Canvases before elements: a text on a canvas makes the browser bring the page's style up to
      // date, and that costs little while no element has changed.
      const rest = [...this.painters].map((painter) => painter(this.scene, shift));
      for (const change of rest) change?.();
    });
  }

  /** Paint in the next frame, if the hand does not before. */
  paintNext() {
    const { paints } = this;
    requestAnimationFrame(() => paints === this.paints && this.paint());
  }

  /** Paint one part of the picture that was left out. @param {(scene: any, shift: any) => (() => void) | void} painter */
  paintWith(painter) {
    const { scene } = this;
    if (!scene || !this.size.width) return;
    this.unobserved(() => painter(scene, shiftBetween(scene.window, this.window, this.size))?.());
  }

  /** Show what was located on the plane and the lanes. @param {any} found */
  showFound(found) {
    this.found.take(found, this.version);
    this.paint();
  }

  /** What was located, if it is of the present state. */
  foundNow() {
    return (
      this.shownDrafts && this.found.at(this.version, this.shownDrafts, this.window, this.size)
    );
  }

  /** Whether drafts are those of the picture that stands. @param {any[]} drafts */
  isShown(drafts) {
    return this.shownDrafts !== null && JSON.stringify(drafts) === JSON.stringify(this.shownDrafts);
  }

  /** The state changed in more than the reading line. @param {"state" | "window"} [what] whether in the window alone. */
  changed(what = "state") {
    this.subscriptions.mark(what);
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

  /** The picture stands: time for what hangs on it, and for what may come next. */
  rest() {
    this.subscriptions.soon();
    this.client.rest();
  }

  /** Try a command out while the hand moves. @param {Command} command */
  draft(command) {
    if (!this.hand.length) this.client.begin();
    this.hand = [command];
    this.samples.note(command);
    this.look();
    this.changed();
  }

  /** Forget what was tried out. */
  dropDrafts() {
    if (!this.hand.length) return;
    this.hand = [];
    if (!this.motion.isMoving) this.trails.drop();
    this.samples.forget();
    this.look();
    this.changed();
  }

  /**
   * Keep commands; they are carried out one batch after the other.
   * @param {Command[]} commands
   * @returns {Promise<ApiError | null>} the refusal, if the commands were refused.
   */
  commit(commands) {
    // What plays is kept where it is, so that nothing jumps back for a moment.
    return this.commitAll(commands, () => this.motion.commands());
  }

  /** Keep commands of which nobody shows a refusal in a place of its own. @param {Command[]} commands @returns {Promise<ApiError | null>} */
  async carryOut(commands) {
    const error = await this.commit(commands);
    if (error) this.complain(error);
    return error;
  }

  /** @param {Command[]} commands @param {() => Command[]} [more] asked for when they are sent; what plays is put where it is first, for it may be what is deleted. @param {any[] | null} [visits] the state they lead to. */
  commitAll(commands, more = () => [], visits = null) {
    return this.inTurn(() => {
      const { commands: places, sent } = this.trails.commands();
      this.sentPlaces = sent;
      const through = this.samples.hasTrails
        ? visits
          ? { visits, joined: false }
          : this.samples.wayTo(commands)
        : {};
      const before = more();
      return this.body({
        drafts: [],
        commands: [...before, ...commands, ...places],
        named: before.length,
        ...through,
        ...this.marksToo(),
      });
    }, "commands");
  }

  /** Marks come with a kept change, so that they do not vanish until the ledger is answered anew. */
  marksToo() {
    return this.foundWanted ? { found: "marks" } : {};
  }

  /** @param {"undo" | "redo"} what */
  step(what) {
    if (this.motion.isMoving && what === "undo") {
      // What is undone is the motion, which is not kept yet.
      this.motion.drop();
      this.trails.drop();
      this.look();
      this.changed();
      return Promise.resolve(null);
    }
    return this.inTurn(() => this.body({ drafts: [], do: what, ...this.marksToo() }), "history");
  }

  /**
   * Keep something when the hand has rested; whatever else is kept before, keeps it first.
   * @param {string} owner whose it is: the same owner only puts it off. @param {() => any} keep @param {number} restMs
   */
  keepSoon(owner, keep, restMs) {
    if (this.soon && this.soon.owner !== owner) this.keepNow();
    if (this.soon) clearTimeout(this.soon.timer);
    else this.pending += 1;
    this.store.saving = true;
    this.soon = { owner, keep, timer: setTimeout(() => this.keepNow(), restMs) };
  }

  /** Keep at once what was to be kept soon. */
  keepNow() {
    if (!this.soon) return;
    const { keep, timer } = this.soon;
    this.soon = null;
    clearTimeout(timer);
    keep();
    this.pending -= 1;
    if (!this.pending) this.store.saving = false;
  }

  inTurn(makeBody, address) {
    this.keepNow();
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
      const body = makeBody();
      // A page that is left at once keeps its last change too.
      const answer = await post(`${this.path}/${address}`, body, { keepalive: true });
      this.samples.reach(body.visits);
      if (address === "history") this.samples.forget();
      this.version = answer.version;
      this.client.goOn(answer.version, body.commands ?? []);
      this.hand = [];
      this.trails.keep(answer.trails, address === "commands" ? this.sentPlaces : {});
      this.store.trailTick += 1;
      this.store.takeHistory(answer);
      this.viewport.settle();
      this.reports.expect();
      this.shownDrafts = [];
      if (answer.found && answer.scene)
        this.found.take({ ...answer.found, window: answer.scene.window, drafts: [] }, this.version);
      // A picture that takes long is asked for apart: what is kept is kept, and it can be given up.
      if (answer.scene) this.show(answer.scene);
      else this.look();
      this.changed();
      return null;
    } catch (error) {
      this.hand = [];
      this.look();
      this.changed();
      if (
        !(error instanceof ApiError) ||
        error.status === 0 ||
        error.status === 409 ||
        error.status >= 500
      )
        this.complain(error);
      return error;
    }
  }

  /** Say above everything what went wrong. @param {any} error @param {"change" | "picture"} [of] a good picture ends what was said of an earlier one. */
  complain(error, of = "change") {
    this.store.problemOf = of;
    // A line of the study was turned off: the page that shows it is not the present one.
    if (error.code === "study.halted") location.reload();
    this.store.problem = error.message;
    this.store.remedy = error.status === 409 || error.code === "web.token" ? "reload" : "retry";
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
    const body = { window: this.viewport.asked(this.window), reading: this.reading, tab, folded };
    if (!this.size.width) return;
    // What is lost without a connection is where one looked, and no work.
    await post(`${this.path}/view`, body, options).catch(
      (error) => error.isTemporary || this.complain(error),
    );
  }

  /** Put the reading line to a typed place. @param {string} text */
  async askReading(text) {
    const answer = await post(`${this.path}/window`, this.body({ how: "reading", text }));
    this.viewport.reveal(answer.x);
    this.read(answer.x, null, true);
  }

  /** Ask for another window: home, framed, or from typed bounds. */
  async askWindow(request, /** @type {"x" | "y"} */ by = "x") {
    this.viewport.take(await post(`${this.path}/window`, this.body(request)), by);
  }
}

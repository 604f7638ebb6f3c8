// @ts-check
/**
 * Keeps the page and the server together.
 *
 * A state is a version of the study, the drafts on it (what is being dragged), the window and the
 * reading line. `look` asks for the scene of the present state; `commit` stores commands. An answer
 * for another version than the present one is never painted. The engine puts the parts together and
 * owns what a request is made of; none of the parts knows it.
 */
import { ApiError, post } from "../../shared/api.js";
import { LatestAnswer } from "../../shared/latest_answer.js";
import { Hearing } from "../description/hearing.js";
import { SceneClient } from "../transport/client.js";
import { Connection } from "../transport/connection.js";
import { PictureTimes } from "../viewport/picture_times.js";
import { StoredView } from "../viewport/stored_view.js";
import { Viewport } from "../viewport/viewport.js";
import { CommitQueue } from "./commit_queue.js";
import { Motion } from "./motion.js";
import { MotionSamples } from "./motion_samples.js";
import { Picture } from "./picture.js";
import { Reports } from "./reports.js";
import { Subscriptions } from "./subscriptions.js";
import { Trails } from "./trails.model.js";

/** @typedef {import("#types/commands").AnyCommand} Command */

export class Engine {
  /**
   * @param {any} store the reactive store. @param {any} initial
   * @param {(paint: () => void) => void} unobserved see `Picture`.
   */
  constructor(store, initial, unobserved) {
    this.store = store;
    this.path = `/studies/${initial.id}`;
    this.version = initial.version;
    /** What is tried out: the drafts of a drag. @type {any[]} */
    this.dragDrafts = [];
    this.reading = initial.view.reading ?? null;
    /** @type {number | null} */
    this.pointerY = null;
    this.isReadingTyped = false;
    /** Which findings a drag updates: none, those on the plane, or the ledger too. @type {"" | "marks" | "ledger"} */
    this.findingsWanted = "";
    /** Whether more than the reading line is to be asked for. */
    this.isLookNeeded = false;
    /** How many new points of trails are being stored. @type {Record<string, number>} */
    this.sentPoints = {};

    const times = new PictureTimes();
    this.connection = new Connection(store, () => this.look());
    this.queue = new CommitQueue(store);
    this.view = new StoredView(
      `${this.path}/view`,
      () => this.viewBody(),
      (error) => this.complain(error),
    );
    this.viewport = new Viewport(initial.view, {
      store,
      times,
      paint: () => this.picture.paint(),
      look: (pace) => this.look(pace),
      changed: () => this.changed("window"),
      save: () => this.view.saveSoon(),
    });
    this.motion = new Motion(
      store,
      (commands, visits) => this.commitAll(commands, () => [], visits),
      (pace) => {
        this.look(pace);
        this.changed();
      },
    );
    this.samples = new MotionSamples(store, this.motion);
    this.trails = new Trails(initial.trails);
    this.client = new SceneClient(this.path, initial, {
      bodyOf: (command) => this.sceneBody({ drafts: [command] }),
      // Where trails go through, and where what plays is, is a part of the request, and unknown before.
      canExpect: () => !this.motion.isMoving && !this.samples.hasTrails,
      isBehind: () => this.scenes.isBehind,
      noteWay: (ms) => this.samples.noteWay(ms),
    });
    this.scenes = new LatestAnswer(
      (body) => {
        times.send();
        return this.client.get(body);
      },
      (answer, body, sentAt) => this.takeAnswer(answer, body, sentAt),
      (error) => this.fail(error),
      () => this.rest(),
      (answer, body) => this.noteAnswer(answer, body),
    );
    /** Tables, findings, and all else that hangs on the picture. */
    this.subscriptions = new Subscriptions({
      isPlaying: () => this.motion.isMoving,
      isDragged: () => this.dragDrafts.length > 0 || this.viewport.goesOn,
      isBehind: () => this.scenes.isBehind,
    });
    this.reports = new Reports(store);
    this.picture = new Picture({
      store,
      viewport: this.viewport,
      times,
      reports: this.reports,
      unobserved,
      follow: (findings) => this.subscriptions.follow(findings),
      stands: () => this.subscriptions.soon(),
    });
    this.hearing = new Hearing(store, this.picture, (x) => this.read(x));
  }

  /** The window one looks through, in units or decades. */
  get window() {
    return this.viewport.window;
  }

  /** The size of the plane, in px. */
  get size() {
    return this.viewport.size;
  }

  /** Everything that differs from the stored study. @returns {any[]} */
  get drafts() {
    return [...this.dragDrafts, ...this.motion.commands()];
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
    return body.drafts.length && this.findingsWanted
      ? { ...body, findings: this.findingsWanted }
      : body;
  }

  /** Where one looks, as it is stored; null before the plane has a size. */
  viewBody() {
    const { tab, folded } = this.store;
    return this.size.width
      ? { window: this.viewport.asked(this.window), reading: this.reading, tab, folded }
      : null;
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
      const part = this.isLookNeeded || !this.picture.scene ? "scene" : "reading";
      this.isLookNeeded = false;
      if (part === "scene") return this.sceneAsked();
      return this.body({ part });
    }, pace);
  }

  /** The question for the present scene: what was passed is of no use where the scene is at hand. */
  sceneAsked() {
    const body = this.sceneBody(this.samples.visits(this.dragDrafts));
    const passed = this.samples.states();
    return this.client.has(body) ? body : { ...body, ...passed };
  }

  /** Whether the picture of a command is at hand. @param {Command} command */
  isKnown(command) {
    return !this.connection.isLost && this.client.isKnown(command);
  }

  /** What is shown is not of this state; without a connection the same is asked again by itself. @param {any} error */
  fail(error) {
    this.store.isStale = true;
    if (error.isTemporary) {
      this.connection.lose(error);
      return;
    }
    this.motion.drop();
    this.complain(error, "picture");
  }

  /** What hangs on the picture has no answer: it is asked for again with the picture. @param {any} error */
  failPart(error) {
    if (!error.isTemporary) {
      // What the student has stopped stays said, whatever picture comes.
      this.complain(error, error.code === "stopped" ? "change" : "picture");
      return;
    }
    if (!this.connection.isLost) this.connection.whenBack(() => this.changed());
    this.connection.lose(error);
  }

  /** What the next question must know of this answer: where trails have come to. */
  noteAnswer(answer, body) {
    if (answer.version !== this.version) return;
    if (answer.visited) this.extendTrails(answer.visited, Boolean(body.joined));
    this.samples.reach(body.visits);
  }

  takeAnswer(answer, body, sentAt) {
    // What was said of an earlier question is not true any more.
    if (this.store.problemOf === "picture") this.store.problem = "";
    this.connection.succeed();
    const { version } = this;
    if (answer.version !== version) {
      // It was asked before a change was stored: ask again, for where the drag is now.
      this.look();
      return;
    }
    if (answer.scene)
      return this.picture.showAll(
        [
          ...(answer.before ?? []).map((scene) => ({ scene, drafts: null })),
          { scene: answer.scene, drafts: body.drafts, findings: answer.findings },
        ],
        sentAt,
        version,
        () => version === this.version,
      );
    if (!this.isLookNeeded) this.picture.showReading(answer);
  }

  /** @param {Record<string, import("./trails.model.js").Position[]>} visited @param {boolean} isJoined */
  extendTrails(visited, isJoined) {
    if (!Object.keys(visited).length) return;
    this.trails.visit(visited, isJoined);
    this.store.trailTick += 1;
  }

  /** Show what was located on the plane and the lanes. @param {any} findings */
  showFindings(findings) {
    this.picture.findings.take(findings, this.version);
    this.picture.paint();
  }

  /** Show the solved curves of the what-if table on the plane. @param {any} curves */
  showWhatIf(curves) {
    this.picture.whatIf.take(curves, this.version);
    this.picture.paint();
  }

  /** What was located, if it is of the present state. */
  findingsNow() {
    return this.picture.findingsAt(this.version);
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
    this.view.saveSoon();
  }

  /** Update what depends on the picture, and prefetch. */
  rest() {
    this.subscriptions.soon();
    this.client.rest();
  }

  /** Try a command out during a drag. @param {Command} command */
  draft(command) {
    if (!this.dragDrafts.length) this.client.begin();
    this.dragDrafts = [command];
    this.samples.note(command);
    this.look();
    this.changed();
  }

  /** Forget what was tried out. */
  dropDrafts() {
    if (!this.dragDrafts.length) return;
    this.dragDrafts = [];
    if (!this.motion.isMoving) this.trails.drop();
    this.samples.forget();
    this.look();
    this.changed();
  }

  /**
   * Store commands; they are carried out one batch after the other.
   * @param {Command[]} commands
   * @returns {Promise<ApiError | null>} the refusal, if the commands were refused.
   */
  commit(commands) {
    // Store where playing sliders are now, so that they do not jump back.
    return this.commitAll(commands, () => this.motion.commands());
  }

  /** Store commands, and show a refusal above the Bench. @param {Command[]} commands @returns {Promise<ApiError | null>} */
  async carryOut(commands) {
    const error = await this.commit(commands);
    if (error) this.complain(error);
    return error;
  }

  /**
   * @param {Command[]} commands
   * @param {() => Command[]} [more] asked for when they are sent; what plays is put where it is
   *   first, for it may be what is deleted.
   * @param {any[] | null} [visits] the state they lead to.
   */
  commitAll(commands, more = () => [], visits = null) {
    return this.queue.add(() =>
      this.send("commands", () => {
        const { commands: trailCommands, sent } = this.trails.commands();
        this.sentPoints = sent;
        const before = more();
        return this.body({
          drafts: [],
          commands: [...before, ...commands, ...trailCommands],
          named: before.length,
          ...this.wayTo(commands, visits),
          ...this.marksToo(),
        });
      }),
    );
  }

  /** What trails pass through on the way to a commit. @param {Command[]} commands @param {any[] | null} visits */
  wayTo(commands, visits) {
    if (!this.samples.hasTrails) return {};
    return visits ? { visits, joined: false } : this.samples.wayTo(commands, this.dragDrafts);
  }

  /** Ask for the marks with a change, so that they do not vanish until the ledger is answered. */
  marksToo() {
    return this.findingsWanted ? { findings: "marks" } : {};
  }

  /** @param {"undo" | "redo"} what */
  step(what) {
    if (this.motion.isMoving && what === "undo") {
      // What is undone is the motion, which is not stored yet.
      this.motion.drop();
      this.trails.drop();
      this.look();
      this.changed();
      return Promise.resolve(null);
    }
    return this.queue.add(() =>
      this.send("history", () => this.body({ drafts: [], do: what, ...this.marksToo() })),
    );
  }

  /** @param {"commands" | "history"} address @param {() => any} makeBody called when it is really sent. */
  async send(address, makeBody) {
    try {
      const body = makeBody();
      // A page that is left at once stores its last change too.
      const answer = await post(`${this.path}/${address}`, body, { keepalive: true });
      this.takeCommit(answer, body, address);
      return null;
    } catch (error) {
      this.dragDrafts = [];
      this.look();
      this.changed();
      const isAnswer = error instanceof ApiError && error.status > 0 && error.status < 500;
      if (!isAnswer || error.status === 409) this.complain(error);
      return error;
    }
  }

  /** Take over the version of a stored change. @param {any} answer @param {any} body @param {string} address */
  takeCommit(answer, body, address) {
    this.samples.reach(body.visits);
    if (address === "history") this.samples.forget();
    this.version = answer.version;
    this.client.goOn(answer.version, body.commands ?? []);
    this.dragDrafts = [];
    this.trails.keep(answer.trails, address === "commands" ? this.sentPoints : {});
    this.store.trailTick += 1;
    this.store.takeHistory(answer);
    this.viewport.settle();
    this.reports.expect();
    this.picture.drafts = [];
    const { scene, findings } = answer;
    if (findings && scene)
      this.picture.findings.take({ ...findings, window: scene.window, drafts: [] }, this.version);
    // A slow picture is requested separately: the change is stored already, and the request can be stopped.
    if (scene) this.picture.show(scene);
    else this.look();
    this.changed();
  }

  /** Show an error above the Bench. @param {any} error @param {"change" | "picture"} [of] a good picture ends what was said of an earlier one. */
  complain(error, of = "change") {
    this.store.problemOf = of;
    // A line of the study was turned off: the page that shows it is not the present one.
    if (error.code === "study.halted") location.reload();
    this.store.problem = error.message;
    this.store.remedy = error.status === 409 || error.code === "web.token" ? "reload" : "retry";
  }

  /** Put the reading line to a typed value. @param {string} text */
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

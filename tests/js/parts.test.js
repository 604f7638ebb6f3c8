// The parts of the engine, each alone: what they are given stands in for the page and the server.
import assert from "node:assert/strict";
import { afterEach, beforeEach, mock, test } from "node:test";
import { CommitQueue } from "../../src/axis_path/web/static/js/bench/session/commit_queue.js";
import { Motion } from "../../src/axis_path/web/static/js/bench/session/motion.js";
import { MotionSamples } from "../../src/axis_path/web/static/js/bench/session/motion_samples.js";
import { Picture } from "../../src/axis_path/web/static/js/bench/session/picture.js";
import { Subscriptions } from "../../src/axis_path/web/static/js/bench/session/subscriptions.js";
import { Connection } from "../../src/axis_path/web/static/js/bench/transport/connection.js";
import { liveQuery } from "../../src/axis_path/web/static/js/bench/transport/live_query.js";
import { PictureTimes } from "../../src/axis_path/web/static/js/bench/viewport/picture_times.js";
import { Viewport } from "../../src/axis_path/web/static/js/bench/viewport/viewport.js";
import { near } from "./near.js";

const SIZE = { width: 400, height: 200 };
/** The time of the page, in ms. */
let now = 0;
/** What waits for the next frame. @type {(() => void)[]} */
let frames = [];
let isReduced = false;

beforeEach(() => {
  now = 1_000;
  frames = [];
  isReduced = false;
  mock.timers.enable({ apis: ["setTimeout"] });
  mock.method(performance, "now", () => now);
  Object.assign(globalThis, {
    requestAnimationFrame: (paint) => frames.push(paint),
    matchMedia: () => ({
      get matches() {
        return isReduced;
      },
    }),
    addEventListener: () => {},
    document: {
      visibilityState: "visible",
      addEventListener: () => {},
      querySelector: () => null,
    },
  });
});
afterEach(() => {
  mock.timers.reset();
  mock.restoreAll();
});

/** Let time pass. @param {number} ms */
function wait(ms) {
  now += ms;
  mock.timers.tick(ms);
}
/** Show the next frame. */
function frame() {
  for (const paint of frames.splice(0)) paint();
}
/** Let what is promised be done. */
const settled = () => new Promise((done) => setImmediate(done));

test("changes are sent one after the other, and what rests is sent before them", async () => {
  const store = { saving: false, notice: "Undo" };
  const queue = new CommitQueue(store);
  const sent = [];
  const later = Promise.withResolvers();
  queue.addSoon("slider-1", () => sent.push("rested"), 300);
  queue.addSoon("slider-1", () => sent.push("rested again"), 300);
  const first = queue.add(async () => {
    sent.push("first");
    return later.promise;
  });
  const second = queue.add(async () => sent.push("second"));
  await settled();
  assert.deepEqual(sent, ["rested again", "first"]);
  assert.deepEqual(store, { saving: true, notice: "" });
  later.resolve("answer");
  assert.equal(await first, "answer");
  await second;
  assert.deepEqual(sent, ["rested again", "first", "second"]);
  assert.equal(store.saving, false);
  queue.addSoon("slider-1", () => sent.push("one"), 300);
  queue.addSoon("slider-2", () => sent.push("another"), 300);
  assert.equal(sent.at(-1), "one");
  wait(300);
  assert.equal(sent.at(-1), "another");
  assert.equal(store.saving, false);
});

test("without a connection it asks again after pauses that grow", () => {
  const store = { isWaiting: false, waitingText: "" };
  let asked = 0;
  const back = [];
  const connection = new Connection(store, () => {
    asked += 1;
  });
  connection.lose({ code: "network" });
  assert.match(store.waitingText, /no connection/);
  wait(699);
  assert.equal(asked, 0);
  wait(1);
  assert.equal(asked, 1);
  connection.lose({ code: "compute.busy", message: "Many are computing.", retryAfterMs: 5_000 });
  assert.equal(store.waitingText, "Many are computing.");
  wait(4_999);
  assert.equal(asked, 1);
  document.visibilityState = "hidden";
  connection.tryNow();
  assert.equal(asked, 1);
  document.visibilityState = "visible";
  connection.tryNow();
  assert.equal(asked, 2);
  connection.whenBack(() => back.push("asked for again"));
  connection.succeed();
  connection.succeed();
  assert.deepEqual(back, ["asked for again"]);
  assert.equal(store.isWaiting, false);
  connection.tryNow();
  assert.equal(asked, 2);
});

/** A viewport, and what it did. @param {object} [more] */
function viewportOf(more = {}) {
  const log = [];
  const store = { axes: { equal: false }, trail: {}, ...more };
  const times = new PictureTimes();
  const viewport = new Viewport(
    { window: { x: [-10, 10], y: [-5, 5] }, follows: { x_low: "-a", y_high: "5" } },
    {
      store,
      times,
      paint: () => log.push("paint"),
      look: (pace) => log.push(pace === undefined ? "look" : "look ahead"),
      changed: () => log.push("changed"),
      save: () => log.push("save"),
    },
  );
  viewport.size = SIZE;
  const did = () => log.splice(0).join(" ");
  return { viewport, store, times, did };
}

test("a window that slides is painted at once, and asked for while nothing is drawn beyond it", () => {
  const { viewport, did } = viewportOf();
  viewport.set({ x: [-9, 11], y: [-5, 5] });
  assert.equal(did(), "paint look ahead save");
  assert.deepEqual(viewport.follows, { y_high: "5" });
  assert.deepEqual(viewport.soon, { beyond: 160 });
  viewport.adopt({ x: [-9, 11], y: [-5, 5], log_x: false, log_y: false, ...SIZE, beyond: 160 });
  viewport.set({ x: [-8, 12], y: [-5, 5] });
  assert.equal(did(), "paint save");
  viewport.set({ x: [-3, 17], y: [-5, 5] });
  assert.equal(did(), "paint look ahead save");
  assert.equal(viewport.goesOn, true);
  wait(40);
  wait(40);
  assert.equal(did(), "look");
  assert.deepEqual([viewport.goesOn, viewport.soon], [false, {}]);
});

test("a single step of zooming waits for its picture a moment before the old one is stretched", () => {
  const { viewport, did } = viewportOf();
  viewport.set({ x: [-5, 5], y: [-2.5, 2.5] });
  assert.equal(did(), "look ahead save");
  wait(40);
  assert.equal(did(), "paint");
  wait(200);
  did();
  viewport.set({ x: [-4, 4], y: [-2, 2] });
  viewport.adopt({ x: [-4, 4], y: [-2, 2], log_x: false, log_y: false, ...SIZE });
  did();
  wait(40);
  assert.equal(did(), "");
});

test("zooming that goes on is drawn ahead, in lines that are true as large as they are shown", () => {
  const { viewport, times, did } = viewportOf();
  times.coming = 50;
  viewport.set({ x: [-8, 8], y: [-4, 4] });
  wait(16);
  viewport.set({ x: [-6.4, 6.4], y: [-3.2, 3.2] });
  assert.match(did(), /paint look ahead save$/);
  const { stretch, beyond, window } = viewport.soon;
  assert.ok(stretch > 1 && stretch <= 2, String(stretch));
  assert.equal(beyond, 96);
  assert.ok(window.x[0] <= -6.4 && window.width === 400);
  times.send();
  viewport.adopt({ ...window, log_x: false, log_y: false, beyond, stretch });
  wait(16);
  viewport.set({ x: [-6.2, 6.2], y: [-3.1, 3.1] });
  assert.equal(did(), "paint save");
  wait(40);
  assert.equal(did(), "look");
  wait(40);
  assert.equal(did(), "look");
});

test("windows are stepped through, kept equal, and start anew on other axes", () => {
  const { viewport, store, did } = viewportOf();
  viewport.set({ x: [0, 20], y: [-5, 5] });
  did();
  viewport.step(-1);
  assert.deepEqual(viewport.window, { x: [-10, 10], y: [-5, 5] });
  assert.equal(did(), "paint look changed save");
  viewport.step(-1);
  assert.equal(did(), "");
  viewport.step(1);
  assert.deepEqual(viewport.window.x, [0, 20]);
  store.axes.equal = true;
  viewport.take({ window: { x: [0, 8], y: [0, 100] }, follows: { x_low: "0", y_low: "b" } });
  assert.deepEqual(viewport.window, { x: [0, 8], y: [48, 52] });
  // With equal scales the other axis is not where it was asked to be.
  assert.deepEqual(viewport.follows, { x_low: "0" });
  viewport.adopt({ x: [1, 9], y: [48, 52], log_x: false, log_y: false });
  assert.deepEqual(viewport.window.x, [1, 9]);
  viewport.reveal(30);
  assert.ok(viewport.window.x[0] < 30 && viewport.window.x[1] > 30);
  viewport.adopt({ x: [0, 3], y: [0, 1], log_x: true, log_y: false });
  assert.deepEqual(viewport.window, { x: [0, 3], y: [0, 1], log_x: true, log_y: false });
  did();
  viewport.step(-1);
  assert.equal(did(), "");
  viewport.resize(400, 200);
  assert.equal(did(), "");
  viewport.resize(800, 200);
  assert.equal(did(), "paint look");
});

/** What plays: a slider from 0 to 10. */
const mover = (id, play = {}, value = 0) => ({
  key: `slider-${id}`,
  look: () => ({
    low: 0,
    high: 10,
    value,
    play: { seconds: 2, forward: true, at_end: "stop", in_step: false, ...play },
  }),
  command: (to) => ({ do: "set", id, value: to }),
});

test("what plays goes by the clock and stops at its end in one change", () => {
  const store = {};
  const commits = [];
  const looks = [];
  const motion = new Motion(
    store,
    async (commands, visits) => commits.push({ commands, visits }),
    (pace) => looks.push(pace),
  );
  motion.play(mover(1, { in_step: true }), [mover(1), mover(2, { in_step: true }), mover(3)]);
  assert.deepEqual(store.moving, { "slider-1": true, "slider-2": true });
  now += 500;
  frame();
  assert.equal(looks.length, 1);
  assert.deepEqual(
    motion.commands().map(({ value }) => value),
    [2.5, 2.5],
  );
  frame();
  assert.equal(looks.length, 1, "the same state is not asked for again");
  const { visits, joined } = motion.visits();
  assert.equal(joined, false);
  assert.equal(visits.at(-1)[0].value, 2.5);
  now += 100;
  assert.equal(motion.visits().joined, true);
  now += 1_500;
  frame();
  assert.equal(commits.length, 1);
  assert.deepEqual(commits[0].visits, [
    [
      [1, 10],
      [2, 10],
    ],
  ]);
  assert.deepEqual([motion.isMoving, store.moving], [false, {}]);
});

test("reduced motion goes in steps, and a line that is gone stops", () => {
  isReduced = true;
  const motion = new Motion(
    {},
    async () => {},
    () => {},
  );
  motion.play(mover(1, { at_end: "restart", seconds: 8 }));
  now += 700;
  assert.equal(motion.commands()[0].value, 0);
  now += 200;
  near(motion.commands()[0].value, 1, 1e-12);
  motion.play({ ...mover(2), look: () => null });
  assert.equal(motion.moving.size, 1);
  motion.drop();
  assert.equal(motion.isMoving, false);
});

test("a drag visits what lies on its way, and sends what was passed on a long way only", () => {
  const store = {
    rows: [{ id: 1, trail: { most: 100 }, hidden: false, runner: { low: 0, high: 3, value: 0 } }],
    sliders: [{ id: 2, value: 1, step_value: 0.5 }],
  };
  const motion = new Motion(
    store,
    async () => {},
    () => {},
  );
  const samples = new MotionSamples(store, motion);
  const set = (value) => ({ do: "set", id: 2, value });
  assert.deepEqual(samples.visits([]), {});
  assert.deepEqual(samples.visits([set(2)]), {
    visits: [[[2, 1]], [[2, 1.5]], [[2, 2]]],
    joined: false,
  });
  samples.reach([[[2, 2]]]);
  assert.deepEqual(samples.visits([set(2.5)]), { visits: [[[2, 2]], [[2, 2.5]]], joined: true });
  assert.deepEqual(samples.wayTo([set(3)], []).visits.at(-1), [[2, 3]]);
  assert.deepEqual(samples.wayTo([set(3)], [set(3)]), { visits: [] });
  assert.deepEqual(samples.wayTo([{ do: "write" }], []), { visits: [] });
  assert.deepEqual(samples.visits([{ do: "runner", id: 1, t: 0.02 }]).visits.length, 3);
  samples.forget();
  assert.equal(samples.visits([set(2)]).joined, false);
  store.rows[0].hidden = true;
  assert.deepEqual(samples.visits([set(2)]), {});
  const drag = () => {
    for (const value of [1, 2, 3, 4, 5, 6]) samples.note(set(value));
  };
  drag();
  assert.deepEqual(samples.states(), {});
  for (const ms of [40, 60, 30, 45]) samples.noteWay(ms);
  drag();
  assert.deepEqual(
    samples.states().passed.map(([{ value }]) => value),
    [2, 4],
  );
  samples.noteWay(3);
  drag();
  assert.deepEqual(samples.states(), {});
});

test("what hangs on the picture is asked for when it rests, and in pace beside what plays", () => {
  const state = { isPlaying: false, isDragged: false, isBehind: false };
  const subscriptions = new Subscriptions({
    isPlaying: () => state.isPlaying,
    isDragged: () => state.isDragged,
    isBehind: () => state.isBehind,
  });
  const asked = [];
  const watcher = (name, more = {}) => ({
    mark: () => asked.push(`${name} is behind`),
    ask: () => asked.push(`${name} asks`),
    isBehind: () => false,
    ...more,
  });
  const table = watcher("table");
  subscriptions.add(table);
  subscriptions.add(watcher("findings", { seesWindow: true, isBehind: () => true }));
  const did = () => asked.splice(0).join(", ");
  subscriptions.mark("window");
  assert.equal(did(), "findings is behind, findings asks");
  state.isDragged = true;
  subscriptions.mark("state");
  assert.equal(did(), "table is behind, findings is behind");
  wait(39);
  assert.equal(did(), "");
  wait(1);
  assert.equal(did(), "table asks, findings asks");
  state.isDragged = false;
  state.isPlaying = state.isBehind = true;
  now += 601;
  subscriptions.mark("state");
  assert.equal(did(), "table is behind, findings is behind, table asks, findings asks");
  subscriptions.mark("state");
  assert.equal(did(), "table is behind, findings is behind");
  state.isPlaying = state.isBehind = false;
  subscriptions.delete(table);
  subscriptions.soon();
  assert.equal(did(), "findings asks");
  // Another panel is opened: only what is behind is asked for.
  subscriptions.open();
  assert.equal(did(), "findings asks");
});

/** A picture, and what was shown of it. */
function pictureOf() {
  const { viewport } = viewportOf();
  const shown = [];
  const store = { axes: { equal: false }, isStale: true, take: ({ name }) => shown.push(name) };
  const picture = new Picture({
    store,
    viewport,
    times: new PictureTimes(),
    reports: { take: () => {} },
    unobserved: (paint) => paint(),
    follow: (findings) => findings && shown.push(`findings of ${findings.marks}`),
    stands: () => {},
  });
  return { picture, viewport, store, shown };
}
const sceneOf = (name) => ({
  name,
  window: { x: [-10, 10], y: [-5, 5], log_x: false, log_y: false, ...SIZE },
  rows: [{ id: 1 }, { id: 2 }],
});

test("states are shown one in each frame, and none of a drag that is over", () => {
  const { picture, store, shown } = pictureOf();
  const painted = [];
  picture.painters.add((scene) => {
    painted.push(scene.name);
    return () => painted.push(`elements of ${scene.name}`);
  });
  const states = (...names) => names.map((name) => ({ scene: sceneOf(name), drafts: [] }));
  picture.showAll(states("passed", "present"), 0, 1, () => true);
  assert.deepEqual(shown, ["passed"]);
  assert.equal(store.isStale, false);
  frame();
  assert.deepEqual(shown, ["passed", "present"]);
  assert.deepEqual(painted.slice(2), ["present", "elements of present"]);
  picture.showAll(states("a", "b"), 0, 1, () => true);
  picture.showAll(states("c"), 0, 1, () => true);
  frame();
  assert.deepEqual(shown.slice(2), ["a", "c"]);
  picture.showAll(states("of another version"), 0, 1, () => false);
  assert.equal(shown.at(-1), "c");
});

test("findings are shown with the state that they are of, and the reading line alone changes", () => {
  const { picture, shown } = pictureOf();
  const drafts = [{ do: "set", id: 3, value: 2 }];
  const findings = { marks: ["zero"], spans: [] };
  picture.showAll([{ scene: sceneOf("dragged"), drafts, findings }], 0, 7, () => true);
  assert.deepEqual(shown, ["dragged", "findings of zero"]);
  assert.deepEqual(picture.findingsAt(7).marks, ["zero"]);
  assert.equal(picture.findingsAt(8), null);
  assert.equal(picture.isOf(drafts), true);
  picture.drafts = [];
  assert.equal(picture.findingsAt(7), null);
  assert.equal(picture.isOf(drafts), false);
  picture.showReading({ reading: { value: 4 }, values: { 2: { text: "16" } } });
  assert.deepEqual(
    picture.scene.rows.map((row) => row.reading),
    [null, { text: "16" }],
  );
});

test("a live query knows whether its answer is of the present state", async () => {
  const answers = [];
  globalThis.fetch = async (path, { body }) => {
    const request = JSON.parse(body);
    return { ok: true, json: async () => ({ version: request.version, path, k: request.k }) };
  };
  let isOpen = true;
  const engine = {
    path: "/studies/1",
    version: 4,
    size: SIZE,
    motion: { isMoving: false },
    body: (more) => ({ version: engine.version, ...more }),
    failPart: assert.fail,
    subscriptions: new Subscriptions({
      isPlaying: () => false,
      isDragged: () => false,
      isBehind: () => false,
    }),
  };
  let behind = 0;
  const query = liveQuery(engine, "table", {
    take: (answer) => answers.push(answer.k),
    body: () => ({ k: answers.length }),
    isOpen: () => isOpen,
    behind: () => {
      behind += 1;
    },
    outdated: () => answers.push("outdated"),
  });
  const [watcher] = engine.subscriptions.watchers;
  assert.equal(watcher.isBehind(), true);
  query.ask();
  await settled();
  assert.deepEqual([answers, watcher.isBehind(), behind], [[0], false, 1]);
  engine.subscriptions.open();
  await settled();
  assert.deepEqual(answers, [0], "what it knows is shown again without a request");
  isOpen = false;
  engine.subscriptions.mark("state");
  await settled();
  assert.deepEqual([answers, watcher.isBehind()], [[0], true]);
  isOpen = true;
  engine.subscriptions.open();
  engine.version = 5;
  await settled();
  assert.deepEqual([answers, watcher.isBehind()], [[0, "outdated"], true]);
  engine.subscriptions.open();
  await settled();
  assert.deepEqual([answers, watcher.isBehind()], [[0, "outdated", 2], false]);
  query.end();
  assert.equal(engine.subscriptions.watchers.size, 0);
});

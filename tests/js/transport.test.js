// What goes to the server and what comes back: the latest answer, caches, prefetch, broken answers.
import assert from "node:assert/strict";
import { afterEach, describe, mock, test } from "node:test";
import { VersionAliases } from "../../src/axis_path/web/static/js/bench/transport/aliases.model.js";
import { ResponseCache } from "../../src/axis_path/web/static/js/bench/transport/cache.js";
import {
  NoPrefetch,
  Prefetch,
} from "../../src/axis_path/web/static/js/bench/transport/prefetch.js";
import { Backoff } from "../../src/axis_path/web/static/js/shared/backoff.js";
import { LatestAnswer } from "../../src/axis_path/web/static/js/shared/latest_answer.js";

const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Return a function that answers with what it is asked, and what it was asked. */
function echo(tookMs = () => 0) {
  const asked = [];
  const send = async (body) => {
    asked.push(body);
    await pause(tookMs());
    if (body === "bad") throw new Error("refused");
    return body;
  };
  return { asked, send };
}

describe("the latest answer", () => {
  test("a dropped request is not reported", async () => {
    const told = [];
    const pending = [];
    const latest = new LatestAnswer(
      (body, dropped) =>
        new Promise((give, refuse) => {
          dropped.addEventListener("abort", () => refuse(new Error("dropped")));
          pending.push(() => give(`answer ${body}`));
        }),
      (answer) => told.push(answer),
      (error) => told.push(error.message),
    );
    const settled = () => new Promise((done) => setImmediate(done));
    latest.ask(() => 1);
    latest.drop();
    latest.ask(() => 2);
    await settled();
    for (const answer of pending) answer();
    await settled();
    assert.deepEqual(told, ["answer 2"]);
    assert.equal(latest.isBehind, false);
  });

  test("requests with a pace wait for it, and the last pending one is sent", async () => {
    let now = 0;
    mock.timers.enable({ apis: ["setTimeout"] });
    mock.method(performance, "now", () => now);
    const wait = async (ms) => {
      now += ms;
      mock.timers.tick(ms);
      await new Promise((done) => setImmediate(done));
    };
    const sent = [];
    const latest = new LatestAnswer(
      async (body) => sent.push([body, now]),
      () => {},
      () => {},
    );
    latest.ask(() => 1, 120);
    await wait(5);
    latest.ask(() => 2, 120);
    latest.ask(() => 3, 120);
    await wait(114);
    assert.equal(sent.length, 1);
    await wait(300);
    latest.ask(() => 4);
    latest.ask(() => 5);
    await wait(50);
    latest.ask(() => 6, 200);
    latest.drop();
    await wait(250);
    assert.deepEqual(
      sent.map(([body]) => body),
      [1, 3, 4, 5],
    );
    mock.timers.reset();
    mock.restoreAll();
  });

  test("pauses double until something goes well", () => {
    const backoff = new Backoff(700, 3000);
    const pauses = [0, 0, 2000, 0, 0].map((least) => backoff.pause(least));
    assert.deepEqual(pauses, [700, 1400, 2800, 3000, 3000]);
    backoff.reset();
    assert.deepEqual([backoff.pause(), backoff.pause(9000)], [700, 9000]);
  });
});

describe("an answer that breaks off", () => {
  const [realFetch, realDocument] = [globalThis.fetch, globalThis.document];
  afterEach(() => {
    globalThis.fetch = realFetch;
    globalThis.document = realDocument;
  });

  test("is no answer", async () => {
    globalThis.document = { querySelector: () => null };
    const { post } = await import("../../src/axis_path/web/static/js/shared/api.js");
    const broken = (signal) =>
      new Response(
        new ReadableStream({
          start(controller) {
            controller.enqueue(new TextEncoder().encode('{"version": 1, '));
            if (!signal) controller.error(new Error("cut"));
            const end = () => controller.error(new DOMException("", "AbortError"));
            signal?.addEventListener("abort", end);
          },
        }),
      );
    const outcome = (promise) =>
      promise.then(
        () => "answer",
        (error) => [error.status, error.code],
      );
    globalThis.fetch = async () => broken(null);
    assert.deepEqual(await outcome(post("/x", {})), [0, "network"]);
    const drop = new AbortController();
    globalThis.fetch = async () => broken(drop.signal);
    setTimeout(() => drop.abort(), 20);
    assert.deepEqual(await outcome(post("/x", {}, { signal: drop.signal })), [0, "stopped"]);
    globalThis.fetch = async () => new Response("no JSON", { status: 500 });
    assert.deepEqual(await outcome(post("/x", {})), [500, "web.500"]);
  });
});

describe("the response cache", () => {
  test("drops the least recently used answer, and stores none larger than its room", async () => {
    const asked = [];
    const answers = new ResponseCache(
      async (body) => {
        asked.push(body.at);
        return body;
      },
      {
        room: 10,
        weigh: ({ weight }) => weight,
        keyOf: ({ at }) => String(at),
      },
    );
    const ask = (at, weight) => answers.get({ at, weight });
    for (const at of [1, 2, 3]) await ask(at, 3);
    // 1 is the latest now, so that 2 has to go.
    await ask(1, 3);
    await ask(4, 4);
    for (const at of [1, 3, 4, 2]) await ask(at, 3);
    for (const weight of [11, Infinity, 11]) await ask(9, weight);
    for (const at of [3, 4, 2]) await ask(at, 3);
    assert.deepEqual(asked, [1, 2, 3, 4, 2, 9, 9, 9]);
    assert.equal(answers.weight, 10);
  });

  test("versions that differ in the value of one slider are aliases", () => {
    const set7 = { do: "set", id: 7, value: 1 };
    const set8 = { do: "set", id: 8, value: 1 };
    const line = { do: "edit", id: 7, text: "f(x) = x" };
    for (const [steps, drafts, known] of [
      [[], [set7], [3, 4]],
      [[[4, [set7]]], [set7], [3, 3]],
      [[[4, [set7]]], [], [3, 4]],
      [[[4, [set7]]], [set8], [3, 4]],
      [[[4, [set7]]], [set7, set8], [3, 4]],
      // Something else was changed, or undone: all that came before is another study.
      [[[4, [line]]], [set7], [3, 4]],
      [
        [
          [9, [set7]],
          [4, [set8]],
        ],
        [set7],
        [3, 4],
      ],
      [
        [
          [9, [set7]],
          [4, []],
        ],
        [set7],
        [3, 4],
      ],
      [[[4, [set7, line]]], [set7], [3, 4]],
    ]) {
      const aliases = new VersionAliases(3);
      for (const [version, commands] of steps) aliases.goOn(version, commands);
      const found = [3, 4].map((version) => aliases.versionOf({ version, drafts }));
      assert.deepEqual(found, known, JSON.stringify([steps, drafts]));
    }
  });
});

describe("prefetch", () => {
  test("stores answers but no refusal", async () => {
    const { asked, send } = echo();
    const answers = new Prefetch(new ResponseCache(send));
    await answers.get(1);
    answers.expect([2, "bad", 3]);
    await pause(40);
    assert.equal(await answers.get(2), 2);
    assert.equal(await answers.get("bad").catch(() => "again"), "again");
    for (let k = 10; k < 20; k += 1) await answers.get(k);
    answers.expect([99]);
    await pause(20);
    assert.deepEqual(asked, [1, 2, "bad", 3, "bad", 10, 11, 12, 13, 14, 15, 16, 17, 18, 19]);
  });

  test("never has two requests under way", async () => {
    let [under, most] = [0, 0];
    const asked = [];
    const send = async (body) => {
      asked.push(body);
      under += 1;
      most = Math.max(most, under);
      await pause(30);
      under -= 1;
      return body;
    };
    const answers = new Prefetch(new ResponseCache(send));
    await answers.get(1);
    answers.expect([2, 3]);
    // Another request than was expected, and then one that is stored.
    assert.deepEqual([await answers.get(7), await answers.get(2)], [7, 2]);
    answers.expect([8]);
    assert.equal(await answers.get(8), 8);
    assert.deepEqual([asked, most], [[1, 2, 7, 8], 1]);
  });

  test("sends everything at rest, and stops at a request", async () => {
    let tookMs = 1;
    const { asked, send } = echo(() => tookMs);
    const answers = new Prefetch(new ResponseCache(send));
    // A fast drag: nothing until it rests, and then all that is not stored.
    for (const k of [1, 2, 3, 4]) await answers.get(k);
    answers.expect([3, 11, 12, 13, 14, 15]);
    await pause(20);
    assert.deepEqual(asked.splice(0), [1, 2, 3, 4]);
    await pause(150);
    assert.deepEqual(asked.splice(0), [11, 12, 13, 14, 15]);
    answers.expect([21, 22, 23, 24, 25]);
    await answers.get(5);
    await pause(150);
    assert.deepEqual(asked.splice(0), [21, 5]);
    // What takes long is sent seldom.
    tookMs = 120;
    answers.expect([31, 32, 33, 34, 35]);
    await pause(700);
    assert.deepEqual(asked, [31, 32, 33]);
  });

  test("sends several together, and what was left out comes first", async () => {
    const asked = [];
    const cache = new ResponseCache(async (body) => {
      asked.push([body]);
      return body;
    });
    const answers = new Prefetch(cache, {
      together: 4,
      sendAll: async (bodies) => {
        asked.push(bodies);
        return bodies.slice(0, 3);
      },
    });
    await answers.get(1);
    answers.expect([2, 1, 3, 4, 5, 6, 7, 8]);
    await pause(150);
    // The first three are all that is sent while a request may come; then all the rest.
    assert.deepEqual(asked, [[1], [2, 3, 4], [5, 6, 7, 8], [8]]);
    assert.deepEqual(
      [2, 8, 9].map((body) => answers.has(body)),
      [true, true, false],
    );
    assert.equal(await answers.get(7), 7);
    assert.equal(asked.length, 4);
  });

  test("is off where the server or the settings say so", async () => {
    const { asked, send } = echo();
    const cache = new ResponseCache(send);
    const busy = new Prefetch(cache);
    busy.allow(false);
    busy.expect([1, 2]);
    const off = new NoPrefetch(cache);
    off.allow(true);
    off.begin();
    off.expect([3, 4]);
    await pause(100);
    assert.deepEqual(
      [await busy.get(5), await off.get(5), off.has(5), off.has(1)],
      [5, 5, true, false],
    );
    busy.allow(true);
    busy.expect([6]);
    await pause(100);
    assert.deepEqual(asked, [5, 6]);
  });
});

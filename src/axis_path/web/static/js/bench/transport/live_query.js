// @ts-check
/**
 * Keeps the latest answer to one query about the present state: the one place where answers of
 * panels are asked for, checked and thrown away.
 *
 * A live query is told of every change of the state, says at once that what stands is behind, asks
 * again when the picture stands, lets only the latest answer through, and drops one that is for
 * another version of the study.
 */
import { ask } from "../../shared/api.js";
import { LatestAnswer } from "../../shared/latest_answer.js";

/**
 * @typedef {import("#types/answers").Answers} Answers
 */

/**
 * @template {keyof Answers} Name
 * @typedef {object} LiveQueryOptions
 * @property {(answer: Answers[Name], body: any) => void} take takes an answer of the present version.
 * @property {() => object} [body] what is asked beside the state.
 * @property {() => boolean} [isOpen] whether somebody looks at the answer; without that nothing is asked.
 * @property {(isBehind: boolean) => void} [behind] told whether what stands is of the present state.
 * @property {() => void} [mark] told of a change, before anything is asked.
 * @property {() => void} [outdated] told of an answer that was for another version.
 * @property {(error: any) => void} [fail] in place of the usual message.
 * @property {(findings: any) => void} [follow] takes what was located with a picture.
 * @property {boolean} [seesWindow] whether the answer changes with the window alone.
 * @property {boolean} [keepsLate] whether a late answer is better than none while something plays.
 */

/** @typedef {ReturnType<typeof liveQuery>} LiveQuery */

/**
 * @template {keyof Answers} Name
 * @param {import("../session/engine.js").Engine} engine
 * @param {Name} name of the task, which is its address too. @param {LiveQueryOptions<Name>} options
 */
export function liveQuery(engine, name, options) {
  const { take, body = () => ({}), isOpen = () => true, behind = () => {} } = options;
  /** Counts the changes of the state, */
  let changes = 0;
  /** those that the answer knows that stands, */
  let known = -1;
  /** and those that requests know. @type {WeakMap<object, number>} */
  const sent = new WeakMap();
  const latest = new LatestAnswer(
    (request, dropped) => ask(`${engine.path}/${name}`, withoutNotes(request), dropped),
    (answer, request) => {
      if (answer.version !== engine.version) {
        options.outdated?.();
        return;
      }
      known = sent.get(request) ?? -1;
      take(answer, request);
    },
    options.fail ?? ((error) => engine.failPart(error)),
  );
  const subscriber = {
    seesWindow: options.seesWindow ?? false,
    follow: options.follow,
    isBehind: () => known !== changes,
    mark() {
      changes += 1;
      if (!options.keepsLate || !engine.motion.isMoving) latest.drop();
      if (isOpen()) behind(true);
      options.mark?.();
    },
    ask: () => query.ask(),
  };
  const query = {
    /** Ask about the present state, unless nobody looks. @param {() => object} [makeBody] what is asked in place of the usual. */
    ask(makeBody = body) {
      if (!isOpen() || !engine.size.width) return;
      behind(true);
      query.askMore(makeBody);
    },
    /** Ask for more of what stands, which stays true meanwhile. @param {() => object} makeBody */
    askMore(makeBody) {
      latest.ask(() => {
        const request = engine.body(makeBody());
        sent.set(request, changes);
        return request;
      });
    },
    /** Give up what is under way. */
    drop() {
      latest.drop();
    },
    /** Whether another query waits to be sent. */
    get isPending() {
      return latest.pending !== null;
    },
    /** Forget the query: nothing is asked or taken any more. */
    end() {
      latest.drop();
      engine.subscriptions.delete(subscriber);
    },
  };
  engine.subscriptions.add(subscriber);
  return query;
}

/** A query as it is sent: notes to oneself are of no use to the server. @param {any} body */
function withoutNotes({ isScroll: _, ...body }) {
  return body;
}

// @ts-check
/** A set of equations as it is typed in one line, and as it is written with one equation in each. */

const LABEL = /^\s*([\p{L}_][\p{L}0-9_]*)\s*:(?!=)/u;
const OPENING = "([{";
const CLOSING = ")]}";

/** The label and the equations of a typed set. @param {string} text */
export function equationsOf(text) {
  const label = LABEL.exec(text);
  const body = label ? text.slice(label[0].length) : text;
  const equations = [""];
  let depth = 0;
  for (const sign of body) {
    if (OPENING.includes(sign)) depth += 1;
    else if (CLOSING.includes(sign)) depth -= 1;
    if (sign === ";" && depth === 0) equations.push("");
    else equations[equations.length - 1] += sign;
  }
  return {
    label: label?.[1] ?? "",
    equations: equations.map((one) => one.trim()).filter(Boolean),
  };
}

/** A set as it is typed in one line. @param {string} label @param {string} lines with one equation in each. */
export function setText(label, lines) {
  const equations = lines
    .split(/[\n;]/)
    .map((line) => line.trim())
    .filter(Boolean);
  if (!equations.length) return "";
  const name = label.trim();
  // A single equation is a set by the semicolon behind it.
  const end = equations.length === 1 ? ";" : "";
  return `${name ? `${name}: ` : ""}${equations.join("; ")}${end}`;
}

/**
 * What stands in the fields for the bounds once an answer arrives: what is kept, but for what was
 * typed since the answer before.
 *
 * @param {Bound[]} bounds that are kept now
 * @param {Bound[]} before those of the answer before
 * @param {Record<string, { low: string, high: string }>} typed
 * @typedef {{ name: string, low: string, high: string }} Bound
 */
export function typedBounds(bounds, before, typed) {
  const known = new Map(before.map((bound) => [bound.name, bound]));
  return Object.fromEntries(
    bounds.map((bound) => {
      const [own, old] = [typed[bound.name], known.get(bound.name)];
      /** @param {"low" | "high"} side */
      const shown = (side) => (own && old && own[side] !== old[side] ? own[side] : bound[side]);
      return [bound.name, { low: shown("low"), high: shown("high") }];
    }),
  );
}

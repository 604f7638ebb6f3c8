// @ts-check
/** Puts typeset formulas on the page: parsed as XML, and only the elements of formulas taken over. */

const NAMESPACE = "http://www.w3.org/1998/Math/MathML";
const ELEMENTS = new Set(
  "math mrow mi mn mo msup msub msubsup munderover mfrac msqrt mroot mspace mtext mstyle mtable mtr mtd".split(
    " ",
  ),
);
const ATTRIBUTES = new Set([
  "stretchy",
  "form",
  "separator",
  "width",
  "lspace",
  "rspace",
  "displaystyle",
]);

/** @param {Element} source @returns {Element | null} */
function copied(source) {
  if (!ELEMENTS.has(source.localName)) return null;
  const element = document.createElementNS(NAMESPACE, source.localName);
  for (const { name, value } of source.attributes) {
    if (ATTRIBUTES.has(name)) element.setAttribute(name, value);
  }
  for (const child of source.childNodes) {
    if (child.nodeType === Node.TEXT_NODE) element.append(child.textContent ?? "");
    else if (child instanceof Element) element.append(copied(child) ?? "");
  }
  return element;
}

/** @param {Element} target @param {string} text MathML of our own making. @param {boolean} [isWrapped] whether it may take several lines. */
export function setFormula(target, text, isWrapped = false) {
  target.replaceChildren();
  if (!text) return;
  const parsed = new DOMParser().parseFromString(text, "application/xml").documentElement;
  const formula = copied(parsed);
  if (formula) target.append(...(isWrapped ? cut(formula) : [formula]));
}

/** Before these operators a formula may go on in another line. */
const BREAKS = new Set([..."=<>≤≥≠+−±", "for"]);
/** Behind these it may go on in another line. */
const BREAKS_AFTER = new Set([",", ";"]);

/**
 * Cut a formula at its outermost operators into formulas that can stand in lines one below the other.
 * @param {Element} formula @returns {Element[]}
 */
function cut(formula) {
  let outer = formula;
  while (outer.children.length === 1 && outer.firstElementChild?.localName === "mrow") {
    outer = outer.firstElementChild;
  }
  /** @type {Element[][]} */
  const groups = [[]];
  let isEnded = false;
  for (const child of [...outer.children]) {
    const sign = child.localName === "mo" ? (child.textContent ?? "") : "";
    // The space behind a separator stays in its line.
    if (isEnded && child.localName !== "mspace") {
      groups.push([]);
      isEnded = false;
    }
    if (BREAKS_AFTER.has(sign)) isEnded = true;
    const isBreak = BREAKS.has(sign);
    if (isBreak && groups[groups.length - 1].length) {
      // At the head of a line it is no sign of what follows, but an operator as before.
      child.setAttribute("form", "infix");
      groups.push([]);
    }
    groups[groups.length - 1].push(child);
  }
  return groups.map((group) => {
    const part = document.createElementNS(NAMESPACE, "math");
    part.append(...group);
    return part;
  });
}

/** How far a formula is made smaller before it is cut off. */
const SMALLEST = 0.7;

/** Formulas that are kept as small as their surroundings need, and those that wait for it. @type {Set<HTMLElement>} */
const fitted = new Set();
/** @type {Set<HTMLElement>} */
const waiting = new Set();

// Its face may arrive after a formula.
document.fonts.addEventListener("loadingdone", () => fitted.forEach(fitSoon));

/** @param {HTMLElement} target */
function fitSoon(target) {
  if (!waiting.size) requestAnimationFrame(fitAll);
  waiting.add(target);
}

/** Make formulas as small as their surroundings need: all are measured first, so that the page is laid out once. */
function fitAll() {
  const targets = [...waiting].filter((target) => target.parentElement?.clientWidth);
  waiting.clear();
  for (const target of targets) if (target.style.fontSize) target.style.fontSize = "";
  const parts = targets.map(partOf);
  targets.forEach((target, k) => {
    if (parts[k] < 1) target.style.fontSize = `${Math.max(parts[k] * 0.99, SMALLEST)}em`;
  });
}

/** The room that a formula has, as a part of its width. @param {HTMLElement} target */
function partOf(target) {
  const room = /** @type {HTMLElement} */ (target.parentElement);
  const style = getComputedStyle(room);
  const width = room.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
  return width / target.getBoundingClientRect().width;
}

/** The width that a formula would take in a single line, in px. @param {Element} target where it was put. */
export function naturalWidth(target) {
  const parts = [...target.children].map((part) => part.getBoundingClientRect().width);
  return parts.reduce((sum, width) => sum + width, 0);
}

/**
 * The directive `x-mathml="row.mathml"`; with `.wrap` the formula goes on in another line where it has
 * too little room, with `.fit` it becomes smaller.
 * @param {any} Alpine
 */
export function registerFormulas(Alpine) {
  Alpine.directive(
    "mathml",
    (element, { expression, modifiers }, { evaluateLater, effect, cleanup }) => {
      const read = evaluateLater(expression);
      const isFitted = modifiers.includes("fit");
      const isWrapped = modifiers.includes("wrap");
      effect(() =>
        read((text) => {
          setFormula(element, text ?? "", isWrapped);
          if (isFitted) fitSoon(element);
        }),
      );
      if (!isFitted) return;
      fitted.add(element);
      // The column changes with the window.
      const watcher = new ResizeObserver(() => fitSoon(element));
      watcher.observe(element.parentElement);
      cleanup(() => {
        watcher.disconnect();
        fitted.delete(element);
      });
    },
  );
}

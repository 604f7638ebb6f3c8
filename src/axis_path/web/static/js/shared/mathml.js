// @ts-check
/** Puts typeset formulas on the page: parsed as XML, and only the elements of formulas taken over. */

const NAMESPACE = "http://www.w3.org/1998/Math/MathML";
const ELEMENTS = new Set("math mrow mi mn mo msup msub msubsup munderover mfrac msqrt mroot mspace mtext mstyle mtable mtr mtd".split(" "));
const ATTRIBUTES = new Set(["stretchy", "form", "separator", "width", "lspace", "rspace", "displaystyle"]);

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

/** @param {Element} target @param {string} text MathML of our own making. */
export function setFormula(target, text) {
  target.replaceChildren();
  if (!text) return;
  const parsed = new DOMParser().parseFromString(text, "application/xml").documentElement;
  const formula = copied(parsed);
  if (formula) target.append(formula);
}

/** How far a formula is made smaller before it is cut off. */
const SMALLEST = 0.7;

/** Make a formula as small as its surroundings need. @param {HTMLElement} target */
function fit(target) {
  const room = target.parentElement;
  if (!room?.clientWidth) return;
  target.style.fontSize = "";
  const style = getComputedStyle(room);
  const width = room.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
  const part = width / target.getBoundingClientRect().width;
  if (part < 1) target.style.fontSize = `${Math.max(part * 0.99, SMALLEST)}em`;
}

/**
 * The directive `x-mathml="row.mathml"`; with `.fit` the formula becomes smaller where it has too
 * little room.
 * @param {any} Alpine
 */
export function registerFormulas(Alpine) {
  Alpine.directive("mathml", (element, { expression, modifiers }, { evaluateLater, effect, cleanup }) => {
    const read = evaluateLater(expression);
    const isFitted = modifiers.includes("fit");
    effect(() =>
      read((text) => {
        setFormula(element, text ?? "");
        if (isFitted) requestAnimationFrame(() => fit(element));
      }),
    );
    if (!isFitted) return;
    // The face arrives after the first formulas, and the column changes with the window.
    const watcher = new ResizeObserver(() => fit(element));
    watcher.observe(element.parentElement);
    document.fonts.ready.then(() => fit(element));
    cleanup(() => watcher.disconnect());
  });
}

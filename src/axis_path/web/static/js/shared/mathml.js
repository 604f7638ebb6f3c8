// @ts-check
/** Puts typeset formulas on the page: parsed as XML, and only the elements of formulas taken over. */

const NAMESPACE = "http://www.w3.org/1998/Math/MathML";
const ELEMENTS = new Set("math mrow mi mn mo msup msub mfrac msqrt mroot mspace mtext mstyle mtable mtr mtd".split(" "));
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

/** The directive `x-mathml="row.mathml"`. @param {any} Alpine */
export function registerFormulas(Alpine) {
  Alpine.directive("mathml", (element, { expression }, { evaluateLater, effect }) => {
    const read = evaluateLater(expression);
    effect(() => read((text) => setFormula(element, text ?? "")));
  });
}

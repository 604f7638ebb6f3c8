// @ts-check
/** Sentences of the server, in which names and texts stand between backticks. */

/** The directive `x-sentence="message"`. @param {any} Alpine */
export function registerSentences(Alpine) {
  Alpine.directive("sentence", (element, { expression }, { evaluateLater, effect }) => {
    const read = evaluateLater(expression);
    effect(() => read((text) => element.replaceChildren(...parts(text ?? ""))));
  });
}

function parts(text) {
  return text.split("`").map((part, k) => {
    if (k % 2 === 0) return part;
    const code = document.createElement("code");
    code.textContent = part;
    return code;
  });
}

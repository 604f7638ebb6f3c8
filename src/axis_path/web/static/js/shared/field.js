// @ts-check
/** Fields that show what is kept, and never take away what is being typed. */

/**
 * The directive `x-field="axes.title"`: the field shows the value; while the pointer is in it and has
 * changed it, an answer that arrives leaves it alone.
 * @param {any} Alpine
 */
export function registerFields(Alpine) {
  Alpine.directive("field", (element, { expression }, { evaluateLater, effect }) => {
    const read = evaluateLater(expression);
    let last = "";
    effect(() =>
      read((value) => {
        const isTyped = document.activeElement === element && element.value !== last;
        last = String(value ?? "");
        if (!isTyped) element.value = last;
      }),
    );
  });
}

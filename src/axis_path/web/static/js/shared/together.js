// @ts-check
/**
 * Put parts of a component together with getters as getters: a spread would read them once and keep
 * the value.
 * @param {any[]} parts
 */
export function together(...parts) {
  return parts.reduce(
    (whole, part) => Object.defineProperties(whole, Object.getOwnPropertyDescriptors(part)),
    {},
  );
}

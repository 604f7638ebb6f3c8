// @ts-check
/** Keys that lead from one cell of a matrix to another. */

/**
 * Where a key leads from a cell, in rows and columns; null if it belongs to the text of the cell.
 * @param {any} event @returns {[number, number] | null}
 */
export function stepOf(event) {
  const { target, key } = event;
  if (event.altKey || event.ctrlKey || event.metaKey) return null;
  const isAtStart = target.selectionStart === 0 && target.selectionEnd === 0;
  const isAtEnd = target.selectionStart === target.value.length;
  const isAll = target.selectionEnd - target.selectionStart === target.value.length;
  /** @type {Record<string, [number, number] | false>} */
  const steps = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: (isAtStart || isAll) && [0, -1],
    ArrowRight: (isAtEnd || isAll) && [0, 1],
    Enter: [1, 0],
  };
  return steps[key] || null;
}

/** Focus a cell and select what it holds. @param {Element} root @param {number} row @param {number} column */
export function focusCell(root, row, column) {
  const field = /** @type {HTMLInputElement | null} */ (
    root.querySelector(`[data-cell="${row},${column}"]`)
  );
  field?.focus();
  field?.select();
}

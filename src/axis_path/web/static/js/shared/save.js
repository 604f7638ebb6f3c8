// @ts-check
/** Files for the student. */

/** Longer than a browser takes to begin. */
const KEPT_MS = 10_000;

/** Save a file under a name. @param {Blob} file @param {string} name */
export function saveAs(file, name) {
  const url = URL.createObjectURL(file);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), KEPT_MS);
}

// @ts-check
/** Whether a finger or a button of the mouse is down: what is pressed must stay under it until it is let go. */

let isDown = false;
/** @type {(() => void)[]} */
let waiting = [];

function letGo() {
  isDown = false;
  const due = waiting;
  waiting = [];
  for (const act of due) act();
}

addEventListener(
  "pointerdown",
  () => {
    isDown = true;
  },
  true,
);
for (const kind of ["pointerup", "pointercancel", "dragend"]) addEventListener(kind, letGo, true);

/** Do something when nothing is pressed any more: at once, if nothing is. @param {() => void} act */
export function afterPress(act) {
  if (isDown) waiting.push(act);
  else act();
}

// @ts-check
/** The list of studies: times as they are here. */
import { say } from "../shared/words.js";

const format = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });
for (const time of document.querySelectorAll("[data-local-time]")) {
  const moment = time.getAttribute("datetime");
  if (moment)
    time.textContent = say("changed {moment}", { moment: format.format(new Date(moment)) });
}

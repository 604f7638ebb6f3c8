// @ts-check
/** The list of studies: times as they are here. */
const format = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });
for (const time of document.querySelectorAll("[data-local-time]")) {
  const moment = time.getAttribute("datetime");
  if (moment) time.textContent = `changed ${format.format(new Date(moment))}`;
}

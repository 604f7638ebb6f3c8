/* Light or dark: what was chosen here, else what the system wishes. Loaded before the first paint. */
(() => {
  const KEY = "axis-path-theme";
  const root = document.documentElement;
  const dark = matchMedia("(prefers-color-scheme: dark)");
  const wished = () => (dark.matches ? "dark" : "light");
  const read = () => {
    try {
      return localStorage.getItem(KEY);
    } catch {
      return null; // Storage can be closed; the theme then lasts as long as the page.
    }
  };
  /** @param {string} theme */
  const show = (theme) => {
    root.dataset.bsTheme = theme;
    document.dispatchEvent(new CustomEvent("themechange"));
  };
  show(read() ?? wished());
  // Many systems turn dark in the evening; the page turns with them.
  dark.addEventListener("change", () => show(read() ?? wished()));
  document.addEventListener("click", (event) => {
    if (!(/** @type {Element} */ (event.target).closest("[data-theme-toggle]"))) return;
    const chosen = root.dataset.bsTheme === "dark" ? "light" : "dark";
    try {
      localStorage.setItem(KEY, chosen);
    } catch {
      // See above.
    }
    show(chosen);
  });
})();

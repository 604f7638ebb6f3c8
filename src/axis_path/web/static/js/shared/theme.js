/* Light or dark: what was chosen here, else what the system wishes. Loaded before the first paint. */
(() => {
  const KEY = "axis-path-theme";
  const root = document.documentElement;
  const wished = () => (matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light");
  const read = () => {
    try {
      return localStorage.getItem(KEY);
    } catch {
      return null; // Storage can be closed; the theme then lasts as long as the page.
    }
  };
  root.dataset.bsTheme = read() ?? wished();
  document.addEventListener("click", (event) => {
    if (!(/** @type {Element} */ (event.target).closest("[data-theme-toggle]"))) return;
    root.dataset.bsTheme = root.dataset.bsTheme === "dark" ? "light" : "dark";
    try {
      localStorage.setItem(KEY, root.dataset.bsTheme);
    } catch {
      // See above.
    }
    document.dispatchEvent(new CustomEvent("themechange"));
  });
})();

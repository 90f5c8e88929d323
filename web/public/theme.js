// The theme is set before the first paint, so that a dark page never flashes white.
(() => {
  let theme = null;
  try {
    theme = localStorage.getItem("rutile.theme");
  } catch {}
  if (theme !== "light" && theme !== "dark") {
    theme = matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
  }
  document.documentElement.dataset.theme = theme;
})();

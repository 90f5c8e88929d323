// The theme is set before the first paint, so that an evening bench never flashes white.
(() => {
  let theme = null;
  try {
    theme = localStorage.getItem("rutile.theme");
  } catch {}
  if (theme !== "titanium" && theme !== "evening") {
    theme = matchMedia("(prefers-color-scheme: dark)").matches ? "evening" : "titanium";
  }
  document.documentElement.dataset.theme = theme;
})();

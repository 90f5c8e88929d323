// Drawings are saved as open files that need nothing of this page: every style is written into them.

const STYLES = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-opacity",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linecap",
  "opacity",
  "font-size",
  "text-anchor",
];

/** standalone is a drawing as a file of its own. */
export function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll<SVGElement>("*")];
  const to = [copy, ...copy.querySelectorAll<SVGElement>("*")];
  from.forEach((el, i) => {
    const style = getComputedStyle(el);
    const out = to[i];
    if (!out) return;
    for (const s of STYLES) {
      const v = style.getPropertyValue(s);
      if (v && v !== "none" && !v.startsWith("url(")) out.setAttribute(s, v);
      else if (v === "none") out.setAttribute(s, "none");
    }
    for (const a of ["class", "tabindex", "data-band", "role", "style"]) out.removeAttribute(a);
  });
  const box = svg.viewBox.baseVal;
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", `${box.width}`);
  copy.setAttribute("height", `${box.height}`);
  copy.setAttribute("font-family", "'Atkinson Hyperlegible Next', Verdana, sans-serif");
  const paper = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  paper.setAttribute("width", `${box.width}`);
  paper.setAttribute("height", `${box.height}`);
  paper.setAttribute("fill", getComputedStyle(document.body).backgroundColor);
  copy.insertBefore(paper, copy.firstChild);
  return new XMLSerializer().serializeToString(copy);
}

/** asPNG draws a drawing at twice its size. */
export async function asPNG(svg: SVGSVGElement): Promise<Blob> {
  const box = svg.viewBox.baseVal;
  const img = new Image();
  img.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standalone(svg))}`;
  await img.decode();
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(box.width * 2);
  canvas.height = Math.round(box.height * 2);
  canvas.getContext("2d")?.drawImage(img, 0, 0, canvas.width, canvas.height);
  return new Promise((done, fail) =>
    canvas.toBlob((b) => (b ? done(b) : fail(new Error("The picture could not be made."))), "image/png"),
  );
}

/** keep downloads a file. */
export function keep(name: string, content: Blob) {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(content);
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(a.href), 10_000);
}

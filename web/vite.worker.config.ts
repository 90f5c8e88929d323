import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { defineConfig } from "vite";

// The service worker is built after the page: it lists the page's files.
const files = readdirSync("dist", { recursive: true, withFileTypes: true })
  .filter((f) => f.isFile())
  .map((f) => `${f.parentPath}/${f.name}`.slice("dist/".length))
  .filter((f) => !["licences.txt", ".keep", "sw.js"].includes(f))
  .sort()
  .map((f) => ({
    url: `/${f}`,
    // Names in assets change with what is in them.
    revision: f.startsWith("assets/")
      ? null
      : createHash("sha256").update(readFileSync(`dist/${f}`)).digest("hex").slice(0, 16),
  }));

export default defineConfig({
  define: { __FILES__: JSON.stringify(files), "process.env.NODE_ENV": JSON.stringify("production") },
  publicDir: false,
  build: {
    target: "es2022",
    emptyOutDir: false,
    rollupOptions: {
      input: "src/offline/worker/sw.ts",
      output: { format: "iife", entryFileNames: "sw.js" },
    },
  },
});

import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    target: "es2022",
    // Nothing is inlined: the page's content policy allows its own files only.
    assetsInlineLimit: 0,
    // web/dist keeps a file of its own so that the program builds without it.
    emptyOutDir: true,
  },
  server: { proxy: { "/api": { target: "http://127.0.0.1:8733", changeOrigin: true } } },
});

import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: "dist",
    manifest: "manifest.json",
    emptyOutDir: true,
    target: "es2022",
    chunkSizeWarningLimit: 1500,
  },
  // pages come from Django, only what has changed is told by Vite itself
  server: {
    host: "127.0.0.1",
    port: Number(process.env.VITE_PORT) || undefined,
    strictPort: true,
    hmr: { host: "127.0.0.1", clientPort: Number(process.env.VITE_PORT) || undefined },
  },
  test: {
    environment: "happy-dom",
    pool: "vmThreads",
    include: ["src/**/*.test.{ts,tsx}"],
    setupFiles: ["src/ui/testSetup.ts"],
  },
});

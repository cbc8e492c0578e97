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
  test: { environment: "happy-dom", include: ["src/**/*.test.{ts,tsx}"], setupFiles: ["src/ui/testSetup.ts"] },
});

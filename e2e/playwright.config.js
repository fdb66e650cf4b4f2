import { defineConfig } from "@playwright/test";
import { chromiumPath } from "./server.js";

export default defineConfig({
  testDir: ".",
  outputDir: "../test-results",
  forbidOnly: true,
  retries: 0,
  workers: 2,
  fullyParallel: true,
  timeout: 180_000,
  expect: { timeout: 10_000 },
  reporter: [["list"]],
  use: {
    browserName: "chromium",
    headless: true,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: chromiumPath(),
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});

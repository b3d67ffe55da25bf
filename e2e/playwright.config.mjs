import { defineConfig } from "@playwright/test";

// Debian's Chromium, as quiet as it can be made: it asks nobody and resolves nothing but this machine.
const quiet = [
  ...(process.getuid?.() === 0 ? ["--no-sandbox"] : []),
  "--disable-gpu",
  "--disable-quic",
  "--disable-dev-shm-usage",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--disable-domain-reliability",
  "--no-pings",
  "--font-render-hinting=none",
  "--force-color-profile=srgb",
  "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
];

export default defineConfig({
  testDir: ".",
  globalSetup: "./prepare.mjs",
  // Every test has a shop of its own: two run at a time.
  fullyParallel: true,
  workers: 2,
  timeout: 180_000,
  // A plan takes seconds, and many where something else is busy: what computes gives way to all others.
  expect: { timeout: 60_000 },
  reporter: [["list"]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    launchOptions: { executablePath: "/usr/bin/chromium", args: quiet },
  },
  projects: [
    { name: "stories", testMatch: "stories/*.story.mjs" },
    { name: "screenshots", testMatch: "screenshots.mjs" },
    { name: "bench", testMatch: "bench/*.bench.mjs" },
  ],
});

/**
 * Starts the real binary on a free port with a temporary data directory, once
 * for each worker, and looks up Debian's Chromium.
 */
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { test as base, expect } from "@playwright/test";
import AxeBuilder from "@axe-core/playwright";

export const BINARY = process.env.GALVET_BINARY ?? "target/debug/galvet";

/**
 * Path of the Chromium of the Debian packages: the one without a window, where it is
 * there, takes a third less time.
 */
export function chromiumPath() {
  const names = ["chromium-headless-shell", "chromium", "chromium-browser"];
  const found = names.map((name) => `/usr/bin/${name}`).find(existsSync);
  if (!found)
    throw new Error(
      "Chromium is not installed: apt-get install chromium-headless-shell",
    );
  return found;
}

/** Starts a server; its process and the address it tells. */
export async function start(args) {
  const child = spawn(BINARY, args, {
    stdio: ["ignore", "pipe", "inherit"],
  });
  for await (const line of createInterface({ input: child.stdout })) {
    const address = line.match(/http:\/\/\S+/)?.[0];
    if (address) return { child, address };
  }
  throw new Error(`${BINARY} ended without an address`);
}

export const test = base.extend({
  address: [
    async ({}, use) => {
      const { child, address } = await start(["demo", "--port", "0"]);
      await use(address);
      child.kill();
    },
    { scope: "worker" },
  ],
  baseURL: async ({ address }, use) => use(address),
  /** A demo of one's own, to change things in. */
  ownDemo: async ({}, use) => {
    const { child, address } = await start(["demo", "--port", "0"]);
    await use(address);
    child.kill();
  },
  /** An installation nobody has put anything in. */
  empty: async ({}, use) => {
    const data = mkdtempSync(join(tmpdir(), "galvet-e2e-"));
    const listen = ["--listen", "127.0.0.1:0"];
    const { child, address } = await start([
      "serve",
      "--data",
      data,
      ...listen,
    ]);
    await use(address);
    child.kill();
    rmSync(data, { recursive: true, force: true });
  },
  /** Fails the test when the page complains. */
  page: async ({ page }, use) => {
    const complaints = [];
    page.on("console", (message) => {
      // The browser itself notes the status of a refused brief (422).
      const expected = message.text().includes("status of 422");
      if (["error", "warning"].includes(message.type()) && !expected)
        complaints.push(message.text());
    });
    page.on("pageerror", (error) => complaints.push(error.message));
    await use(page);
    expect(complaints, "the console is silent").toEqual([]);
  },
});

export { expect };

/** No accessibility violation of WCAG 2.2 AA on the page as it stands. */
export async function expectAxeClean(page) {
  const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];
  await expectAxe(axe(page).withTags(tags));
}

/** Of neighbours that are built alike two stand for the rest: they have the same colours. */
async function thin(page) {
  await page.evaluate(() => {
    const own = (e) => `${e.tagName}.${e.getAttribute("class") ?? ""}`;
    const built = (e) =>
      [own(e), ...new Set([...e.querySelectorAll("*")].map(own))].join();
    for (const parent of [...document.querySelectorAll("main, main *")]) {
      const alike = new Map();
      for (const child of [...parent.children]) {
        const kind = built(child);
        alike.set(kind, (alike.get(kind) ?? 0) + 1);
        if (alike.get(kind) > 2) child.remove();
      }
    }
  });
}

/**
 * Enough contrast: all that a look of its own can spoil. `thinned` for a page that is
 * gone through whole in another look.
 */
export async function expectContrast(page, { thinned = false } = {}) {
  if (thinned) await thin(page);
  await expectAxe(axe(page).withRules(["color-contrast"]));
}

/** Looks for violations alone, and opens no page beside this one to gather frames: ours have none. */
function axe(page) {
  const options = { resultTypes: ["violations"] };
  return new AxeBuilder({ page }).options(options).setLegacyMode();
}

async function expectAxe(axe) {
  const { violations } = await axe.analyze();
  const found = violations.map(
    (v) => `${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join(", ")}`,
  );
  expect(found).toEqual([]);
}

/** Nothing runs off to the side. */
export async function expectFits(page, where = page.url()) {
  const over = await page.evaluate(() => {
    const { scrollWidth, clientWidth } = document.documentElement;
    return scrollWidth - clientWidth;
  });
  expect(over, where).toBeLessThanOrEqual(0);
}

/** How many sheets a page takes, printed. */
export async function sheets(page, options = {}) {
  const pdf = await page.pdf({ format: "A4", ...options });
  return pdf.toString("latin1").match(/\/Type\s*\/Page[^s]/g).length;
}

/** Keys of the ranked hulls, first place first. */
export async function order(page) {
  return page
    .locator("[data-rows] > [data-hull]")
    .evaluateAll((rows) => rows.map((row) => row.dataset.hull));
}

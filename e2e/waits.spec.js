/** A question of more hulls than a page waits for: how far it is, and that it comes. */
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base, expect, expectAxeClean, expectFits } from "./server.js";
import { BINARY, start } from "./server.js";
import { part } from "./sentence.js";

const test = base.extend({
  /** The demo's hulls six times over. */
  crowd: async ({ ownDemo }, use) => {
    const all = await (await fetch(`${ownDemo}/everything.json`)).json();
    const hulls = [0, 1, 2, 3, 4, 5].flatMap((copy) =>
      all.hulls.map((hull) => ({
        ...hull,
        key: `${hull.key}-${copy}`,
        model: `${hull.model} ${copy}`,
      })),
    );
    const data = mkdtempSync(join(tmpdir(), "galvet-crowd-"));
    const file = join(data, "all.json");
    writeFileSync(file, JSON.stringify({ ...all, hulls, sheets: {} }));
    const kept = ["--data", join(data, "data")];
    const { status } = spawnSync(BINARY, ["import", file, ...kept]);
    expect(status).toBeLessThan(2);
    const listen = ["--listen", "127.0.0.1:0"];
    const { child, address } = await start(["serve", ...kept, ...listen]);
    await use(address);
    child.kill();
    rmSync(data, { recursive: true, force: true });
  },
});

/** Keeps the page asking until it is let go on. */
async function hold(page) {
  let held = true;
  let told;
  await page.route("**/*", async (route) => {
    const again = await route.request().headerValue("prefer");
    if (!again || !held) return route.continue();
    told ??= await (await route.fetch()).text();
    return route.fulfill({ status: 202, contentType: "text/html", body: told });
  });
  return {
    letGo: () => (held = false),
    /** Once it stands still. */
    stands: () => expect.poll(() => told, { timeout: 30_000 }).toBeTruthy(),
  };
}

test("a page that takes long says how far it is, and comes by itself", async ({
  page,
  crowd,
}) => {
  const holds = await hold(page);
  const answer = await page.goto(`${crowd}/?mass=83`);
  expect(answer.status()).toBe(202);
  await expect(
    page.getByRole("heading", { name: "Working it out" }),
  ).toBeVisible();
  await expect(page.getByText("A 83 kg angler")).toBeVisible();
  const best = page.locator("#so-far li");
  await expect(best.first()).toContainText("Takes");
  const bar = page.getByRole("progressbar", { name: "Hulls looked at" });
  expect(await bar.getAttribute("max")).toBe("132");
  // What is told can be gone to meanwhile, and the focus stays there.
  await holds.stands();
  await page.waitForTimeout(500);
  await best.first().getByRole("link").focus();
  await page.waitForTimeout(1000);
  await expect(best.first().getByRole("link")).toBeFocused();
  await expectAxeClean(page);
  await page.setViewportSize({ width: 360, height: 780 });
  await expectFits(page);
  holds.letGo();
  await expect(page.locator("#answer .row").first()).toBeVisible({
    timeout: 60_000,
  });
  expect(page.url()).toBe(`${crowd}/?mass=83`);
});

test("a change of the question says the same beside the answer, and can be given up", async ({
  page,
  crowd,
}) => {
  await page.goto(crowd);
  const rows = page.locator("#answer .row h3 a");
  await expect(rows.first()).toBeVisible({ timeout: 60_000 });
  const before = await rows.allTextContents();
  const weight = "the angler's weight";
  const heavier = async () => {
    await part(page, weight).click();
    await page.getByLabel(weight, { exact: true }).fill("104");
    await page.keyboard.press("Enter");
  };
  const holds = await hold(page);
  await heavier();
  const told = page.getByRole("region", { name: "The new question, so far" });
  await expect(told.locator("li").first()).toContainText("Takes");
  // What stood there stands there, and does not move.
  expect(await rows.allTextContents()).toEqual(before);
  await expectAxeClean(page);
  await told.getByRole("button", { name: "Cancel" }).click();
  await expect(told).toBeHidden();
  await expect(part(page, weight)).toHaveText("88 kg");
  expect(await rows.allTextContents()).toEqual(before);
  // Asked for again it comes.
  holds.letGo();
  await page.keyboard.press("Escape");
  await heavier();
  await expect(part(page, weight)).toHaveText("104 kg", { timeout: 60_000 });
  expect(await rows.allTextContents()).not.toEqual(before);
});

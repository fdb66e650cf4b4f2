import { execFileSync } from "node:child_process";
import { expect, expectAxeClean, order, test } from "./server.js";
import { openMore, part, pick } from "./sentence.js";

const BINARY = process.env.GALVET_BINARY ?? "target/debug/galvet";

/** Picks an answer and waits for the answer in step. */
async function pickAndSee(page, title, label) {
  await pick(page, title, label);
  await expect(part(page, title)).toHaveText(label);
}

test("each part of the brief changes the order", async ({ page }) => {
  await page.goto("/");
  const start = await order(page);
  expect(start.length).toBeGreaterThan(4);
  const changes = [
    () => pickAndSee(page, "how the angler fishes", "sits"),
    () => pickAndSee(page, "where", "open coast"),
    () => pickAndSee(page, "what is carried", "Light and quick"),
    () => pickAndSee(page, "which seat height", "high"),
    async () => {
      await part(page, "the angler's weight").click();
      await page.getByLabel("the angler's weight", { exact: true }).fill("100");
      await page.keyboard.press("Enter");
      await expect(part(page, "the angler's weight")).toHaveText("100 kg");
    },
    () => pickAndSee(page, "where", "pond"),
    () => pickAndSee(page, "what is done with the scuppers", "plugged"),
    async () => {
      const before = page.url();
      await openMore(page);
      const weight = page.locator("[data-region=weight] > summary");
      await weight.click();
      await page.getByLabel(/How much capacity counts/).fill("0");
      await expect(weight).toHaveText("capacity 0 : stability 100");
      expect(page.url()).not.toBe(before);
      // The slider stays under the hand until it is left.
      await page.keyboard.press("Escape");
    },
    async () => {
      await page.getByText("no further limits").click();
      await page.getByLabel(/heaviest single lift/).fill("75 lb");
      await page.keyboard.press("Enter");
      await expect(page.getByText("lifted at 34 kg")).toBeVisible();
    },
  ];
  let last = start;
  for (const [number, change] of changes.entries()) {
    await change();
    const now = await order(page);
    expect(now, `change ${number} moves something`).not.toEqual(last);
    last = now;
  }
});

test("the angler's height changes the figures", async ({ page }) => {
  await page.goto("/");
  const support = page
    .locator('[data-hull="osprith-kelda-two"] [data-figure="standing_support"]')
    .first();
  const before = await support.textContent();
  await part(page, "the angler's height").click();
  await page.getByLabel("the angler's height", { exact: true }).fill("6' 7\"");
  await page.keyboard.press("Enter");
  await expect(part(page, "the angler's height")).toHaveText("2.007 m");
  await expect(support).not.toHaveText(before);
});

test("the address keeps in step and Back goes back", async ({ page }) => {
  await page.goto("/");
  const start = await order(page);
  await pickAndSee(page, "where", "open coast");
  await expect(page).toHaveURL(/water=coast/);
  const coast = await order(page);
  expect(coast).not.toEqual(start);
  await pickAndSee(page, "how the angler fishes", "sits");
  await page.goBack();
  await expect(page).toHaveURL(/posture=stands/);
  await expect.poll(() => order(page)).toEqual(coast);
  await page.goBack();
  await expect.poll(() => order(page)).toEqual(start);
  // The address alone gives the same answer.
  await page.goForward();
  await expect.poll(() => order(page)).toEqual(coast);
  await page.reload();
  expect(await order(page)).toEqual(coast);
});

test("what is not understood is said where it happened", async ({ page }) => {
  await page.goto("/");
  await part(page, "the angler's weight").click();
  const field = page.getByLabel("the angler's weight", { exact: true });
  await field.fill("twelve stone");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("29.0 kg or 64 lb");
  await expect(field).toHaveValue("twelve stone");
  await expect(field).toBeFocused();
  await expectAxeClean(page);
  await field.fill("76 kg");
  await page.keyboard.press("Enter");
  await expect(part(page, "the angler's weight")).toHaveText("76 kg");
  await expect(page.getByRole("alert")).toHaveCount(0);
});

test("typing goes on while an earlier answer arrives", async ({ page }) => {
  await page.goto("/");
  // Hold the answer back until something else has been typed.
  let release;
  const held = new Promise((resolve) => (release = resolve));
  await page.route("**/part/ranking?*", async (route) => {
    await held;
    await route.continue();
  });
  await part(page, "where").click();
  await page.getByText("open coast", { exact: true }).click();
  await part(page, "the angler's weight").click();
  const field = page.getByLabel("the angler's weight", { exact: true });
  await field.fill("71 k");
  release();
  await expect(part(page, "where")).toHaveText("open coast");
  await expect(field).toHaveValue("71 k");
  await expect(field).toBeFocused();
  await page.keyboard.type("g");
  await page.keyboard.press("Enter");
  await expect(part(page, "the angler's weight")).toHaveText("71 kg");
});

test("it works without scripts", async ({ browser, address }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto(address);
  await page.locator('summary[aria-label^="where:"]').click();
  await page.getByText("open coast", { exact: true }).click();
  await page.locator(".part[open] .apply").click();
  await expect(page).toHaveURL(/water=coast/);
  await expect(page.locator('summary[aria-label^="where:"]')).toHaveText(
    "open coast",
  );
  await page.locator("[data-hull] h3 a").first().click();
  await expect(page).toHaveURL(/\/hulls\/.*water=coast/);
  await page.getByRole("button", { name: "ft · lb" }).click();
  await expect(page).toHaveURL(/\/hulls\/.*water=coast/);
  await expect(page.locator("#afloat .facts").first()).toContainText("′");
  await context.close();
});

test("the page and the command give the same figures", async ({ page }) => {
  await page.goto("/");
  const answer = JSON.parse(
    execFileSync(
      BINARY,
      ["rank", "--json", "--brief", "demo/briefs/1-reed-edge.json"],
      { maxBuffer: 1 << 26 },
    ),
  );
  expect(await order(page)).toEqual(answer.ranked.map((r) => r.hull));
  for (const entry of answer.ranked) {
    const row = page.locator(`[data-rows] > [data-hull="${entry.hull}"]`);
    const margin = Math.round(entry.capacity.binding_margin_kg);
    await expect(row.locator('[data-figure="binding_margin_kg"]')).toHaveText(
      `${margin} kg`,
    );
    await expect(row.locator('[data-figure="standing_support"]')).toHaveText(
      entry.stability.standing_support.toFixed(2),
    );
    await expect(row.locator(".why")).toHaveText(entry.why);
  }
});

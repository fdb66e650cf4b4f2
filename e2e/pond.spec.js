/** The pond: played by keys, by touch, without motion and without a script. */
import {
  expect,
  expectAxeClean,
  expectContrast,
  expectFits,
  test,
} from "./server.js";
import { part } from "./sentence.js";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true };
const QUIET = { reducedMotion: "reduce" };
const CASTS = "/pond?hull=osprith-kelda-two&do=casts";

/** What is told beneath the picture: time, heel, room, water. */
async function now(page) {
  const text = await page.locator(".pond-now").textContent();
  // Nothing has come yet.
  if (text === "") return { time: -1, heel: 0, over: false };
  const found = text.match(/^([\d.]+) s · (?:(\d+)° to (\w+)|(level|over))/);
  expect(found, text).not.toBeNull();
  const heel = Number(found[2] ?? 0) * (found[3] === "port" ? -1 : 1);
  return { time: Number(found[1]), heel, over: found[4] === "over" };
}

/** How much of a canvas is painted in more than one colour. */
async function painted(page, selector) {
  return page.locator(selector).evaluate((canvas) => {
    const on = canvas.getContext("2d");
    const { data } = on.getImageData(0, 0, canvas.width, canvas.height);
    const seen = new Set();
    for (let i = 0; i < data.length; i += 404)
      seen.add(`${data[i]},${data[i + 1]},${data[i + 2]}`);
    return seen.size;
  });
}

test("a hull on the pond is played, and moved by keys", async ({ page }) => {
  await page.goto(CASTS);
  await expect(page.getByRole("heading", { level: 1 })).toContainText(
    "stand up and cast three times",
  );
  await expect(page.locator(".pond-lead")).toContainText("of 100 tries");
  await expect
    .poll(async () => (await now(page)).time, "it plays of its own")
    .toBeGreaterThan(0.5);
  expect(await painted(page, ".pond-water")).toBeGreaterThan(20);
  expect(await painted(page, ".pond-trace")).toBeGreaterThan(5);
  const canvas = page.locator(".pond-water");
  await canvas.focus();
  // Leaning to starboard heels it there, and letting go brings it back.
  await page.keyboard.down("ArrowRight");
  await expect
    .poll(async () => (await now(page)).heel, { timeout: 15_000 })
    .toBeGreaterThan(1);
  await page.keyboard.up("ArrowRight");
  await expect
    .poll(async () => (await now(page)).heel, { timeout: 15_000 })
    .toBeLessThan(2);
  // Space stops the clock, a full stop goes on a tenth of a second.
  await page.keyboard.press(" ");
  const { time } = await now(page);
  await page.keyboard.press(".");
  expect((await now(page)).time).toBeCloseTo(time + 0.1, 1);
  // From the start: the exercise again.
  await page.keyboard.press("r");
  await expect.poll(async () => (await now(page)).time).toBeLessThan(5);
  await expectAxeClean(page);
});

test("by touch, on a phone", async ({ browser, address }) => {
  const context = await browser.newContext({ ...PHONE, baseURL: address });
  const page = await context.newPage();
  await page.goto("/pond?hull=osprith-kelda-two&do=landing&on=seat");
  await expectFits(page);
  await expect(page.locator(".pond-water")).toBeVisible();
  await page.getByRole("button", { name: "Dog" }).tap();
  await expect(page.getByRole("button", { name: "Dog" })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await expect
    .poll(async () => Math.abs((await now(page)).heel), { timeout: 15_000 })
    .toBeGreaterThan(1);
  await page.getByRole("button", { name: "A wake" }).tap();
  await expect.poll(async () => (await now(page)).time).toBeLessThan(4);
  await context.close();
});

test("without motion it stands still, in stills and steps", async ({
  browser,
  address,
}) => {
  const context = await browser.newContext({ ...QUIET, baseURL: address });
  const page = await context.newPage();
  await page.goto(CASTS);
  await expect(page.locator(".pond-strip svg g[transform]")).not.toHaveCount(0);
  await expect(page.locator(".pond-now")).toContainText("0.0 s");
  await page.getByRole("button", { name: "A step" }).click();
  await expect(page.locator(".pond-now")).toContainText("0.1 s");
  // A move of one's own is told in words at once.
  await page.getByRole("button", { name: "Stand", exact: true }).click();
  await expect(page.locator("[data-pond-story]")).toContainText("on the feet");
  await page.goto("/hulls/osprith-kelda-two");
  await page.locator(".pond-loop").scrollIntoViewIfNeeded();
  await expect(page.locator(".pond-loop canvas")).toBeVisible();
  await context.close();
});

test("without a script the strip and the words tell it", async ({
  browser,
  address,
}) => {
  const context = await browser.newContext({
    javaScriptEnabled: false,
    baseURL: address,
  });
  const page = await context.newPage();
  await page.goto(CASTS);
  await expect(page.locator(".pond-stage")).toBeHidden();
  await expect(page.locator(".pond-strip svg")).toBeVisible();
  await page.getByLabel("hull", { exact: true }).selectOption("pellune-rusko");
  await page.getByLabel("practice").selectOption("new");
  await page.getByRole("button", { name: "Try it" }).click();
  await expect(page).toHaveURL(/hull=pellune-rusko/);
  await expect(page.getByLabel("practice")).toHaveValue("new");
  await page.getByRole("link", { name: "What would help?" }).click();
  await expect(page.locator(".pond-helps li").first()).toContainText("of 100");
  await context.close();
});

test("waves are never praised, and it is read in sun and at night", async ({
  page,
}) => {
  for (const what of ["wake", "chop"]) {
    await page.goto(`/pond?hull=osprith-kelda-two&do=${what}&on=feet`);
    await expect(page.locator(".pond-lead")).toContainText(
      "Worse than flat water",
    );
  }
  await page.goto(CASTS);
  await expectContrast(page);
  await page.emulateMedia({ colorScheme: "dark" });
  await expectContrast(page);
});

test("rows are put in order by what the pond says", async ({ page }) => {
  await page.goto("/");
  await page.getByText("Filter and order").click();
  await page
    .getByLabel("in order of")
    .selectOption({ label: "pond: tries that end upright" });
  await page.getByRole("button", { name: "Apply", exact: true }).last().click();
  await expect(page).toHaveURL(/by=upright/, { timeout: 30_000 });
  await expect(page.locator(".row").first()).toContainText(
    "pond: tries that end upright",
  );
  await page.goto("/compare?hull=osprith-kelda-two&hull=pellune-rusko");
  const main = page.locator("main");
  await expect(main).not.toContainText("pond: greatest heel");
  await page
    .getByRole("link", { name: "Try them on the pond as well" })
    .click();
  await expect(main).toContainText("pond: greatest heel", { timeout: 30_000 });
  await expect(page).toHaveURL(/pond=tried/);
  // It stays so whatever else is asked.
  await part(page, "the angler's weight").click();
  await page.getByLabel("the angler's weight", { exact: true }).fill("90");
  await page.keyboard.press("Enter");
  await expect(part(page, "the angler's weight")).toHaveText("90 kg", {
    timeout: 30_000,
  });
  await expect(page).toHaveURL(/pond=tried/);
  await expect(main).toContainText("pond: greatest heel");
});

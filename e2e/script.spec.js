/** What the page's script promises, with a slow or failing server before it. */
import { expect, expectAxeClean, order, test } from "./server.js";
import { part, pick } from "./sentence.js";

/**
 * A server that answers when it is told to: the n-th request for a part of a
 * page waits for `release(n)`.
 */
async function slowly(page) {
  const waiting = [];
  await page.route("**/part/ranking?*", async (route) => {
    let release;
    const held = new Promise((resolve) => (release = resolve));
    waiting.push({ url: route.request().url(), release });
    await held;
    // The page may have given the request up meanwhile.
    await route.continue().catch(() => {});
  });
  return {
    /** The n-th request's address, once it was made. */
    async asked(n) {
      await expect.poll(() => waiting.length).toBeGreaterThan(n);
      return waiting[n].url;
    },
    release: (n) => waiting[n].release(),
  };
}

test("a late answer never overwrites a newer one", async ({ page }) => {
  await page.goto("/");
  const server = await slowly(page);
  await pick(page, "where", "open coast");
  expect(await server.asked(0)).toContain("water=coast");
  await expect(page.locator("#answer")).toHaveAttribute("aria-busy", "true");
  await pick(page, "how the angler fishes", "sits");
  const second = await server.asked(1);
  expect(second).toContain("posture=sits");
  const settled = page.waitForResponse((r) => r.url() === second);
  server.release(1);
  await settled;
  await expect(part(page, "how the angler fishes")).toHaveText("sits");
  const newer = await order(page);
  server.release(0);
  // Whatever the first one still brings, it changes nothing.
  await page.evaluate(
    () =>
      new Promise((resolve) =>
        requestAnimationFrame(() => requestAnimationFrame(resolve)),
      ),
  );
  await expect(page.locator("#answer")).not.toHaveAttribute("aria-busy");
  expect(await order(page)).toEqual(newer);
  await expect(page).toHaveURL(/posture=sits/);
  // The address alone gives the same order.
  await page.unrouteAll({ behavior: "ignoreErrors" });
  await page.reload();
  expect(await order(page)).toEqual(newer);
});

test("a mark behind # is no other question, and Back passes it", async ({
  page,
}) => {
  await page.goto("/");
  const start = await order(page);
  await pick(page, "where", "open coast");
  await expect(page).toHaveURL(/water=coast/);
  const coast = await order(page);
  expect(coast).not.toEqual(start);
  let requests = 0;
  page.on("request", (request) => {
    if (request.url().includes("/part/")) requests += 1;
  });
  await page.getByRole("link", { name: /ruled out$/ }).click();
  await expect(page).toHaveURL(/water=coast.*#below$/);
  await page.goBack();
  await expect(page).toHaveURL(/water=coast[^#]*$/);
  expect(await order(page)).toEqual(coast);
  await page.goForward();
  await expect(page).toHaveURL(/#below$/);
  expect(requests, "the same question is not asked again").toBe(0);
  await page.goBack();
  await page.goBack();
  await expect.poll(() => order(page)).toEqual(start);
  // From a marked address into another question and back again.
  await page.goForward();
  await page.goForward();
  await expect(page).toHaveURL(/#below$/);
  await expect.poll(() => order(page)).toEqual(coast);
});

test("a request that fails says so, keeps what is shown and asks again", async ({
  browser,
  address,
}) => {
  // A page of its own: here the browser is right to complain of the network.
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto(address);
  const start = await order(page);
  let broken = "abort";
  await page.route("**/part/ranking?*", (route) => {
    if (broken === "abort") return route.abort();
    if (broken === "500") return route.fulfill({ status: 500, body: "no" });
    return route.continue();
  });
  const trouble = page.locator("#trouble");
  await pick(page, "where", "open coast");
  await expect(trouble).toBeVisible();
  await expect(trouble).toContainText("still those of the question before");
  expect(await order(page)).toEqual(start);
  expect(page.url()).not.toContain("water=coast");
  await expect(page.locator("#answer")).not.toHaveAttribute("aria-busy");
  await expectAxeClean(page);
  broken = "500";
  const again = trouble.getByRole("button", { name: "Ask again" });
  const refused = page.waitForResponse((r) => r.status() === 500);
  await again.click();
  await refused;
  await expect(trouble).toBeVisible();
  expect(await order(page)).toEqual(start);
  broken = "";
  await again.click();
  await expect(trouble).toBeHidden();
  await expect(page).toHaveURL(/water=coast/);
  expect(await order(page)).not.toEqual(start);
  await context.close();
});

test("title and live region say what has changed, in true numbers", async ({
  page,
}) => {
  await page.goto("/");
  const said = page.locator("#said");
  await expect(said).toHaveAttribute("aria-live", "polite");
  const before = await order(page);
  await pick(page, "where", "open coast");
  await expect(said).toHaveText(/in order, (\d+|none) changed place$/);
  const now = await order(page);
  const moved = now.filter(
    (hull, place) => before.includes(hull) && before[place] !== hull,
  ).length;
  expect(moved).toBeGreaterThan(0);
  await expect(said).toHaveText(
    `${now.length} in order, ${moved} changed place`,
  );
  const first = await page.locator("[data-rows] h3 a").first().textContent();
  await expect(page).toHaveTitle(`${first.trim()} first · Galvet`);
});

test("only results are swapped: the rest of the page stays the same page", async ({
  page,
}) => {
  await page.goto("/");
  await page.locator(".kept > summary").click();
  const name = page.locator("#save-name");
  await name.fill("half a na");
  await page.evaluate(() => {
    document.querySelector(".masthead").dataset.kept = "yes";
    document.querySelector("main").dataset.kept = "yes";
    document.querySelector("#answer").dataset.kept = "yes";
  });
  await pick(page, "where", "open coast");
  await expect(page).toHaveURL(/water=coast/);
  await expect(page.locator("[data-kept=yes]")).toHaveCount(3);
  // A name half typed is still there, and would keep the new question.
  await expect(name).toHaveValue("half a na");
  await expect(page.locator("form.save")).toHaveAttribute(
    "action",
    /water=coast/,
  );
  // Also while it is being typed.
  const server = await slowly(page);
  await pick(page, "where", "pond");
  await server.asked(0);
  await name.focus();
  await page.keyboard.press("End");
  await page.keyboard.type("m");
  server.release(0);
  await expect(page).toHaveURL(/water=pond/);
  await page.keyboard.type("e");
  await expect(name).toHaveValue("half a name");
  await expect(name).toBeFocused();
  // What leads elsewhere takes the new question along.
  await expect(page.getByRole("link", { name: "Methods" })).toHaveAttribute(
    "href",
    /water=pond/,
  );
});

test("a question is kept, taken up again and taken back", async ({ page }) => {
  await page.goto("/?water=pond&posture=sits");
  const pond = await order(page);
  await page.locator(".kept > summary").click();
  await page.getByLabel("save it as").fill("Sunday on the pond");
  await page.getByRole("button", { name: "Save" }).click();
  const kept = page.getByRole("link", { name: "Sunday on the pond" });
  await expect(page).toHaveURL(/brief=sunday-on-the-pond/);
  expect(await order(page)).toEqual(pond);
  await page.goto("/");
  await page.locator(".kept > summary").click();
  await kept.click();
  await expect(page).toHaveURL(/brief=sunday-on-the-pond/);
  expect(await order(page)).toEqual(pond);
  await page.goto("/");
  await page.getByRole("button", { name: /^Undo: .*Sunday/ }).click();
  await page.locator(".kept > summary").click();
  await expect(page.getByText("Standing along the reeds")).toBeVisible();
  await expect(kept).toHaveCount(0);
});

test("what may capsize is said in words beside its place", async ({ page }) => {
  await page.goto(
    "/?posture=sits&mass=80&seat=high&rig=light-and-quick&water=lake",
  );
  const row = page.locator('[data-rows] > [data-hull="tindrel-vaskar-fin"]');
  const peril = row.locator(".peril");
  await expect(peril).toContainText(/may capsize: in \d+\s% of its possible/);
  await expect(peril).toContainText("measure");
  const weight = await peril.evaluate((p) => getComputedStyle(p).color);
  const plain = await row
    .locator(".row-verdict")
    .evaluate((p) => getComputedStyle(p).color);
  expect(weight, "set apart from the plain words").not.toBe(plain);
  await row.getByRole("link").first().click();
  await expect(page.locator(".hull-says .peril")).toContainText("may capsize");
  await expectAxeClean(page);
});

test("how Galvet reckons stands on a page, with unit, range and source", async ({
  page,
}) => {
  for (const colorScheme of ["light", "dark"]) {
    await page.emulateMedia({ colorScheme });
    await page.goto("/reckons");
    await expectAxeClean(page);
  }
  expect(await page.locator("tbody tr").count()).toBeGreaterThan(30);
  const empty = page.locator("tbody td:empty");
  expect(await empty.count(), "no guide value without its words").toBe(0);
});

import { expect, expectAxeClean, expectFits, sheets, test } from "./server.js";
import { tryOut } from "./sentence.js";

test("the conversation by keys alone ends on the ranking", async ({ page }) => {
  await page.goto("/ask");
  const title = page.getByRole("heading", { level: 1 });
  await expect(title).toHaveText("Where is it fished, and launched?");
  const left = page.locator(".talk-left");
  await expect(left).toHaveText(/^\d+ of \d+ hulls are left\.$/);
  await expectAxeClean(page);
  const all = await left.textContent();
  const next = () => page.keyboard.press("Enter");
  // A figure chooses and goes on to the next question; how many are left follows.
  await page.keyboard.press("8");
  await expect(left).not.toHaveText(all ?? "");
  await page.locator(".talk-question input:checked").first().focus();
  await page.keyboard.press("2");
  await page.keyboard.press("2");
  await expect(page.getByRole("button", { name: "Next" })).toBeFocused();
  await next();
  await expect(title).toHaveText("How is it fished?");
  await expect(page.locator(".sentence-text")).toContainText("lake");
  const steps = page.getByRole("navigation", { name: "Steps" });
  await expect(steps.getByRole("link").first()).toHaveText(/✓.*answered/);
  await expect(steps.locator("[aria-current]")).toHaveText(/how you fish/);
  // Who sits is not asked how practised they stand, once it is known.
  await expect(page.getByRole("group", { name: /practi/ })).toHaveCount(1);
  await page.keyboard.press("3");
  await page.getByRole("button", { name: "Next" }).focus();
  await next();
  await expect(title).toHaveText("Who sits in it?");
  await page.getByRole("link", { name: "← back" }).press("Enter");
  await expect(page.getByRole("group", { name: /practi/ })).toHaveCount(0);
  await page.goto(page.url().replace(/step=\w+/, "step=angler"));
  await page.locator("#talk-mass").fill("92 kg");
  await page.locator("#talk-with").fill("dog 18 kg");
  await next();
  await expect(title).toHaveText("What is carried, and what drives it?");
  await expect(page.locator(".sentence-text")).toContainText("92 kg");
  await expect(page.locator(".sentence-text")).toContainText("a dog of 18");
  await page.getByRole("button", { name: "Next" }).focus();
  await next();
  // A small car is an answer.
  await expect(title).toHaveText("How does it get to the water?");
  await page.getByRole("link", { name: /^a small car/ }).press("Enter");
  await expect(page.locator("#talk-roof")).toHaveValue("50 kg");
  await page.locator("#talk-longest").fill("4.2 m");
  await next();
  await expect(title).toHaveText("What may it cost?");
  await expect(page.locator(".sentence-text")).toContainText(
    "on a roof for 50 kg",
  );
  await page.locator("#talk-budget").focus();
  await next();
  await expect(title).toHaveText("What else matters?");
  await page.locator("#talk-distance").fill("12 km");
  await next();
  await expect(page).toHaveURL(/\/\?.*distance=12/);
  await expect(page.locator("#board-title")).toBeVisible();
  await expect(page.locator(".sentence-text")).toContainText(
    "a day's way 12 km",
  );
});

test("map and rows are linked by pointer and by keys", async ({ page }) => {
  await page.goto("/");
  await page.locator("details[data-map] > summary").click();
  const first = page.locator("[data-mark]").first();
  const key = await first.getAttribute("data-mark");
  await first.focus();
  const row = page.locator(`li[data-hull="${key}"]`);
  await expect(row).toHaveClass(/linked/);
  await page.keyboard.press("ArrowRight");
  await expect(row).not.toHaveClass(/linked/);
  const second = page.locator("[data-mark]").nth(1);
  await expect(second).toBeFocused();
  const other = await second.getAttribute("data-mark");
  await page.locator(`li[data-hull="${key}"] h3 a`).hover();
  await expect(first).toHaveClass(/linked/);
  expect(other).not.toBe(key);
  await expectAxeClean(page);
  // It stays open over another question, and so does what is open of a row.
  const more = row.locator(".row-more");
  await more.locator("summary").click();
  await expect(more.getByText("minutes to set up")).toBeVisible();
  await tryOut(page, "5 kg heavier");
  await expect(page).toHaveURL(/mass=93/);
  await expect(more.getByText("minutes to set up")).toBeVisible();
  await expectAxeClean(page);
  await expect(page.locator("details[data-map]")).toHaveAttribute("open", "");
});

test("what if: the address of a change gives the same page elsewhere, and goes back", async ({
  page,
  browser,
  address,
}) => {
  await page.goto("/");
  const places = () => page.locator(".rows h3").allTextContents();
  const before = await places();
  await tryOut(page, "5 kg heavier");
  await expect(page).toHaveURL(/mass=93/);
  await tryOut(page, "seat high");
  await expect(page).toHaveURL(/seat=high/);
  await expect(page.locator(".moved")).toBeVisible();
  const moved = await page.locator(".moved").textContent();
  const after = await places();
  const context = await browser.newContext({ javaScriptEnabled: false });
  const elsewhere = await context.newPage();
  await elsewhere.goto(address + new URL(page.url()).search.replace(/^/, "/"));
  expect(await elsewhere.locator(".rows h3").allTextContents()).toEqual(after);
  expect(await elsewhere.locator(".moved").textContent()).toBe(moved);
  // Without the script the buttons are the form's own.
  await tryOut(elsewhere, "5 kg lighter");
  await expect(elsewhere.locator(".sentence-text")).toContainText("88 kg");
  await context.close();
  await page.getByRole("link", { name: /Back to (it|the question)/ }).click();
  await expect.poll(places).toEqual(before);
});

test("three hulls side by side: over each other, what each costs, on two pages of paper", async ({
  page,
}) => {
  const hulls = ["fennick-dunmarrow", "tindrel-vaskar", "osprith-kelda"];
  const query = hulls.map((h) => `hull=${h}`).join("&");
  await page.goto(`/compare?posture=sits&${query}`);
  await expect(page.locator(".overlay .over > path")).toHaveCount(6);
  await expect(page.locator(".cost").first()).toContainText("instead of");
  await expect(page.locator(".beside-mark").first()).toHaveText(/^best by /);
  await expectAxeClean(page);
  expect(await sheets(page, { landscape: true })).toBeLessThanOrEqual(2);
});

test("the board prints dense, with its map", async ({ page }) => {
  await page.goto("/");
  await expect(page.locator(".map-plot")).toBeHidden();
  await page.emulateMedia({ media: "print" });
  // Looked at on paper without having been opened.
  await expect(page.locator(".map-plot")).toBeVisible();
  await expect(page.locator(".what-if")).toBeHidden();
  expect(await sheets(page)).toBeLessThanOrEqual(2);
});

test("a hull is printed with all it was told, on three sheets at most", async ({
  page,
}) => {
  // One that is ranked, one ruled out with doubts, one measured afloat.
  for (const key of ["fennick-dunmarrow", "hobrin-cassel", "velmoor-oskarin"]) {
    await page.goto(`/hulls/${key}`);
    expect(await sheets(page), key).toBeLessThanOrEqual(3);
    await page.emulateMedia({ media: "print" });
    await expect(page.locator(".hull-minds")).toBeVisible();
    await expect(page.locator(".caution").first()).toBeVisible();
    await expect(page.locator(".figures-fold td").first()).toBeVisible();
    await expect(page.locator(".next-put input:visible")).toHaveCount(0);
    await expect(page.locator(".hull-nav, .in-page").first()).toBeHidden();
    await page.emulateMedia({ media: null });
  }
});

test("what would change the winner is told, and asked so", async ({ page }) => {
  test.slow();
  await page.goto("/");
  const first = await page.locator(".rows h3").first().textContent();
  await page
    .getByRole("link", { name: "What would change the winner?" })
    .click();
  const found = page.locator("#found[aria-busy=false]");
  await expect(found).toContainText("was found by ranking", {
    timeout: 60_000,
  });
  await expect(found.locator("li")).not.toHaveCount(0);
  await expectAxeClean(page);
  const line = page.getByRole("link", { name: "Ask it so" }).first();
  if (await line.count()) {
    await line.click();
    await expect(page.locator(".rows h3").first()).not.toHaveText(first);
  } else await expect(page.locator(".nothing")).toBeVisible();
});

test("conversation, comparison and flips are clean in bright sun, and fit a phone", async ({
  page,
}) => {
  await page.goto("/ask");
  await page.getByRole("button", { name: "Sunlight" }).click();
  await page.setViewportSize({ width: 360, height: 740 });
  const compare = "/compare?hull=fennick-dunmarrow&hull=tindrel-vaskar";
  const paths = [
    "/ask",
    "/ask?step=travel",
    "/ask?step=more",
    "/flip",
    compare,
    "/",
    "/?rows=close&by=speed&only-length=4+m",
    "/questions",
    "/summary",
    "/hulls/fennick-dunmarrow/trials",
    "/tour",
  ];
  for (const path of paths) {
    await page.goto(path);
    await expectAxeClean(page);
    await expectFits(page);
  }
});

import { expect, expectAxeClean, expectFits, order, test } from "./server.js";

test("everything is reached by keyboard", async ({ page }) => {
  await page.goto("/");
  await page.keyboard.press("Tab");
  await expect(page.locator(".skip")).toBeFocused();
  const reached = new Set();
  for (let i = 0; i < 400; i += 1) {
    await page.keyboard.press("Tab");
    const here = await page.evaluate(() => {
      const e = document.activeElement;
      if (!e || e === document.body) return null;
      const box = e.getBoundingClientRect();
      const ring = getComputedStyle(e).outlineStyle;
      return {
        name: e.getAttribute("aria-label") ?? e.textContent.trim(),
        seen: box.width > 0 && box.height > 0 && ring !== "none",
      };
    });
    if (!here) break;
    expect(here.seen, `${here.name} shows its focus`).toBe(true);
    reached.add(here.name);
  }
  const all = [...reached].join("\n");
  for (const name of [
    "m · kg",
    "the angler's weight",
    "where:",
    "no further limits",
    "Osprith Kelda Two",
    "Hobrin Wendle",
  ])
    expect(all).toContain(name);
});

test("a part is changed by keys alone", async ({ page }) => {
  await page.goto("/");
  const posture = page.locator('summary[aria-label^="how the angler fishes"]');
  await posture.focus();
  await page.keyboard.press("Enter");
  await expect(page.locator(".part[open] input:checked")).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  // Nothing is asked while the arrows walk.
  await expect(posture).toHaveText("stands");
  await page.keyboard.press("Enter");
  await expect(posture).toHaveText("sits");
  await expect(posture).toBeFocused();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.locator(".part[open]")).toHaveCount(0);
  await expect(posture).toBeFocused();
});

test("arrows walk from hull to hull", async ({ page }) => {
  await page.goto("/");
  const keys = await order(page);
  const name = (key) => page.locator(`[data-hull="${key}"] h3 a`);
  await name(keys[0]).focus();
  await page.keyboard.press("ArrowDown");
  await expect(name(keys[1])).toBeFocused();
  await page.keyboard.press("Home");
  await expect(name(keys[0])).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(new RegExp(`/hulls/${keys[0]}`));
});

test("a hull page shows record, drawings and figures", async ({ page }) => {
  await page.goto("/hulls/hobrin-cassel");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "Hobrin Cassel",
  );
  const checks = page.locator(".hull-check");
  await expect(checks).toContainText("3.66");
  await expect(checks).toContainText("above the fitted");
  // Each leads to the very field.
  const beam = checks.locator("li", { hasText: "beam reads" });
  await beam.getByRole("link", { name: "Put it right" }).click();
  await expect(page.locator("#beam-value")).toBeInViewport();
  await page.goBack();
  await expect(page.getByRole("img", { name: /^Profile/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Section/ })).toHaveCount(2);
  await expect(
    page.locator('[data-figure="lean_room_cm"] .figure-value'),
  ).toHaveText(/^\d+\.\d\scm$/);
  const record = page.locator(".record tr", { hasText: "length" }).first();
  await expect(record).toContainText("3.58 m");
  await expect(record).toContainText("not used: 3.66 m by brochure");
  // The brief can be changed here too, and the way back keeps it.
  await page.locator('summary[aria-label^="where:"]').click();
  await page.getByText("open coast", { exact: true }).click();
  await expect(page).toHaveURL(/hobrin-cassel\?.*water=coast/);
  await page
    .getByRole("link", { name: /its place|that pass|ruled out/ })
    .click();
  await expect(page).toHaveURL(/\/\?.*water=coast/);
});

test("a hull page says what it costs to go and what to measure", async ({
  page,
}) => {
  await page.goto("/hulls/drumlee-orvane?rig=night-zander&water=lake");
  await expect(page.locator(".going svg")).toHaveAccessibleName(
    /^Effort against speed/,
  );
  await expect(
    page.locator(".going tr", { hasText: "cruise" }).first(),
  ).toContainText(/\d\.\d\skm\/h/);
  await expect(
    page.locator(".going tr", { hasText: "range on the battery" }),
  ).toContainText("km");
  await expect(page.locator(".measure-next")).toContainText("% off the doubt");
  await expect(page.locator(".afloat")).toContainText("with 112 kg aboard");
  // Every figure explains itself in place.
  for (const fold of await page.locator(".figures-fold > summary").all())
    await fold.click();
  const lean = page.locator('[data-figure="lean_room_cm"]');
  await lean.locator("summary").click();
  await expect(lean.locator("p").first()).toBeVisible();
  // Plugged, it tells where water runs in and whether it can be bailed.
  await page.goto("/hulls/drumlee-orvane?scuppers=plugged&water=lake");
  await expect(page.locator('[data-figure="down_flooding_deg"]')).toContainText(
    "°",
  );
  await expect(
    page.locator('[data-figure="swamped_freeboard_m"]'),
  ).toContainText("mm");
});

test("the ranking says what to measure next and how firm it is", async ({
  page,
}) => {
  await page.goto("/");
  await expect(page.locator(".next")).toContainText(/it would settle place \d/);
  const words = await page.locator(".firmness > span").allTextContents();
  for (const word of words)
    expect(["firm", "likely", "too close to call"]).toContain(word);
  await expect(page.locator(".row-figures .range").first()).toContainText("to");
});

test("another school gives another order", async ({ page }) => {
  await page.goto("/");
  const physics = await order(page);
  await page.goto("/?stability=tape-measure&capacity=label");
  await expect(page.locator(".sentence")).toContainText("the tape measure");
  expect(await order(page)).not.toEqual(physics);
});

test("a hull that cannot be floated says what to measure", async ({ page }) => {
  await page.goto("/hulls/hobrin-wendle");
  await expect(page.locator("main")).toContainText("The beam is not known");
});

test("units are switched anywhere and remembered", async ({ page }) => {
  await page.goto("/?water=coast");
  await page.getByRole("button", { name: "ft · lb" }).click();
  await expect(page).toHaveURL(/water=coast/);
  await expect(page.locator(".row .facts").first()).toContainText("′");
  await page.goto("/");
  await expect(
    page.locator('summary[aria-label^="the angler\'s weight"]'),
  ).toHaveText("194 lb");
  await expect(page.locator(".why").first()).toContainText("lb in hand");
});

const READ = {
  light: [
    "/",
    "/?posture=sits&water=coast",
    "/?mass=220&posture=stands&stature=2.2&rig=night-zander",
    "/hulls/fennick-dunmarrow",
    "/hulls/hobrin-cassel",
    "/hulls/hobrin-wendle",
  ],
  dark: ["/", "/hulls/velmoor-oskarin?water=coast"],
};
for (const [scheme, paths] of Object.entries(READ)) {
  for (const path of paths) {
    test(`no accessibility violation, ${scheme}, ${path}`, async ({ page }) => {
      await page.emulateMedia({ colorScheme: scheme });
      await page.goto(path);
      await expectAxeClean(page);
    });
  }
  test(`no accessibility violation, ${scheme}, a part open`, async ({
    page,
  }) => {
    await page.emulateMedia({ colorScheme: scheme });
    await page.goto("/");
    await page.locator('summary[aria-label^="where:"]').click();
    await expectAxeClean(page);
  });
}

test("an unknown address is a page of ours", async ({ browser, address }) => {
  const context = await browser.newContext({ baseURL: address });
  const page = await context.newPage();
  const response = await page.goto("/hulls/none-such");
  expect(response.status()).toBe(404);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "There is nothing at this address",
  );
  await expectAxeClean(page);
  await context.close();
});

test("nothing runs off a narrow screen", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  for (const path of ["/", "/hulls/hobrin-cassel"]) {
    await page.goto(path);
    await expectFits(page);
  }
  await page.goto("/");
  // One line and "change": the sentence opens under it.
  await page.getByText("change", { exact: true }).click();
  await page
    .locator(
      'summary[aria-label^="no further"], summary:has-text("no further limits")',
    )
    .first()
    .click();
  const box = await page.locator(".part[open] .part-body").boundingBox();
  expect(box.x).toBeGreaterThanOrEqual(0);
  expect(box.x + box.width).toBeLessThanOrEqual(360);
});

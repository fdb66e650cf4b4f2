import { expect, test } from "./server.js";

/** What a hurried angler has: the first screen of a desk and of a phone. */
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** Words that can be read without scrolling. */
async function wordsOnScreen(page) {
  return page.evaluate(() => {
    const walker = document.createTreeWalker(
      document.querySelector("main"),
      NodeFilter.SHOW_TEXT,
    );
    let count = 0;
    while (walker.nextNode()) {
      const text = walker.currentNode;
      const at = text.parentElement;
      const tokens = text.textContent.split(/\s+/);
      const words = tokens.filter((token) => /[\p{L}\d]/u.test(token));
      if (!words.length || at.closest("svg, .visually-hidden")) continue;
      if (!at.checkVisibility({ contentVisibilityAuto: true })) continue;
      const range = document.createRange();
      range.selectNodeContents(text);
      const box = range.getBoundingClientRect();
      if (box.height > 0 && box.top < window.innerHeight && box.bottom > 0)
        count += words.length;
    }
    return count;
  });
}

/** Where something begins and ends on the screen. */
async function box(page, selector) {
  const found = await page.locator(selector).first().boundingBox();
  expect(found, selector).not.toBeNull();
  return { top: found.y, bottom: found.y + found.height };
}

test("the ranking answers on the first screen of a desk", async ({ page }) => {
  await page.setViewportSize(DESK);
  await page.goto("/");
  expect((await box(page, ".starts")).bottom, "head").toBeLessThanOrEqual(120);
  expect((await box(page, ".row")).top, "first hull").toBeLessThanOrEqual(200);
  const bottoms = await page
    .locator(".row")
    .evaluateAll((rows) => rows.map((r) => r.getBoundingClientRect().bottom));
  expect(bottoms.filter((b) => b <= 800).length).toBeGreaterThanOrEqual(5);
  expect(await wordsOnScreen(page), "words").toBeLessThanOrEqual(220);
  // By keys: past the head at once.
  for (const key of ["Tab", "Enter", "Tab"]) await page.keyboard.press(key);
  await expect(page.locator(".row h3 a").first()).toBeFocused();
});

test("the ranking answers on the first screen of a phone", async ({ page }) => {
  await page.setViewportSize(PHONE);
  await page.goto("/");
  expect((await box(page, ".starts")).bottom, "head").toBeLessThanOrEqual(130);
  const places = await box(page, ".places");
  expect(places.bottom, "places at the thumb").toBeGreaterThan(840);
  const rows = page.locator(".row");
  const heights = await rows.evaluateAll((all) =>
    all.map((r) => r.getBoundingClientRect().height),
  );
  expect(Math.max(...heights), "highest row").toBeLessThanOrEqual(180);
  const [first, second] = await rows.evaluateAll((all) =>
    all.map((r) => r.getBoundingClientRect()),
  );
  expect(first.bottom, "the first hull whole").toBeLessThan(places.top);
  expect(second.top + 40, "the head of the second").toBeLessThan(places.top);
  // Places are as large as a thumb.
  for (const link of await page.locator(".places a:visible").all()) {
    const { height } = await link.boundingBox();
    expect(height).toBeGreaterThanOrEqual(44);
  }
});

test("a hull answers on the first screen", async ({ page }) => {
  await page.setViewportSize(DESK);
  await page.goto("/hulls/fennick-dunmarrow-long");
  for (const part of ["h1", ".hull-says .gauge", ".meter", ".hull-says .next"])
    expect((await box(page, part)).bottom, part).toBeLessThanOrEqual(800);
  const picture = await box(page, ".hull-picture .profile");
  expect(picture.bottom - picture.top).toBeLessThanOrEqual(0.45 * 800 + 1);
  expect((await box(page, ".hull-picture .plan")).bottom).toBeLessThan(800);
  expect(await wordsOnScreen(page), "words").toBeLessThanOrEqual(160);
  await page.setViewportSize(PHONE);
  const says = await box(page, ".hull-says > p.text-lg");
  expect(says.bottom, "verdict").toBeLessThan(600);
});

test("a comparison answers on the first screen", async ({ page }) => {
  await page.setViewportSize(DESK);
  const two = "hull=fennick-dunmarrow&hull=osprith-kelda-two";
  await page.goto(`/compare?${two}`);
  expect((await box(page, ".cost")).bottom).toBeLessThanOrEqual(500);
  expect(await wordsOnScreen(page), "words").toBeLessThanOrEqual(260);
});

test("a layout keeps margin, steadiness and trim in view", async ({ page }) => {
  await page.setViewportSize(DESK);
  await page.goto("/hulls/fennick-dunmarrow-long/stow");
  const figures = page.locator(".board-figures");
  await expect(figures).toContainText("margin");
  await expect(figures).toContainText("standing support");
  expect((await box(page, ".stow-plan")).top).toBeLessThan(320);
  await page.mouse.wheel(0, 900);
  await expect
    .poll(async () => (await box(page, ".board-figures")).top)
    .toBeLessThan(10);
});

test("on a phone the whole boat is on the first screen, above the places to go", async ({
  page,
}) => {
  await page.setViewportSize(PHONE);
  await page.goto("/hulls/osprith-kelda-two");
  const boat = await page.locator(".hull-picture .profile").boundingBox();
  const places = await page.locator("nav.places").boundingBox();
  expect(boat.y + boat.height).toBeLessThanOrEqual(places.y);
  expect(boat.height).toBeLessThanOrEqual(0.45 * PHONE.height);
});

test("a wide screen has the hull, its picture and what to check side by side", async ({
  page,
}) => {
  await page.setViewportSize({ width: 1920, height: 1080 });
  await page.goto("/hulls/hobrin-cassel");
  const [says, picture, checks] = await Promise.all(
    [".hull-says", ".hull-picture", ".hull-check"].map((part) =>
      page.locator(part).boundingBox(),
    ),
  );
  expect(picture.x).toBeGreaterThanOrEqual(says.x + says.width);
  expect(checks.x).toBeGreaterThanOrEqual(picture.x + picture.width);
  expect(checks.y).toBeLessThan(300);
});

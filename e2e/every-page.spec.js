/**
 * What holds for every page, whoever adds one: the pages are found by following the
 * links of the demo, one address for each kind of page.
 */
import {
  expect,
  expectAxeClean,
  expectContrast,
  expectFits,
  test,
} from "./server.js";

/** What stands in an address for one record among many. */
const KEYS = /\/(hulls|kit|rigs|waters|questions)\/[^/?#]+/;

/** Pages of one kind have one of these in common. */
function kindOf(path) {
  return path.replace(KEYS, "/$1/*").replace(/\/figures\/.*/, "/figures/*");
}

/** Where the links of a page lead, in the order they stand. */
async function links(page) {
  return page
    .locator("main a[href^='/'], nav a[href^='/']")
    .evaluateAll((all) =>
      all
        .filter((link) => !link.hasAttribute("download"))
        .map((link) => new URL(link.getAttribute("href"), location.href))
        .map(({ pathname, search }) => ({ pathname, search })),
    );
}

/** One address of every kind of page that links lead to. */
async function everyPage(page) {
  const found = new Map([["/", "/"]]);
  const files = [];
  for (const [, address] of found) {
    const answer = await page.goto(address);
    expect(answer.status(), address).toBe(200);
    if (!answer.headers()["content-type"].startsWith("text/html")) {
      files.push(address);
      continue;
    }
    for (const { pathname, search } of await links(page)) {
      // Files are told by their ending, most of them.
      if (/\.[a-z]+$/.test(pathname)) continue;
      const kind = kindOf(pathname);
      if (!found.has(kind)) found.set(kind, pathname + search);
    }
  }
  return [...found.values()].filter((address) => !files.includes(address));
}

let pages;
test.beforeAll(async ({ browser, address }) => {
  const page = await browser.newPage({ baseURL: address });
  pages = await everyPage(page);
  await page.close();
});

test("the links lead to the pages there are", () => {
  expect(pages.length).toBeGreaterThan(25);
});

test("every page is accessible", async ({ page }) => {
  test.slow();
  for (const path of pages) {
    await test.step(path, async () => {
      await page.goto(path);
      await expectAxeClean(page);
    });
  }
});

for (const look of ["dark", "sunlight"]) {
  test(`every page has contrast enough in the ${look} look`, async ({
    page,
  }) => {
    test.slow();
    if (look === "sunlight") {
      await page.goto("/ask");
      await page.getByRole("button", { name: "Sunlight" }).click();
    } else await page.emulateMedia({ colorScheme: look });
    for (const path of pages) {
      await test.step(path, async () => {
        await page.goto(path);
        await expectContrast(page);
      });
    }
  });
}

test("every page fits its screen, and 1280 px enlarged to 200 %", async ({
  page,
}) => {
  for (const [width, height] of [
    [360, 740],
    [640, 400],
    [768, 1024],
    [2560, 1440],
  ]) {
    await page.setViewportSize({ width, height });
    for (const path of pages) {
      await page.goto(path);
      await expectFits(page, `${path} at ${width} px`);
    }
  }
});

test("nothing moves by itself where that is not wanted", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "reduce" });
  for (const path of pages) {
    await page.goto(path);
    const moving = await page.evaluate(() =>
      document.getAnimations().map((a) => a.effect?.target?.className ?? ""),
    );
    expect(moving, path).toEqual([]);
    const smooth = await page.evaluate(() =>
      [...document.querySelectorAll("*")]
        .map((e) => [e, getComputedStyle(e)])
        .filter(
          ([, style]) =>
            parseFloat(style.transitionDuration) > 0.01 ||
            style.scrollBehavior === "smooth",
        )
        .map(([e]) => e.outerHTML.slice(0, 80)),
    );
    expect(smooth, path).toEqual([]);
  }
});

test("no frame stands on a page with nothing in it", async ({ page }) => {
  for (const path of pages) {
    await page.goto(path);
    const empty = await page.evaluate(() => {
      // Cells of a table to be filled by pen are empty on purpose.
      const shows =
        "svg, img, input, select, textarea, button, canvas, hr, td, th";
      const drawn = ({ borderTopWidth, borderTopStyle, borderLeftWidth }) =>
        borderTopStyle !== "none" &&
        (parseFloat(borderTopWidth) > 0 || parseFloat(borderLeftWidth) > 0);
      return [...document.querySelectorAll("main *:not(svg *)")]
        .filter((e) => e instanceof HTMLElement && !e.matches(shows))
        .filter((e) => !e.closest("[aria-hidden]"))
        .filter((e) => e.checkVisibility() && drawn(getComputedStyle(e)))
        .filter((e) => !e.textContent.trim() && !e.querySelector(shows))
        .map((e) => e.outerHTML.slice(0, 120));
    });
    expect(empty, path).toEqual([]);
  }
});

test("no text is smaller than 14 px", async ({ page }) => {
  for (const path of pages) {
    await page.goto(path);
    const small = await page.evaluate(() => {
      const says = (e) =>
        [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim());
      return [...document.querySelectorAll("body *:not(svg *)")]
        .filter((e) => says(e) && e.checkVisibility())
        .filter((e) => parseFloat(getComputedStyle(e).fontSize) < 13.99)
        .map((e) => e.outerHTML.slice(0, 120));
    });
    expect(small, path).toEqual([]);
  }
});

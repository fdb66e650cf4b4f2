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
const KEYS =
  /\/(hulls|kit|rigs|waters|questions|events|places|customers|stock|log\/outings)\/[^/?#]+/;

/** Pages of one kind have one of these in common. */
function kindOf(path) {
  return path
    .replace(KEYS, "/$1/*")
    .replace(/\/figures\/.*/, "/figures/*")
    .replace(/\/papers\/.+/, "/papers/*");
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

/** What leads elsewhere, comes back or is handed out with another question than this weight. */
function lost(kg) {
  const asks = (address) =>
    new URL(address, location.href).searchParams.get("mass") === `${kg} kg` ||
    /[?&]brief=/.test(address);
  const isFile = (address) =>
    !/[?&]as=file/.test(address) && /\.[a-z]+(\?|$)/.test(address);
  const found = [];
  for (const link of document.querySelectorAll("a[href^='/']")) {
    const href = link.getAttribute("href");
    if (isFile(href) || link.hasAttribute("data-anew")) continue;
    const kept = new URL(href, location.href).searchParams.get("keep");
    if (!asks(href) || (kept !== null && !asks(kept))) found.push(href);
  }
  // What is typed along with the question takes it as it is sent.
  const sends = "form[method=post]:not([data-along])";
  for (const form of document.querySelectorAll(sends)) {
    const field = (name) => form.querySelector(`[name=${name}]`)?.value;
    const action = form.getAttribute("action");
    // A page handed out is the one that stands here.
    const means = field("page") ?? (asks(action) ? action : field("back"));
    if (!asks(means ?? "")) found.push(`${action}: ${means}`);
  }
  return found;
}

test("what stands around an answer follows the question as it is now", async ({
  page,
}) => {
  test.slow();
  let asked = 0;
  for (const path of pages) {
    await page.goto(path);
    const weight = page
      .locator("form[data-brief] [name=mass], form[data-live] [name=mass]")
      .first();
    if ((await weight.count()) === 0) continue;
    if ((await weight.getAttribute("type")) === "hidden") continue;
    await test.step(path, async () => {
      await weight.evaluate((field) => {
        field.value = "70 kg";
        field.dispatchEvent(new Event("input", { bubbles: true }));
        field.form.requestSubmit();
      });
      await expect.poll(() => page.url(), path).toContain("mass=70");
      await expect.poll(() => page.evaluate(lost, 70), path).toEqual([]);
      asked += 1;
    });
  }
  expect(asked).toBeGreaterThan(10);
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

test("every page has contrast enough in the dark and the sunlight look", async ({
  page,
}) => {
  test.slow();
  // What a reader who chose it is sent, else the same page.
  await page.goto("/ask");
  await page.getByRole("button", { name: "Sunlight" }).click();
  const looks = page.locator("html[data-look='sunlight']");
  await expect(looks).toHaveCount(1);
  for (const path of pages) {
    await test.step(path, async () => {
      await page.goto(path);
      await expect(looks).toHaveCount(1);
      await expectContrast(page, { thinned: true });
      await page.emulateMedia({ colorScheme: "dark" });
      await looks.evaluate((root) => root.removeAttribute("data-look"));
      await expectContrast(page, { thinned: true });
      await page.emulateMedia({ colorScheme: "light" });
    });
  }
});

test("every page fits its screen, and 1280 px enlarged to 200 %", async ({
  page,
}) => {
  test.slow();
  for (const path of pages) {
    // A page come to on a phone and on an enlarged screen, and one made wider.
    for (const sizes of [
      [[360, 740]],
      [
        [640, 400],
        [768, 1024],
        [2560, 1440],
      ],
    ]) {
      for (const [n, [width, height]] of sizes.entries()) {
        await page.setViewportSize({ width, height });
        if (n === 0) await page.goto(path);
        await expectFits(page, `${path} at ${width} px`);
      }
    }
  }
});

test("every page moves, frames and tells as it should", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "reduce" });
  for (const path of pages) {
    await page.goto(path);
    const wrong = await page.evaluate(() => {
      const told = (all) => [...all].map((e) => e.outerHTML.slice(0, 120));
      // Nothing moves by itself where that is not wanted.
      const moving = document
        .getAnimations()
        .map((a) => a.effect?.target?.className ?? "");
      const smooth = [...document.querySelectorAll("*")]
        .map((e) => [e, getComputedStyle(e)])
        .filter(
          ([, style]) =>
            parseFloat(style.transitionDuration) > 0.01 ||
            style.scrollBehavior === "smooth",
        )
        .map(([e]) => e);
      // No frame stands on a page with nothing in it; cells of a table to be filled by
      // pen are empty on purpose.
      const shows =
        "svg, img, input, select, textarea, button, canvas, hr, td, th";
      const drawn = ({ borderTopWidth, borderTopStyle, borderLeftWidth }) =>
        borderTopStyle !== "none" &&
        (parseFloat(borderTopWidth) > 0 || parseFloat(borderLeftWidth) > 0);
      const empty = [...document.querySelectorAll("main *:not(svg *)")]
        .filter((e) => e instanceof HTMLElement && !e.matches(shows))
        .filter((e) => !e.closest("[aria-hidden]"))
        .filter((e) => e.checkVisibility() && drawn(getComputedStyle(e)))
        .filter((e) => !e.textContent.trim() && !e.querySelector(shows));
      const says = (e) =>
        [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim());
      const small = [...document.querySelectorAll("body *:not(svg *)")]
        .filter((e) => says(e) && e.checkVisibility())
        .filter((e) => parseFloat(getComputedStyle(e).fontSize) < 13.99);
      return {
        moving,
        smooth: told(smooth),
        empty: told(empty),
        small: told(small),
      };
    });
    expect(wrong, path).toEqual({
      moving: [],
      smooth: [],
      empty: [],
      small: [],
    });
  }
});

test("whatever a pointer can use, keys reach on every page", async ({
  page,
}) => {
  test.slow();
  for (const path of pages) {
    await page.goto(path);
    const count = await page.evaluate(() => {
      const usable =
        "a[href], button, input, select, textarea, summary, [tabindex='0']";
      const all = [...document.querySelectorAll(usable)]
        .filter((e) => e.checkVisibility({ visibilityProperty: true }))
        .filter((e) => !e.disabled && e.tabIndex >= 0);
      // Of radios that belong together one is reached, and arrows go on from it; of
      // what is one list to walk through, likewise.
      window.usable = new Set(all.filter((e) => e.type !== "radio"));
      const hands = [...document.querySelectorAll("body *")].filter(
        (e) =>
          e.checkVisibility() &&
          /pointer|grab|move|resize/.test(getComputedStyle(e).cursor) &&
          !e.closest(`${usable}, label, [tabindex='-1']`),
      );
      window.hands = hands.map((e) => e.outerHTML.slice(0, 100));
      // What has the focus shows it: by a ring, or, in a drawing, by its own lines.
      const drawn = (e) =>
        [e, ...e.querySelectorAll("*")]
          .map((x) => getComputedStyle(x))
          .map((x) => `${x.stroke} ${x.strokeWidth} ${x.fill} ${x.filter}`)
          .join();
      const before = new Map(
        all.filter((e) => e instanceof SVGElement).map((e) => [e, drawn(e)]),
      );
      document.addEventListener("focusin", ({ target }) => {
        window.usable.delete(target);
        const ring = getComputedStyle(target);
        const ringed =
          ring.outlineStyle !== "none" || ring.boxShadow !== "none";
        if (!ringed && drawn(target) === (before.get(target) ?? drawn(target)))
          window.hands.push(target.outerHTML.slice(0, 100));
      });
      return all.length;
    });
    for (let i = 0; i < count + 3; i += 1) await page.keyboard.press("Tab");
    const left = await page.evaluate(() => ({
      unreached: [...window.usable].map((e) => e.outerHTML.slice(0, 100)),
      hands: window.hands,
    }));
    expect(left, path).toEqual({ unreached: [], hands: [] });
  }
});

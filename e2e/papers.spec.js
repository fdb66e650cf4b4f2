/** Papers: ticked at the water's edge without a connection, printed, saved, handed out. */
import { expect, expectAxeClean, expectFits, sheets, test } from "./server.js";

const HULL = "/hulls/fennick-dunmarrow";
const ASKED = "water=coast&rig=sound-trolling&units=metric";

test("a launch list is ticked with the connection gone, and sent when it is back", async ({
  browser,
  ownDemo,
}) => {
  // A browser notes on its console what it could not send: a page that is not listened to.
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
  });
  const page = await context.newPage();
  await page.goto(`${ownDemo}${HULL}/papers/launch?${ASKED}`);
  await expectFits(page);
  const line = (id) => page.locator(`[data-line="${id}"]`);
  const told = page.locator("[data-tick-state]");
  const tick = (id) => line(id).getByRole("button").click();
  // A gloved thumb hits it.
  const box = await line("drain-shut").getByRole("button").boundingBox();
  expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44);
  await tick("drain-shut");
  await expect(line("drain-shut")).toHaveAttribute("data-state", "done");
  await expect(told).toContainText("Saved.");
  await expect(told).toContainText("never to be skipped still open");
  await context.setOffline(true);
  await tick("aid-on");
  await tick("radio-on");
  await tick("radio-on");
  await expect(line("aid-on")).toHaveAttribute("data-state", "done");
  await expect(line("radio-on")).toHaveAttribute("data-state", "open");
  await expect(told).toContainText("No connection: kept on this phone");
  await context.setOffline(false);
  await expect(told).toContainText("Saved.");
  // Another phone sees what the server has.
  const other = await browser.newPage();
  await other.goto(`${ownDemo}${HULL}/papers/launch?${ASKED}`);
  await expect(other.locator('[data-line="aid-on"]')).toHaveAttribute(
    "data-state",
    "done",
  );
  await expect(other.locator('[data-line="radio-on"]')).toHaveAttribute(
    "data-state",
    "open",
  );
  await other.getByRole("button", { name: /Outing over/ }).click();
  await other.goto(`${ownDemo}${HULL}/papers/launch?${ASKED}`);
  await expect(other.locator('[data-state="done"]')).toHaveCount(0);
  await other.close();
  await context.close();
});

test("a tick is a form without a script", async ({ browser, ownDemo }) => {
  const page = await browser.newPage({ javaScriptEnabled: false });
  await page.goto(`${ownDemo}${HULL}/papers/return?${ASKED}`);
  await page
    .getByRole("button", { name: "Rinsed with fresh water", exact: false })
    .click();
  await expect(page.locator('[data-line="return-rinse"]')).toHaveAttribute(
    "data-state",
    "done",
  );
  await page.close();
});

test("every paper prints on a few sheets, nothing cut off", async ({
  page,
}) => {
  test.slow();
  const most = {
    buying: 2,
    shopping: 2,
    quote: 1,
    rigging: 4,
    stock: 1,
    transport: 2,
    loading: 1,
    strip: 3,
    launch: 3,
    surf: 2,
    return: 1,
    service: 1,
    event: 3,
  };
  for (const [kind, sheetsMost] of Object.entries(most)) {
    await page.goto(`${HULL}/papers/${kind}?${ASKED}`);
    await expect(page.locator(".paper-lead")).toBeVisible();
    expect(await sheets(page), kind).toBeLessThanOrEqual(sheetsMost);
    await page.emulateMedia({ media: "print" });
    await page.setViewportSize({ width: 794, height: 1123 });
    await expectFits(page, `${kind} on paper`);
    // The caution stands on paper too, the answer first.
    await expect(page.locator("main .caution").last()).toBeVisible();
    await page.emulateMedia({ media: null });
  }
});

test("a job sheet says where, how and with what, and what is not good enough", async ({
  page,
}) => {
  await page.goto(`${HULL}/papers/rigging?${ASKED}`);
  await expect(page.getByRole("img", { name: /From above/ })).toBeVisible();
  await expect(page.locator(".paper-section").first()).toContainText(
    /m from the bow/,
  );
  await expect(page.locator("main")).toContainText("Drill later");
  await expect(
    page.locator(".paper-facts").filter({ hasText: "torque" }).first(),
  ).toContainText(/holes\s*\d+ of/);
  await expectAxeClean(page);
});

test("papers with lines, a table, a drawing and fields are accessible on a phone", async ({
  page,
}) => {
  await page.setViewportSize({ width: 360, height: 740 });
  for (const kind of ["launch", "shopping", "transport", "event"]) {
    await page.goto(`${HULL}/papers/${kind}?${ASKED}`);
    await expectAxeClean(page);
    await expectFits(page, kind);
  }
});

test("a paper is handed out, read without a way out, and withdrawn", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}${HULL}/papers/quote?${ASKED}&tax=19`);
  await page.getByRole("button", { name: "Hand out an address" }).click();
  const handed = page.getByRole("link", { name: "Quote: Fennick Dunmarrow" });
  const address = await handed.getAttribute("href");
  await page.goto(`${ownDemo}${address}`);
  await expect(page.locator("main")).toContainText("of it tax, 19");
  await expect(page.locator("a[href^='/'], form, script, button")).toHaveCount(
    0,
  );
  await page.goto(`${ownDemo}/papers`);
  await page.getByRole("button", { name: "Withdraw" }).click();
  const gone = await page.request.get(`${ownDemo}${address}`);
  expect(gone.status()).toBe(404);
});

/** The smallest letters of a page's words, px; drawings have their own. */
function smallest() {
  const words = document.createTreeWalker(
    document.querySelector("main"),
    NodeFilter.SHOW_TEXT,
  );
  let least = Infinity;
  while (words.nextNode()) {
    const about = words.currentNode.parentElement;
    if (!words.currentNode.data.trim() || about.closest("svg, style")) continue;
    if (!about.checkVisibility()) continue;
    least = Math.min(
      least,
      Number.parseFloat(getComputedStyle(about).fontSize),
    );
  }
  return least;
}

test("what is handed out is what stood there, and is read on a phone", async ({
  page,
  ownDemo,
}) => {
  test.slow();
  const seen = new Set();
  for (const path of [
    "/",
    HULL,
    `${HULL}/stow`,
    "/compare?hull=osprith-kelda-two&hull=drumlee-orvane",
    "/summary?mass=71+kg&have=here",
  ]) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`${ownDemo}${path}`);
    const weight = page.locator("form[data-brief] [name=mass]").first();
    if (await weight.count()) {
      await weight.evaluate((field) => {
        field.value = "71 kg";
        field.form.requestSubmit();
      });
      const said = page.locator(".part:has([name=mass]) summary").first();
      await expect(said).toContainText("71");
    }

    const hulls = page.locator("#ranked h3 a, .summary-hull h3");
    const order = await hulls.allInnerTexts();
    await page.getByRole("button", { name: "Hand out an address" }).click();
    const links = page.locator("a[href^='/shared/']");
    await expect(links).toHaveCount(seen.size + 1);
    const all = await links.evaluateAll((found) =>
      found.map((link) => link.getAttribute("href")),
    );
    const address = all.find((href) => !seen.has(href));
    seen.add(address);
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(`${ownDemo}${address}`);
    await expect(page.locator("main"), path).toContainText("71");
    expect(await hulls.allInnerTexts(), path).toEqual(order);
    await expectFits(page, path);
    await expectAxeClean(page);
    expect(await page.evaluate(smallest), path).toBeGreaterThanOrEqual(14);
  }
});

test("an event is asked for: what breaks its rules is out, and says which", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/ask?step=more&units=metric`);
  await page
    .getByText("keeps the rules of Ommery Lagoon Round")
    .first()
    .click();
  await page.getByRole("button", { name: "Show the ranking" }).click();
  await expect(page.locator("main")).toContainText(
    "breaks rules of Ommery Lagoon Round",
  );
  await page.goto(`${ownDemo}${HULL}/papers/event?rules=ommery-lagoon-round`);
  await expect(page.locator(".paper-lead")).toContainText("fails in");
});

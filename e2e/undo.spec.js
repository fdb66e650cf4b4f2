import { expect, test } from "./server.js";

test("two people at one shelf take back their own acts", async ({
  page,
  browser,
  ownDemo,
}) => {
  // Another browser: another jar of cookies.
  const theirs = await (await browser.newContext()).newPage();
  const price = (who) => who.locator("[name=price]");
  const unfold = (who) => who.getByText("Load, price").click();
  const save = async (who, thing, text) => {
    await who.goto(`${ownDemo}/kit/${thing}`);
    await unfold(who);
    await price(who).fill(text);
    await who.getByRole("button", { name: "Save", exact: true }).click();
  };
  await save(page, "open-crate", "11");
  await save(theirs, "drift-sock", "12");
  // Each is offered their own, with what it was done to.
  await page.goto(`${ownDemo}/kit`);
  await theirs.goto(`${ownDemo}/kit`);
  const mine = page.getByRole("button", { name: /^Undo: .*crate/i });
  const yours = theirs.getByRole("button", { name: /^Undo: .*sock/i });
  await expect(mine).toBeVisible();
  await expect(yours).toBeVisible();
  await expect(page.getByRole("button", { name: /^Undo:/ })).toHaveCount(1);
  await mine.click();
  await page.goto(`${ownDemo}/kit/drift-sock`);
  await expect(price(page)).toHaveValue(/^12/);
  // What somebody else has changed since stays, and it is said whose it is.
  await page.goto(`${ownDemo}/kit/drift-sock`);
  await unfold(page);
  await price(page).fill("13");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await yours.click();
  await expect(theirs.getByRole("main")).toContainText(
    "somebody at another browser changed it since",
  );
  await theirs.getByRole("link", { name: "Back to where" }).click();
  await theirs.goto(`${ownDemo}/kit/drift-sock`);
  await expect(price(theirs)).toHaveValue(/^13/);
  await theirs.context().close();
});

test("a page that swaps its parts tells of itself, in its title and live region", async ({
  page,
}) => {
  test.slow();
  const hull = "/hulls/fennick-dunmarrow";
  for (const path of [
    hull,
    `${hull}/stow`,
    `${hull}/changes`,
    "/hulls",
    "/compare?hull=fennick-dunmarrow&hull=osprith-kelda-two",
    "/new-hull?hull-length=3.4+m&hull-beam=84+cm",
    "/",
  ]) {
    await page.goto(path);
    const title = await page.title();
    const told = page.locator("#said");
    await expect(told).toBeEmpty();
    await page.locator(".what-if > summary").click();
    await page.locator(".what-if-try").first().click();
    await expect(told).not.toBeEmpty({ timeout: 60_000 });
    if (path === "/") {
      await expect(told).toContainText("in order");
      continue;
    }
    await expect(page).toHaveTitle(title);
    await expect(told).not.toContainText("in order");
    if (path.endsWith("/stow")) await expect(told).toContainText("Kit on");
  }
});

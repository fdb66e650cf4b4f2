import { expect, test } from "./server.js";

test("two people at one shelf take back their own acts", async ({
  page,
  browser,
  ownDemo,
}) => {
  // Another browser: another jar of cookies.
  const theirs = await (await browser.newContext()).newPage();
  const price = (who, thing) => who.getByLabel("price", { exact: false });
  const save = async (who, thing, text) => {
    await who.goto(`${ownDemo}/kit/${thing}`);
    await price(who).fill(text);
    await who.getByRole("button", { name: "Keep", exact: true }).click();
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
  await price(page).fill("13");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await yours.click();
  await expect(theirs.getByRole("main")).toContainText(
    "somebody at another browser changed it since",
  );
  await theirs.getByRole("link", { name: "Back to where" }).click();
  await theirs.goto(`${ownDemo}/kit/drift-sock`);
  await expect(price(theirs)).toHaveValue(/^13/);
  await theirs.context().close();
});

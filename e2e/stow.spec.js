import { expect, expectAxeClean, expectFits, test } from "./server.js";

const BOARD = "/hulls/fennick-dunmarrow/stow";

/** A thing on the plan. */
const kit = (page, thing) =>
  page.locator(`.kit[data-thing="${thing}"]`).first();

test("a thing is dragged, nudged by keys, let go and laid out again", async ({
  page,
  ownDemo,
}) => {
  await page.goto(ownDemo + BOARD);
  const saved = page.locator("[data-saved]");
  const cooler = kit(page, "soft-cooler-ice");
  const box = await cooler.boundingBox();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // While it is dragged the figures follow.
  const figures = page.locator('[data-region="stow-figures"]');
  const before = await figures.textContent();
  await page.mouse.move(x - 90, y, { steps: 8 });
  await expect(figures).not.toHaveText(before);
  await page.mouse.up();
  await expect(saved).toHaveText("Saved.");
  await expect(page.locator(".kit-list strong")).toHaveText("put by hand");
  await expect(kit(page, "soft-cooler-ice")).toBeFocused();
  // By keys: tried at each tap, kept when one stops.
  const place = page.getByLabel("its middle, from the bow");
  const was = Number.parseFloat(await place.inputValue());
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  const moved = async () => Number.parseFloat(await place.inputValue()) - was;
  await expect.poll(moved).toBeCloseTo(0.03, 2);
  await expect(saved).toHaveText("Saved.");
  const across = page.getByLabel("lies across");
  const lay = await across.isChecked();
  await page.keyboard.press("r");
  await expect(across).toBeChecked({ checked: !lay });
  await expect(saved).toHaveText("Saved.");
  await expectAxeClean(page);
  // The same after a reload; undone; laid out again.
  await page.reload();
  await expect(page.locator(".kit-list strong")).toHaveCount(1);
  await page.getByRole("button", { name: "Undo: soft cooler ice" }).click();
  await page.goto(ownDemo + BOARD);
  await page.getByRole("button", { name: "Lay out again" }).click();
  await expect(page.locator(".kit-list strong")).toHaveCount(0);
});

test("one layout in four modes: list, air draft and places follow", async ({
  page,
}) => {
  await page.goto(BOARD);
  const figure = (label) =>
    page.locator(".board-figures div", { hasText: label }).locator("dd");
  const list = async () =>
    Number.parseFloat((await figure("list").textContent()).replace("! ", ""));
  const going = await list();
  const high = await figure("air draft").textContent();
  await page.getByRole("link", { name: "landing a fish" }).click();
  // Three kilograms at the gunwale, to starboard.
  await expect(page.locator(".kit-list")).toContainText(
    "the fish at the gunwale",
  );
  expect(await list()).toBeGreaterThan(going + 0.3);
  await page.getByRole("link", { name: "through the surf" }).click();
  await expect(page.locator(".kit-list")).toContainText(
    "flat and strapped down",
  );
  await expect(figure("air draft")).not.toHaveText(high);
  await page.getByRole("link", { name: "fishing", exact: true }).click();
  await expect(page.locator(".kit-list")).toContainText("in the hand");
  await expect(page.locator(".kit-list")).not.toContainText("stake-out pole");
  await expectAxeClean(page);
});

test("a thing is put by touch on a phone, and the form does the same", async ({
  browser,
  ownDemo,
}) => {
  const context = await browser.newContext({
    hasTouch: true,
    viewport: { width: 390, height: 844 },
  });
  const page = await context.newPage();
  await page.goto(ownDemo + BOARD);
  const crate = kit(page, "open-crate");
  const box = await crate.boundingBox();
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const touch = (type, x) =>
    crate.dispatchEvent(type, {
      pointerId: 1,
      pointerType: "touch",
      clientX: x,
      clientY: at.y,
      button: 0,
      bubbles: true,
    });
  await touch("pointerdown", at.x);
  await touch("pointermove", at.x + 12);
  await touch("pointermove", at.x + 20);
  await touch("pointerup", at.x + 20);
  await expect(page.locator("[data-saved]")).toHaveText("Saved.");
  await expect(page.locator(".kit-list strong")).toHaveCount(1);
  await expectFits(page);
  await page.getByLabel("its middle, from the bow").fill("2.60");
  await page.getByLabel("its place").selectOption("tank well");
  await page.getByRole("button", { name: "Put it there" }).click();
  await expect(page.getByLabel("its middle, from the bow")).toHaveValue(
    /^2\.60/,
  );
  await page.getByRole("button", { name: "let it go" }).click();
  await expect(page.locator(".kit-list strong")).toHaveCount(0);
  await context.close();
});

test("who goes on while a step is under way stays where they are", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/rigs/reed-edge-day`);
  const packs = page.getByRole("button", { name: "Pack", exact: true });
  const menus = page.locator(".rig-line .row-menu > summary");
  await menus.nth(1).click();
  await menus.nth(2).click();
  const more = page.getByRole("button", { name: /^one more / }).first();
  let go = () => {};
  const held = new Promise((free) => (go = free));
  await page.route("**/rigs/*", async (route) => {
    if (route.request().method() === "POST") await held;
    await route.continue();
  });
  const asked = page.waitForRequest((r) => r.method() === "POST");
  await more.focus();
  await page.keyboard.press("Enter");
  await asked;
  const open = packs.and(page.locator(":visible"));
  await open.nth(1).focus();
  const which = () =>
    page.evaluate(
      () =>
        document.activeElement.closest(".rig-line").querySelector("strong")
          .textContent,
    );
  const before = await which();
  const count = page.locator(".rig-line").first();
  const said = await count.innerText();
  go();
  await expect(count).not.toHaveText(said);
  await expect(open.nth(1)).toBeFocused();
  expect(await which()).toBe(before);
});

test("a rig from nothing by keyboard alone, ranked; a thing that no longer fits rules hulls out", async ({
  page,
  ownDemo,
}) => {
  const press = async (locator, key = "Enter") => {
    await locator.focus();
    await page.keyboard.press(key);
  };
  await page.goto(`${ownDemo}/kit`);
  await page.getByLabel("a new rig, called").focus();
  await page.keyboard.type("Perch by the reeds");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "Perch by the reeds",
  );
  for (const [word, thing] of [
    ["open crate", "open crate with three rod tubes"],
    ["nominal 36 × 22 × 5", "tackle box, nominal 36 × 22 × 5 cm"],
    ["rod and reel", "rod and reel"],
    ["flotation", "flotation aid, foam"],
    ["spare paddle", "spare paddle"],
  ]) {
    // Results follow what is typed; a tap adds, and one stays where one is.
    await page.getByLabel("find on the shelf").fill(word);
    const add = page.getByRole("button", { name: `Add ${thing}, ` });
    await press(add.first());
    await expect(
      page.locator(".rig-line strong", { hasText: thing }).first(),
    ).toBeVisible();
    await expect(page.getByLabel("find on the shelf")).toHaveValue(word);
  }
  await press(
    page.getByRole("button", { name: "one more rod and reel", exact: true }),
  );
  const boxes = page.locator(".rig-line", { hasText: "tackle box" });
  await press(boxes.locator(".row-menu > summary"));
  await boxes
    .getByLabel("packed in")
    .selectOption("in the open crate with three rod tubes");
  await press(boxes.getByRole("button", { name: "Pack" }));
  await expect(page.locator(".rig-packed")).toContainText("tackle box");
  await expectAxeClean(page);
  // Ranked with it.
  await press(page.getByRole("link", { name: "Rank with this rig" }));
  await expect(page).toHaveURL(/rig=perch-by-the-reeds/);
  const out = page.getByText("does not fit");
  const before = await out.count();
  // The crate turns out larger than most wells.
  await page.goto(`${ownDemo}/kit/open-crate`);
  await expectAxeClean(page);
  await page.locator("#t-length").fill("95 cm");
  await page.locator("#t-width").fill("60 cm");
  await press(page.getByRole("button", { name: "Save", exact: true }));
  await expect(
    page.getByRole("button", { name: /^Undo: open crate/ }),
  ).toBeVisible();
  await page.goto(`${ownDemo}/?rig=perch-by-the-reeds`);
  await expect.poll(() => out.count()).toBeGreaterThan(before);
});

test("what would be displaced is told beside the hull before it is", async ({
  page,
  ownDemo,
}) => {
  await page.goto(ownDemo + BOARD);
  await kit(page, "open-crate").scrollIntoViewIfNeeded();
  const from = await kit(page, "open-crate").boundingBox();
  const to = await kit(page, "soft-cooler-ice").boundingBox();
  const board = await page.locator(".stow-plan").boundingBox();
  const told = page.locator("[data-displaced]");
  await expect(told).toBeHidden();
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(to.x + 8, to.y + 8, { steps: 12 });
  await expect(told).toContainText(/would (go to the|find no place)/);
  await expect(page.locator(".kit-displaced").first()).toBeVisible();
  // Nothing moves away under the hand.
  expect(await page.locator(".stow-plan").boundingBox()).toEqual(board);
  await page.mouse.up();
  await expect(page.locator("[data-saved]")).toHaveText("Saved.");
  await expect(told).toBeHidden();
});

test("what is dragged onto another is marked meanwhile; undone and done again", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}${BOARD}?at=soft-cooler-ice`);
  await page.getByLabel("its place").selectOption("tank well");
  await page.getByLabel("its middle, from the bow").fill("2.60");
  await page.getByLabel("off the middle").fill("0");
  await page.getByRole("button", { name: "Put it there" }).click();
  await expect(page.locator(".kit-list strong")).toHaveCount(1);
  // By a corner: rods stand in the middle of the crate.
  const corner = async (thing) => {
    const box = await kit(page, thing).boundingBox();
    return [box.x + 8, box.y + 8];
  };
  await kit(page, "open-crate").scrollIntoViewIfNeeded();
  const [x, y] = await corner("open-crate");
  const [toX, toY] = await corner("soft-cooler-ice");
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(toX, toY, { steps: 12 });
  const clashes = page.locator('[data-region="stow-clashes"]');
  await expect(clashes).toContainText("take the same room");
  await expect(kit(page, "open-crate")).toHaveClass(/kit-clash/);
  await page.mouse.up();
  await expect(page.locator("[data-saved]")).toHaveText("Saved.");
  await expect(clashes).toContainText("take the same room");
  await expectAxeClean(page);
  await page.reload();
  // By the keys people know: the button that names the act is pressed.
  await expect(
    page.getByRole("button", { name: "Undo: open crate" }),
  ).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(clashes).toBeEmpty();
  await page.getByRole("button", { name: "Redo: open crate" }).click();
  await expect(clashes).toContainText("take the same room");
});

test("who is aboard is set from the rig and travels to the board", async ({
  page,
}) => {
  await page.goto("/rigs/reed-edge-day?posture=sits");
  await page.getByText("Who is aboard").click();
  await page.getByLabel("who comes along").fill("child 28 kg 1.20 m");
  await page.getByRole("button", { name: "Put them aboard" }).click();
  await expect(page.locator("main")).toContainText("with a child of 28");
  await expect(page.locator("main")).toContainText("aid of its own size");
  await page.getByRole("link", { name: "Rank with this rig" }).click();
  await expect(page.locator(".below")).toContainText("one seat too few");
  const question = new URL(page.url()).search;
  await page.goto(`/hulls/osprith-kelda-two/stow${question}`);
  await expect(page.locator(".stow-plan .person")).toHaveCount(4);
  await expect(page.locator(".board-red")).toContainText("2 people");
});

for (const scheme of ["light", "dark"])
  test(`shelf, rig and board are clean in ${scheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    for (const path of ["/kit", "/rigs/night-zander", "/new-thing", BOARD]) {
      await page.goto(path);
      await expectAxeClean(page);
    }
  });

test("a thing without a place is given one at a tap, and what it moves is shown", async ({
  page,
  ownDemo,
}) => {
  const board = `${ownDemo}/hulls/osprith-kelda/stow?rig=sound-trolling`;
  await page.goto(board);
  const left = page.getByRole("region", { name: "Finds no place" });
  await expect(left).toContainText("900 mm long, tank well takes 822 mm");
  await expectAxeClean(page);
  await left.getByRole("button", { name: "Make this rig" }).first().click();
  await expect(left).toHaveCount(0);
  await expect(page.getByText("What the changes moved")).toBeVisible();
  await page.getByRole("button", { name: /^Undo: rig/ }).click();
  // A motor's plate is planned, and stands beside the hull as delivered.
  const question = "rig=creek-by-motor&water=slow-river&posture=sits";
  await page.goto(`${ownDemo}/hulls/brennoch-murl-pedal/stow?${question}`);
  await page.getByRole("button", { name: "Plan this change" }).first().click();
  await expect(page.locator(".effects h3")).toContainText([
    "with a motor plate at the stern",
  ]);
});

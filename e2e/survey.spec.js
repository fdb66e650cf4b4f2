import { expect, expectAxeClean, expectFits, test } from "./server.js";

/** Goes on by Tab until something of that name has the focus. */
async function tabTo(page, name) {
  for (let i = 0; i < 60; i += 1) {
    const here = await page.evaluate(() => {
      const e = document.activeElement;
      if (!e || e === document.body) return "";
      const label = e?.labels?.[0]?.textContent ?? "";
      return `${label} ${e?.getAttribute("aria-label") ?? ""} ${e?.textContent?.trim() ?? ""}`;
    });
    if (here.includes(name)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`${name} is not reached`);
}

test("a hull of one's own is ranked from an empty installation by keys alone", async ({
  page,
  empty,
}) => {
  await page.goto(empty);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "Three steps to a first ranking",
  );
  await expectAxeClean(page);
  // First what one is after: a lake, and the rest skipped.
  await tabTo(page, "Ask");
  await page.keyboard.press("Enter");
  await expect(page.locator(".talk-left")).toContainText("that comes after");
  await page.keyboard.press("2");
  const now = page.getByRole("button", { name: "show the ranking now" });
  await now.press("Enter");
  // What was chosen last is in it.
  await expect(page).toHaveURL(/water=lake/);
  await expect(page.locator(".first-done")).toContainText("Done");
  let keys = 0;
  const type = async (text) => {
    keys += text.length;
    await page.keyboard.type(text);
  };
  await tabTo(page, "Add a hull");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "A hull of your own",
  );
  for (const [field, text] of [
    ["name or model", "Tarn 12"],
    ["length", "12' 4\""],
    ["beam", "88"],
    ["weight", "34"],
    ["rated capacity", "190"],
  ]) {
    await tabTo(page, field);
    await type(text);
  }
  // It floats while one types.
  await expect(page.locator(".quick-place")).toContainText("for this brief");
  await expect(page.locator("#said-hull-length")).toContainText("3.76 m");
  await expectAxeClean(page);
  // Two minutes at one keystroke a second, the ways between the fields too.
  expect(keys).toBeLessThan(60);
  await page.keyboard.press("Enter");
  await expect(page.locator(".first-steps")).toContainText(
    "1 of 3 hulls are in.",
  );
  await expect(page.locator(".sentence-text")).toContainText("lake");
  // Two more, and there is a first ranking.
  for (const [name, beam] of [
    ["Tarn 10", "80"],
    ["Tarn 14", "84"],
  ]) {
    await page.getByRole("link", { name: "add the next one" }).press("Enter");
    for (const [field, text] of [
      ["name or model", name],
      ["length", "3.6"],
      ["beam", beam],
      ["weight", "32"],
      ["rated capacity", "170"],
    ]) {
      await tabTo(page, field);
      await page.keyboard.type(text);
    }
    await page.keyboard.press("Enter");
    if (name === "Tarn 10")
      await expect(page.locator(".first-steps")).toContainText("2 of 3");
  }
  // All three led to the same place: the ranking, now with something to choose from.
  await expect(page.locator(".first-steps")).toHaveCount(0);
  for (const slug of ["tarn-12", "tarn-10", "tarn-14"])
    await expect(page.locator(`li[data-hull="${slug}"]`)).toHaveCount(1);
});

test("hulls are found while one types, and the address holds the search", async ({
  page,
}) => {
  await page.goto("/hulls");
  await expectAxeClean(page);
  const count = page.locator("[data-hull]");
  await page.getByLabel("find", { exact: true }).fill("vaskar");
  await expect(count).toHaveCount(2);
  await expect(page).toHaveURL(/find=vaskar/);
  await page.getByLabel("in order of").selectOption("length");
  await expect(page).toHaveURL(/sort=length/);
  await page.reload();
  await expect(page.getByLabel("find", { exact: true })).toHaveValue("vaskar");
  await expect(count).toHaveCount(2);
  await page.getByLabel("find", { exact: true }).fill("nothing like it");
  await expect(page.locator(".nothing")).toContainText("No hull is like that");
});

test("a table with three bad rows is put right in the preview", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/import`);
  await expectAxeClean(page);
  const rows = [
    "key;model;construction;length;beam",
    "one;One;sit-on-top;3,72 m;85 cm",
    "two;Two;raft;3,72 m;85 cm",
    "three;Three;board;long;85 cm",
    "four;Four;board;3,2 m;9 m",
  ];
  await page.getByLabel("or paste it here").fill(rows.join("\n"));
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(page.getByRole("heading", { level: 2 })).toHaveText(
    "3 things have to be put right",
  );
  await expectAxeClean(page);
  await page.getByLabel("line 3, construction").fill("sit-on-top");
  await page.getByLabel("line 4, length").fill("3,3 m");
  await page.getByLabel("line 5, beam").fill("84");
  await page.getByRole("button", { name: "Look it over again" }).click();
  // A bare 84 in a column without a unit: asked for the column, the rest stays.
  await expect(page.getByRole("heading", { level: 2 })).toHaveText(
    "One thing has to be put right",
  );
  await expectAxeClean(page);
  await page.getByLabel("the column beam").selectOption("cm");
  await page.getByRole("button", { name: "Look it over again" }).click();
  await expect(page.getByRole("heading", { level: 2 })).toContainText(
    "4 hulls",
  );
  await expectAxeClean(page);
  await page.getByRole("button", { name: "Import", exact: true }).click();
  await expect(page.locator('[data-hull="three"]')).toHaveCount(1);
  await page.getByRole("button", { name: /^Undo: / }).click();
  await expect(page.locator('[data-hull="three"]')).toHaveCount(0);
});

test("a tilt test narrows a range before one's eyes", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/hulls/fennick-dunmarrow/afloat`);
  await page.locator(".test summary").nth(2).click();
  const form = page.locator(".test-form").nth(2);
  const fill = (label, text) =>
    form.getByLabel(label, { exact: true }).fill(text);
  await fill("weight aboard, all but the hull", "80");
  await fill("its centre above the floor", "35");
  for (const [n, way, heel] of [
    [1, "40", "6"],
    [2, "-40", "-6"],
    [3, "20", "3"],
  ]) {
    await fill(`${n}: weight moved`, "15");
    await fill(`${n}: by, starboard +`, way);
    await fill(`${n}: heel, degrees`, heel);
  }
  await form.getByRole("button", { name: "See what it changes" }).click();
  const row = page.locator(".changes tr", {
    hasText: "initial stability (GM)",
  });
  await expect(row).toContainText("narrower");
  await expectAxeClean(page);
  await page
    .locator(".test-form")
    .nth(2)
    .getByRole("button", { name: "Save" })
    .click();
  await expect(page.locator(".trash li")).toContainText("tilt test");
  await page.getByRole("button", { name: /^Take back/ }).click();
  await expect(page.locator(".changes")).toHaveCount(0);
});

test("two tabs that edit one hull are merged, and each is undone", async ({
  page,
  ownDemo,
}) => {
  const address = `${ownDemo}/hulls/tindrel-vaskar/record`;
  const other = await page.context().newPage();
  await page.goto(address);
  await other.goto(address);
  await expectAxeClean(page);
  await page.locator("#beam summary").click();
  await page.locator("#beam-value").fill("73.5 cm");
  await page.locator("#beam").getByRole("button", { name: "Add" }).click();
  await expect(page.locator("#beam .reading-used")).toContainText("73.5 cm");
  await other.getByLabel("model").fill("Vaskar II");
  await other.getByRole("button", { name: "Save the words" }).click();
  await expect(other.getByRole("heading", { level: 1 })).toHaveText(
    "Record of Tindrel Vaskar II",
  );
  // What the first tab added is still there, in the second too.
  await expect(other.locator("#beam .reading-used")).toContainText("73.5 cm");
  // The same word changed in both is asked about; what was typed is not lost.
  await page.getByLabel("model").fill("Vaskar Sport");
  await page.getByRole("button", { name: "Save the words" }).click();
  await expect(page.getByRole("alert").first()).toContainText(
    "somebody else changed",
  );
  await expect(page.getByLabel("model")).toHaveValue("Vaskar Sport");
  await other.reload();
  await other.getByRole("button", { name: "Undo: described anew" }).click();
  await expect(other.getByRole("heading", { level: 1 })).toHaveText(
    "Record of Tindrel Vaskar",
  );
  await other.getByRole("button", { name: "Undo: beam noted" }).click();
  await expect(other.locator("#beam .reading-used")).toContainText("72.5 cm");
  // Thrown away and taken out again.
  await other.getByRole("button", { name: "Delete this hull" }).click();
  await other.getByRole("link", { name: "1 in the trash" }).click();
  await expectAxeClean(other);
  await other.getByRole("button", { name: /^Take Tindrel Vaskar out/ }).click();
  await expect(other.getByRole("main")).toContainText(
    "Nothing lies in the trash",
  );
});

for (const path of ["/hulls", "/new-hull?hull-length=3.4&hull-beam=80+cm"]) {
  test(`no accessibility violation, dark, ${path}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: "dark" });
    await page.goto(path);
    await expectAxeClean(page);
  });
}

test("nothing of the survey runs off a narrow screen", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  for (const path of [
    "/hulls",
    "/new-hull?hull-length=3.4&hull-beam=80+cm",
    "/hulls/tindrel-vaskar/record",
    "/hulls/velmoor-oskarin/afloat",
    "/hulls/velmoor-oskarin/walk",
    "/import",
    "/trash",
    "/set-aside",
  ]) {
    await page.goto(path);
    await expectFits(page);
  }
});

test("the walk along a hull on a phone, one zone kept, resumed at the next", async ({
  page,
  ownDemo,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const address = `${ownDemo}/hulls/pellune-rusko/walk`;
  await page.goto(address);
  await expect(page.locator("#here-title")).toHaveText("bow deck");
  await expectAxeClean(page);
  await page.getByLabel("begins, from the bow").fill("near the end");
  await page.getByRole("button", { name: "Save and go on" }).click();
  await expect(page.locator("#z-from-said")).toContainText("3.76 m");
  await page.getByLabel("begins, from the bow").fill("8 cm");
  await page.getByLabel("wide", { exact: true }).fill('9 1/7"');
  await page.getByRole("button", { name: "Save and go on" }).click();
  await expect(page.locator("#z-width-said")).toBeVisible();
  await page.getByLabel("wide", { exact: true }).fill('9 1/2"');
  await page.getByRole("button", { name: "Save and go on" }).click();
  await expect(page.locator("#here-title")).toHaveText("bow hatch");
  await page.getByRole("link", { name: "Skip", exact: true }).click();
  await expect(page.locator("#here-title")).toHaveText("cockpit floor");
  // Come back another day: on with the first nobody has measured.
  await page.goto(address);
  await expect(page.locator("#here-title")).toHaveText("bow hatch");
  // From above and from the side.
  await expect(page.locator(".zone-measured")).toHaveCount(2);
  await page.getByRole("button", { name: "Undo: bow deck measured" }).click();
  await expect(page.locator(".zone-measured")).toHaveCount(0);
});

/** A stranger's hull, kit and table come in within two minutes. */
import { expect, expectAxeClean, expectFits, order, test } from "./server.js";
import { part } from "./sentence.js";

const TABLE = `Spring list of the yard
Brand,Model,LOA,Beam,Wt.,Cap lbs,Drive,Colour
Orrest,Siltie,11' 6",33 1/2",68,375,Pedal,red
Orrest,Brack,12'4'',34¾ in,79,425,paddle,blue
Orrest,Long,12.3 ft,34 in,7x9,425,paddle,blue
Total,,,,255,,,`;

test("a dealer's table comes in as it is; what cannot be read waits and follows", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/import`);
  await page.getByLabel("or paste it here").fill(TABLE);
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(
    "3 hulls, and something to say first",
  );
  await expectAxeClean(page);
  // Nothing is taken that nobody said: the unit, what "Pedal" is, the construction.
  await expect(page.getByRole("button", { name: /^Import/ })).toHaveCount(0);
  await page.getByLabel("Wt. is in").selectOption("lb");
  await page.getByLabel("construction: 2 of 3 rows").selectOption("sit-on-top");
  await expect(page.getByLabel("“Pedal” means")).toHaveValue("rotary-pedal");
  await page.getByRole("button", { name: "Read it so" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "2 of 3 hulls can come in",
  );
  await expect(page.locator("table")).toContainText("30.8 kg");
  await expectAxeClean(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectFits(page);
  await page.getByRole("button", { name: "Import 2" }).click();
  await expect(page.locator("p.quick-place")).toContainText("2 are in");
  await page.getByRole("link", { name: "Put them right" }).click();
  await page.getByLabel(/^Wt\.: “7x9” is not understood/).fill("79");
  await page.getByRole("button", { name: "Read it again" }).first().click();
  await page.getByRole("button", { name: "Import 1" }).click();
  await expect(page).toHaveURL(/\/hulls/);
  // The next file of this shape is read without a question.
  await page.goto(`${ownDemo}/import`);
  await expect(page.locator("main")).not.toContainText("wait");
  await page
    .getByLabel("or paste it here")
    .fill(TABLE.replaceAll("Orrest", "Marsk"));
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(page.getByRole("button", { name: "Import 2" })).toBeVisible();
});

test("a leaflet's text fills the fields, each with the words it was read from", async ({
  page,
}) => {
  await page.goto("/new-hull");
  await page.getByText("Paste it from a web page").click();
  const text = page.getByLabel("what it says of the hull");
  await text.fill(
    `12' 4" long, 34 in. wide, 82 lbs (hull only), max capacity 450 lbs, pedal drive`,
  );
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.locator("#hull-length")).toHaveValue(`12' 4"`);
  await expect(page.getByText("read from “82 lb (hull only)”")).toBeVisible();
  await expect(page.getByText("fins or a propeller?")).toBeVisible();
  await expect(page.locator("#hull-source")).toHaveValue("brochure");
  await expect(page.locator(".quick-place")).toContainText("for this brief");
  await expectAxeClean(page);
});

test("three hulls and a rough kit make a ranking within 45 clicks and keys", async ({
  page,
  empty,
}) => {
  let effort = 0;
  const click = async (what) => {
    effort += 1;
    await what.click();
  };
  const type = async (what, text) => {
    effort += 1;
    await what.click();
    await what.fill(text);
  };
  await page.goto(empty);
  await click(page.getByRole("link", { name: "Add a hull" }));
  for (const [name, length, beam] of [
    ["Tarn 10", "3.2", "84"],
    ["Tarn 12", "12' 4\"", "88"],
    ["Tarn 14", "4.3", "82"],
  ]) {
    // The hull's own numbers count for nothing, the way to each field does.
    for (const [field, text] of [
      ["name or model", name],
      ["length", length],
      ["beam", beam],
      ["weight", "34"],
      ["rated capacity", "190"],
    ])
      await type(page.getByLabel(field, { exact: true }), text);
    await click(page.getByRole("button", { name: "Save", exact: true }));
    const next = page.getByRole("link", { name: "add the next one" });
    if (name !== "Tarn 14") await click(next);
  }
  await click(part(page, "what is carried"));
  const guess = page.getByLabel("kit by guess");
  await click(guess);
  await page.keyboard.type("27 behind");
  effort += "27 behind".length;
  await page.keyboard.press("Enter");
  effort += 1;
  await expect(part(page, "what is carried")).toHaveText(
    "about 27 kg behind the seat",
  );
  expect(await order(page)).toHaveLength(3);
  expect(effort).toBeLessThanOrEqual(45);
  // First steps say what is next, and go away.
  await expect(page.locator(".first-steps")).toHaveCount(0);
});

test("a rig out of words: what is on the shelf, and what is new", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/rigs/light-and-quick`);
  await page.getByText("Write what you carry").click();
  await page
    .getByLabel("with commas between")
    .fill("2 rods, 12 V 20 Ah lithium, kettle 1 kg");
  await page.getByRole("button", { name: "Find it on the shelf" }).click();
  await expect(page.getByLabel("“2 rods”")).toHaveValue("rod-and-reel");
  await expect(page.getByLabel("“kettle 1 kg”")).toHaveValue("(new)");
  await expectAxeClean(page);
  await page.getByRole("button", { name: "Put them on the rig" }).click();
  const line = (name) =>
    page.locator(".rig-line strong", { hasText: name }).first();
  await expect(line("kettle")).toBeVisible();
  await expect(line("battery, 12 V 20 Ah")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(line("kettle")).toHaveCount(0);
  // A thing made for a rig lands on it.
  await page.getByRole("link", { name: "Add gear that is not" }).click();
  await page.locator("#t-name").fill("thermos");
  await page.locator("#t-dry").fill("1.1 kg");
  await page.getByRole("button", { name: "Add to the shelf" }).click();
  await expect(page).toHaveURL(/rigs\/light-and-quick/);
  await expect(line("thermos")).toBeVisible();
});

test("an empty shelf is filled with the usual things", async ({
  page,
  empty,
}) => {
  await page.goto(`${empty}/kit`);
  await page
    .getByRole("button", { name: "Put the usual things on it" })
    .click();
  await expect(page.locator(".shelf-things li")).not.toHaveCount(0);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.locator("main")).toContainText("The shelf is empty");
});

test("a photo is added and a length read off the tape in it", async ({
  page,
  ownDemo,
}) => {
  await page.goto(
    `${ownDemo}/hulls/drumlee-orvane/photos?at=figure:floor_width`,
  );
  const [picture] = await page.locator("main img").all();
  const pixels = await (
    await page.request.get(ownDemo + (await picture.getAttribute("src")))
  ).body();
  await page.getByLabel("Pictures, from the camera or a file").setInputFiles({
    name: "well.jpg",
    mimeType: "image/jpeg",
    buffer: pixels,
  });
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("link", { name: "floor width", exact: true }).click();
  // Clicked as a person does: marks 0 and 50 of the tape, then the well's walls.
  const marks = page.locator(".photo-marks");
  const box = await marks.boundingBox();
  const click = (x, y) =>
    page.mouse.click(
      box.x + (x / 1400) * box.width,
      box.y + (y / 1000) * box.height,
    );
  for (const [x, y] of [
    [180, 578],
    [1180, 543],
    [285, 700],
  ])
    await click(x, y);
  // The last one by keys alone: set in the middle, moved to where it belongs.
  await marks.focus();
  await page.keyboard.press("Enter");
  await expect(page.locator(".photo-mark:focus")).toHaveAttribute(
    "aria-label",
    /^end B/,
  );
  for (let k = 0; k < 43; k++) await page.keyboard.press("Shift+ArrowRight");
  for (let k = 0; k < 20; k++) await page.keyboard.press("Shift+ArrowDown");
  await page.getByLabel("the tape shows at 1").fill("0 cm");
  await page.getByLabel("and at 2").fill("50 cm");
  await page.getByRole("button", { name: "Read the length" }).click();
  const read = page.getByRole("status").filter({ hasText: "Reads" });
  await expect(read).toHaveText(/Reads 42\.[0-5]\scm ± 0\.9\scm/);
  await expect(page.getByLabel("It is")).toHaveValue("floor_width");
  await expectAxeClean(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectFits(page);
  await page.getByRole("button", { name: "Save as a reading" }).click();
  await expect(page.locator("main")).toContainText(
    "read off a photo, ± 0.9 cm",
  );
});

/** When the day turns: water over the deck, a rising wind, what is asked of a hull for it. */
import { expect, expectAxeClean, expectFits, test } from "./server.js";

const COAST = "water=coast&posture=sits&launch=beach&units=metric";

test("a coast says what a wave and a rising wind do to a hull", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/hulls/fennick-dunmarrow?${COAST}`);
  const turn = page.locator("#turn");
  await expect(turn).toContainText(
    /A deck full of water drains in about \d+\ss/,
  );
  await expect(turn).toContainText("unsteady: sit low and still");
  await expect(turn).toContainText(/the same way back against them \d+\smin/);
  await expect(turn.getByRole("img", { name: /The way back/ })).toBeVisible();
  await expect(
    turn.getByRole("img", { name: /Water on its deck/ }),
  ).toBeVisible();
  await turn.getByText("Figures", { exact: true }).first().click();
  await expect(turn.locator(".turn-efforts")).toContainText("for minutes");
  await expect(turn.locator("details table").first()).toContainText(
    "headwind that stops it",
  );
  await expectAxeClean(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectFits(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  // Twice the wind: the same hull no longer gets home.
  await page.goto(`${ownDemo}/waters/coast`);
  await page
    .getByLabel("typical wave and wind")
    .fill("waves to 0.6 m, wind to 25 kn");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.goto(`${ownDemo}/hulls/fennick-dunmarrow?${COAST}`);
  await expect(turn).toContainText("does not get back");
  // No wind named: said, with what to do.
  await page.goto(`${ownDemo}/waters/coast`);
  await page.getByLabel("typical wave and wind").fill("swell");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.goto(`${ownDemo}/hulls/fennick-dunmarrow?${COAST}`);
  await expect(turn).toContainText("names no wind in knots");
});

test("plugs keep the water in, a sit-inside has to be bailed, a board has nothing to drain", async ({
  page,
}) => {
  const turn = page.locator("#turn");
  await page.goto(`/hulls/fennick-dunmarrow?water=lake&scuppers=plugged`);
  await expect(turn).toContainText("does not drain by itself");
  await page.goto(`/hulls/ombrell-lisken?water=lake`);
  await expect(turn).toContainText("pumped or bailed");
  await page.goto(`/hulls/velmoor-oskarin?water=lake`);
  await expect(turn).toContainText("A board has no recess");
});

test("an open coast asks that a wave clears, and files say how long it takes", async ({
  page,
}) => {
  await page.goto(`/?${COAST}`);
  await expect(page.locator("main")).toContainText(/clear a wave/);
  const answer = await page.request.get(`/ranking.json?${COAST}`);
  const { ranked, ruled_out } = await answer.json();
  const all = [...ranked, ...ruled_out].filter((hull) => hull.flooding);
  const one = all.find((hull) => hull.hull === "fennick-dunmarrow");
  expect(one.flooding.clear_s).toBeGreaterThan(20);
  expect(one.flooding.tender_s).toBeGreaterThan(0);
  expect(one.ranges.clear_s.length ?? one.ranges.clear_s.range.length).toBe(3);
  expect(one.wind.back_min).toBeGreaterThan(one.wind.out_min);
  expect(one.lift.drag_n).toBeGreaterThan(one.lift.cart_n);
  const asked = all.flatMap((hull) => hull.demands).map((demand) => demand.key);
  expect(asked).toContain("clears-wave");
});

test("a sit-inside goes down full of water, and with bulkheads stays up; a spray deck keeps waves out", async ({
  page,
  ownDemo,
}) => {
  const question = "water=coast&posture=sits&units=metric";
  const hull = `${ownDemo}/hulls/ombrell-lisken-tour?${question}`;
  const turn = page.locator("#turn");
  await page.goto(hull);
  await expect(turn).toContainText("goes down by the rim or an end");
  await expect(turn).toContainText("no bulkhead, and no bag or foam");
  await expect(page.locator("main")).toContainText(
    "swamped it goes down or rolls",
  );
  // A wall at the feet and one behind the seat.
  for (const x of ["1.5 m", "2.55 m"]) {
    await page.goto(
      `${ownDemo}/hulls/ombrell-lisken-tour/fittings?add=bulkhead&units=metric`,
    );
    await page.getByLabel("from the bow").fill(x);
    await page.getByLabel("called", { exact: true }).fill(`wall at ${x}`);
    await page.getByRole("button", { name: "Put it on" }).click();
  }
  await page.goto(hull);
  await expect(turn).toContainText("On record: a bulkhead");
  await expect(turn).toContainText(/it stays up, its rim \d+\scm over the/);
  await expect(page.locator("main")).not.toContainText("swamped it goes down");
  // Walls off again, a spray deck on the rig.
  const undo = async () => {
    await page.goto(`${ownDemo}/hulls/ombrell-lisken-tour/fittings`);
    await page.getByRole("button", { name: /^Undo/ }).first().click();
  };
  await undo();
  await undo();
  await page.goto(hull);
  await expect(turn).toContainText("no bulkhead");
  await addToRig(page, ownDemo, "spray deck");
  await page.goto(`${hull}&rig=light-and-quick`);
  await expect(turn).toContainText("A spray deck keeps waves out");
  // A bag blown up inside leaves less room for water.
  await expect(turn).toContainText("no bag or foam");
  await addToRig(page, ownDemo, "buoyancy bag, 25 l");
  await page.goto(`${hull}&rig=light-and-quick`);
  await expect(turn).toContainText(/25\sl of bags or foam/);
  await expect(page.locator("main")).not.toContainText("swamped it goes down");
  await expectAxeClean(page);
});

/** Puts something off the shelf on the light rig. */
async function addToRig(page, base, thing) {
  const find = encodeURIComponent(thing);
  await page.goto(`${base}/rigs/light-and-quick?find=${find}&units=metric`);
  await page.locator(".rig-offers button").first().click();
  await expect(
    page.locator(".rig-line strong", { hasText: thing }).first(),
  ).toBeVisible();
}

test("outriggers are bolted on, give lean room, say what they hang on, and come off", async ({
  page,
  ownDemo,
}) => {
  const question = "water=lake&posture=sits&rig=light-and-quick&units=metric";
  const hull = `${ownDemo}/hulls/ombrell-lisken?${question}`;
  const leans = async () => {
    const answer = await page.request.get(
      `${ownDemo}/ranking.json?${question}`,
    );
    const { ranked, ruled_out } = await answer.json();
    const one = [...ranked, ...ruled_out].find(
      (each) => each.hull === "ombrell-lisken",
    );
    return one.stability.lean_room_cm;
  };
  const before = await leans();
  await page.goto(
    `${ownDemo}/hulls/ombrell-lisken/changes?card=outriggers&units=metric`,
  );
  await page.getByLabel("its middle, from the bow").fill("2.0 m");
  await page.getByLabel("weigh together").fill("4 kg");
  await page.getByLabel("it is done already").check();
  await page
    .getByRole("button", { name: /^(Save|Add|Plan|Put)/ })
    .last()
    .click();
  await page.goto(hull);
  const turn = page.locator("#turn");
  await expect(turn).toContainText(
    /Largest brief lean .* with them, .* without/,
  );
  await expect(turn).toContainText("231\u00a0N");
  await expect(page.locator("main")).toContainText("steadied by outriggers");
  expect(await leans()).toBeGreaterThan(2 * before);
  await expectAxeClean(page);
  await page.goto(`${ownDemo}/hulls/ombrell-lisken/changes`);
  await page.getByRole("button", { name: /^Undo/ }).first().click();
  await page.goto(hull);
  await expect(turn).not.toContainText("with them");
  expect(await leans()).toBeCloseTo(before, 6);
});

test("a stringer towed costs speed, and what is asked of a day is what is worked out", async ({
  page,
  ownDemo,
}) => {
  const question = "water=lake&posture=sits&rig=light-and-quick&units=metric";
  const hull = `${ownDemo}/hulls/fennick-dunmarrow?${question}`;
  const turn = page.locator("#turn");
  await page.goto(hull);
  await expect(turn).not.toContainText("What is towed");
  await expect(turn).toContainText("nobody said how far");
  await addToRig(page, ownDemo, "stringer for fish");
  await page.goto(`${hull}&distance=8km&dark=20:30&wind=16kn`);
  await expect(turn).toContainText(/What is towed pulls with \d+\sN/);
  await expect(turn).toContainText(/^.*4\.0\skm with 22\skm\/h/s);
  await expect(turn).toContainText(/Dark at 20:30: turn back by 1[89]:\d\d/);
  await expect(turn).toContainText(/With the drive up, or failed/);
  // A column of it, and what must go backwards.
  await page.goto(
    `${ownDemo}/?${question}&reverse=must&order=turn-by&dark=20:30`,
  );
  await expect(page.locator("main")).toContainText("turn back by");
  await expect(page.locator("main")).toContainText("must go backwards");
  await expectAxeClean(page);
});

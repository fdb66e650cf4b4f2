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
  await expect(turn.locator("table").first()).toContainText(
    "full deck clear after",
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

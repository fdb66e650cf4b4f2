/** The log: begun at a ramp without a connection, finished at home, and what it gives back. */
import { expect, expectAxeClean, expectFits, test } from "./server.js";

const PHONE = { viewport: { width: 390, height: 844 } };
const ASKED =
  "mass=88+kg&stature=1.83+m&posture=stands&rig=reed-edge-day&water=marsh";
const NEW = `/log/new?hull=fennick-dunmarrow&${ASKED}`;

/** Outings of a place, as the log tells them. */
async function outings(page, address, place) {
  const answer = await page.request.get(`${address}/log.json`);
  const { sheets } = await answer.json();
  return sheets.outings.filter((o) => o.place === place);
}

test("an outing begun with the connection cut is kept on the phone and sent once", async ({
  browser,
  ownDemo,
}) => {
  const context = await browser.newContext(PHONE);
  const page = await context.newPage();
  await page.goto(ownDemo + NEW);
  await expectFits(page);
  const told = page.locator("[data-entry-state]");
  // The rig of the question comes along, and what is aboard is worked out.
  await page.getByText("What comes along").click();
  await expect(page.getByLabel("landing net")).toBeVisible();
  await page.getByText("How deep it lies, with the tape").click();
  await expect(
    page.getByLabel("weight aboard, all but the hull"),
  ).not.toHaveValue("");
  await page.getByLabel("where").fill("Third reed");
  await page.getByLabel("wind met").fill("9 kn");
  await page.getByLabel("landing net").selectOption("used");
  await context.setOffline(true);
  await page.getByRole("button", { name: "Save this outing" }).click();
  await expect(told).toContainText("No connection: kept on this phone");
  expect(await outings(page, ownDemo, "Third reed").catch(() => [])).toEqual(
    [],
  );
  // Another page of the log, opened once there is a connection, sends it as well.
  await context.setOffline(false);
  await expect(told).toContainText("sent and saved");
  const all = await outings(page, ownDemo, "Third reed");
  expect(all).toHaveLength(1);
  expect(all[0].wind_mps).toBeCloseTo(4.63, 2);
  expect(all[0].done).toBe(false);
  expect(all[0].carried.find((c) => c.gear === "landing-net").fate).toBe(
    "used",
  );
  // A phone that did not hear the answer sends it again: it is there once.
  const again = await page.request.post(ownDemo + NEW, {
    form: {
      units: "metric",
      day: all[0].day,
      place: "Third reed",
      once: all[0].once,
    },
    headers: { origin: ownDemo },
  });
  expect(again.ok()).toBe(true);
  expect(await outings(page, ownDemo, "Third reed")).toHaveLength(1);
  await context.close();
});

test("what is typed at a ramp survives the page, and a page opened before opens without a connection", async ({
  browser,
  ownDemo,
}) => {
  const context = await browser.newContext(PHONE);
  const page = await context.newPage();
  await page.goto(ownDemo + NEW);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.waitForFunction(async () => {
    const kept = await caches.open("galvet-ramp");
    return (await kept.keys()).length > 3;
  });
  await page.getByLabel("where").fill("Old slip");
  await page.reload();
  await expect(page.getByLabel("where")).toHaveValue("Old slip");
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByLabel("where")).toHaveValue("Old slip");
  await page.getByRole("button", { name: "Save this outing" }).click();
  await expect(page.locator("[data-entry-state]")).toContainText(
    "kept on this phone",
  );
  await context.setOffline(false);
  await expect(page.locator("[data-entry-state]")).toContainText(
    "sent and saved",
  );
  expect(await outings(page, ownDemo, "Old slip")).toHaveLength(1);
  await context.close();
});

test("what was not understood is told where it was typed, and nothing is lost", async ({
  page,
  ownDemo,
}) => {
  await page.goto(ownDemo + NEW);
  await page.getByLabel("where").fill("Far pool");
  await page.getByLabel("wind met").fill("a breeze");
  await page.getByRole("button", { name: "Save this outing" }).click();
  await expect(page.locator(".mistake").first()).toContainText("wind met");
  await expect(page.getByLabel("where")).toHaveValue("Far pool");
  await page.getByLabel("wind met").fill("6 m/s");
  await page.getByRole("button", { name: "Save this outing" }).click();
  await expect(page).toHaveURL(/log\/outings\//);
  await expect(page.locator("h1")).toContainText("Far pool");
});

test("an outing is begun and finished without a script", async ({
  browser,
  ownDemo,
}) => {
  const page = await browser.newPage({ javaScriptEnabled: false });
  await page.goto(ownDemo + NEW);
  await page.getByLabel("where").fill("Plain slip");
  await page.getByRole("button", { name: "Save this outing" }).click();
  await expect(page.locator("h1")).toContainText("Plain slip");
  await expect(page.locator(".paper-lead")).toContainText("begun");
  await page.getByLabel("hours on the water").fill("4.5");
  await page.getByLabel("distance", { exact: true }).fill("8 km");
  await page.getByLabel("written to its end").check();
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.locator(".paper-lead")).toContainText("4.5");
  const [one] = await outings(page, ownDemo, "Plain slip");
  expect([one.hours, one.distance_m, one.done]).toEqual([4.5, 8000, true]);
  await page.close();
});

test("a reading is put on its hull's record, where it stands as if typed there", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/log/outings/2026-05-02-skelmar-brandel`);
  await expect(page.locator(".paper-lead")).toContainText(
    "where it was foretold",
  );
  await page
    .getByRole("link", { name: "What it would change" })
    .first()
    .click();
  await expect(page.locator(".paper-lead")).toContainText("figures of the");
  await page.getByRole("button", { name: "Put on the hull's record" }).click();
  await expect(page.getByText("On the hull's record").first()).toBeVisible();
  await page.goto(`${ownDemo}/hulls/skelmar-brandel/afloat`);
  await expect(page.getByText("gunwale above the water")).toBeVisible();
  // One's own act is taken back where it was done.
  await page.goto(`${ownDemo}/log/outings/2026-05-02-skelmar-brandel`);
  await expect(page.getByText("Foretold here without it")).toBeVisible();
});

test("a service is done, and is due again when that is taken back", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/log/service`);
  await expectAxeClean(page);
  const rotary = page
    .locator("section", { has: page.getByText("Fennick Dunmarrow") })
    .locator("li")
    .filter({ hasText: "rotary pedal drive:" })
    .first();
  await expect(rotary).toContainText("due");
  await rotary.locator("summary").click();
  await expect(rotary).toContainText("propeller, 2 pins");
  await rotary.getByRole("button", { name: /^Done: rotary/ }).click();
  await expect(rotary).toContainText("not yet");
  await page
    .getByRole("button", { name: /take back: rotary pedal/i })
    .first()
    .click();
  await expect(rotary).toContainText("due");
});

test("an old hull's kit is moved: a rig, a planned modification, a job sheet", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/moving?${ASKED}`);
  await page
    .getByLabel("from", { exact: true })
    .selectOption("fennick-dunmarrow");
  await page.getByLabel("to", { exact: true }).selectOption("hobrin-cassel");
  await page.getByLabel("or to").first().selectOption("osprith-kelda");
  await page.getByRole("button", { name: "Work it out" }).click();
  await expect(page.locator(".moving-one")).toHaveCount(2);
  await expectAxeClean(page);
  await page
    .getByRole("button", { name: /Move onto the Hobrin Cassel/ })
    .click();
  await expect(page.locator("h1")).toContainText("Rigging job sheet");
  await expect(page).toHaveURL(/rig=reed-edge-day-for-the-hobrin-cassel/);
  await page.goto(`${ownDemo}/hulls/hobrin-cassel/changes`);
  await expect(
    page.getByText("moved from the Fennick Dunmarrow").first(),
  ).toBeVisible();
});

test("the next outing tells when to launch, says what is made up, and fits a phone", async ({
  browser,
  address,
}) => {
  const page = await browser.newPage(PHONE);
  await page.goto(`${address}/log/ahead?place=dravel-mouth&day=2026-11-07`);
  await expectFits(page);
  await expect(page.locator(".paper-lead")).toContainText(
    /Launch from .* be back by|No hour/,
  );
  await expect(page.getByText("Never go by them")).toBeVisible();
  await page.getByText("Hour by hour").click();
  await expect(page.locator("tbody tr")).toHaveCount(24);
  // A wind nobody goes out in leaves no hour, and says why.
  await page.goto(
    `${address}/log/ahead?place=dravel-mouth&day=2026-11-07&limit=1+km%2Fh`,
  );
  await expect(page.locator(".paper-lead")).toContainText("No hour");
  await expect(page.locator(".paper-red")).toContainText("wind in");
  await expect(page.getByText("Turn for home")).toHaveCount(0);
  await page.close();
});

test("a track stays out of everything that is handed on", async ({
  page,
  ownDemo,
}) => {
  const at = `${ownDemo}/log/outings/2026-06-27-tindrel-vaskar-fin`;
  await page.goto(at);
  await expect(page.getByRole("img", { name: /The track/ })).toBeVisible();
  const text = async (path) => (await page.request.get(ownDemo + path)).text();
  expect(await text("/log.csv")).not.toContain("51.2");
  expect(await text("/log.json")).not.toContain('"track"');
  expect(await text("/everything.json")).not.toContain('"track": [');
  expect(await text("/log.json?tracks=yes")).toContain('"track"');
  const alone = await text(
    "/log/outings/2026-06-27-tindrel-vaskar-fin?as=file",
  );
  expect(alone).not.toContain("The track");
  expect(alone).toContain("Dravel sound");
  const gpx = await text(
    "/log/outings/2026-06-27-tindrel-vaskar-fin/track.gpx",
  );
  // Out and in again: the same places.
  await page.setInputFiles("#track", {
    name: "back.gpx",
    mimeType: "application/gpx+xml",
    buffer: Buffer.from(gpx),
  });
  await page.getByRole("button", { name: /^Import/ }).click();
  await expect(page.getByRole("img", { name: /The track/ })).toBeVisible();
  await page.setInputFiles("#track", {
    name: "bad.gpx",
    mimeType: "application/gpx+xml",
    buffer: Buffer.from("<!DOCTYPE x [<!ENTITY a 'b'>]><gpx>&a;</gpx>"),
  });
  await page.getByRole("button", { name: /^Import/ }).click();
  await expect(page.getByRole("alert").first()).toContainText(
    "declares no words",
  );
});

test("somebody's own spreadsheet comes in: good rows in, bad ones told", async ({
  page,
  ownDemo,
}) => {
  await page.goto(`${ownDemo}/log/import`);
  await page
    .getByLabel("or paste it here")
    .fill(
      "Date;Boat;Where;Hours;Wind (kn);Mood\n31.8.2026;Skelmar Brandel;Own pool;3,5;8;good\n1/2/2026;Skelmar Brandel;x;1;1;\n2026-09-02;Nobody;x;1;1;\n",
    );
  await page.getByRole("button", { name: "Look it over" }).click();
  await expect(
    page.getByText("1 outing is understood, 2 rows are not"),
  ).toBeVisible();
  await expect(page.getByText("“Mood”")).toBeVisible();
  await page.getByRole("button", { name: /1/ }).click();
  await expect(page.getByRole("status").first()).toContainText(
    "1 outing is in",
  );
  const [one] = await outings(page, ownDemo, "Own pool");
  expect([one.day, one.hours]).toEqual(["2026-08-31", 3.5]);
  expect(one.wind_mps).toBeCloseTo(4.116, 2);
});

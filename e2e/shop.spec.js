/**
 * A shop: two of the staff and a customer's screen at once, signed in through a proxy that
 * ends TLS; who may not, cannot.
 */
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test, expect, expectAxeClean, expectFits, BINARY } from "./server.js";

const PEOPLE = [
  ["Runa Vey", "seventeen wet herons", "owner"],
  ["Mads", "eleven dry cormorants", "staff"],
  ["Ida", "nineteen tin lanterns", "staff"],
  ["Lill", "forty quiet bitterns", "looker"],
];

/** A port nobody has. */
function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

/** Waits until something answers. */
async function answers(port) {
  for (let tries = 0; tries < 200; tries += 1) {
    const there = await fetch(`http://127.0.0.1:${port}/sign-in`).then(
      () => true,
      () => false,
    );
    if (there) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`nothing answers at ${port}`);
}

/** A shop with demo data, accounts, and a proxy that ends TLS before it. */
const shop = test.extend({
  shop: async ({}, use) => {
    const data = mkdtempSync(join(tmpdir(), "galvet-shop-"));
    const kept = join(data, "data");
    const [first, port, tls] = [
      await freePort(),
      await freePort(),
      await freePort(),
    ];
    const demo = spawn(BINARY, ["demo", "--keep", kept, "--port", `${first}`]);
    await answers(first);
    demo.kill();
    await new Promise((resolve) => demo.on("exit", resolve));
    for (const [name, word, role] of PEOPLE) {
      const made = spawnSync(
        BINARY,
        ["user", "add", name, "--role", role, "--data", kept],
        { input: `${word}\n` },
      );
      expect(made.status, String(made.stderr)).toBe(0);
    }
    const listen = ["--listen", `127.0.0.1:${port}`];
    const served = spawn(
      BINARY,
      [
        "serve",
        "--data",
        kept,
        ...listen,
        "--https",
        "--host",
        "kayaks.example",
      ],
      { stdio: "ignore" },
    );
    await answers(port);
    const nginx = proxied(data, port, tls);
    await answers(tls).catch(() => {});
    await use({ address: `https://localhost:${tls}`, behind: port });
    nginx.kill();
    served.kill();
    await Promise.all(
      [nginx, served].map((p) => new Promise((done) => p.on("exit", done))),
    );
    rmSync(data, { recursive: true, force: true });
  },
});

/** Debian's nginx, ending TLS as docs/proxy.md says. */
function proxied(data, port, tls) {
  const [key, certificate] = [join(data, "key.pem"), join(data, "cert.pem")];
  const made = spawnSync("openssl", [
    ..."req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=localhost".split(
      " ",
    ),
    ...["-keyout", key, "-out", certificate],
  ]);
  expect(made.status, String(made.stderr)).toBe(0);
  const config = join(data, "nginx.conf");
  const temporary = ["client_body", "proxy", "fastcgi", "uwsgi", "scgi"]
    .map((part) => `${part}_temp_path ${data}/${part};`)
    .join(" ");
  writeFileSync(
    config,
    `daemon off; master_process off; pid ${data}/pid; error_log stderr;
    events {}
    http {
      access_log off; ${temporary}
      server {
        listen 127.0.0.1:${tls} ssl;
        ssl_certificate ${certificate}; ssl_certificate_key ${key};
        client_max_body_size 160m;
        location / {
          proxy_pass http://127.0.0.1:${port};
          proxy_set_header Host $http_host;
          proxy_set_header X-Forwarded-For $remote_addr;
        }
      }
    }`,
  );
  const where = ["/usr/sbin/nginx", "/usr/bin/nginx"].find(existsSync);
  if (!where) throw new Error("nginx is not installed: apt-get install nginx");
  return spawn(where, ["-c", config, "-p", data], { stdio: "ignore" });
}

/** A browser of somebody, signed in. */
async function signedIn(browser, address, [name, word]) {
  const context = await browser.newContext({
    ignoreHTTPSErrors: true,
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  await page.goto(`${address}/hulls`);
  await expect(page).toHaveURL(/sign-in\?back=%2Fhulls/);
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("Password", { exact: true }).fill(word);
  await page.getByRole("button", { name: "Sign in" }).click();
  if (await page.getByText("Somebody else chose your password").count()) {
    await page.getByLabel("The one you have", { exact: true }).fill(word);
    await page.getByLabel(/^A new one/).fill("short");
    await expect(page.locator(".strength")).toContainText("too short");
    await page.getByLabel(/^A new one/).fill(`${word} again`);
    await expect(page.locator(".strength")).toContainText("hard to guess");
    await expect(page.getByRole("meter")).toBeVisible();
    await expectAxeClean(page);
    await page
      .getByLabel("The new one again", { exact: true })
      .fill(`${word} again`);
    await page.getByRole("button", { name: "Choose it" }).click();
    await page.goto(`${address}/hulls`);
  }
  await expect(page.getByRole("heading", { name: /hulls$/ })).toBeVisible();
  return { context, page };
}

shop(
  "two of the staff and a customer's screen at once",
  async ({ shop: { address, behind }, browser }) => {
    const mads = await signedIn(browser, address, PEOPLE[1]);
    const ida = await signedIn(browser, address, PEOPLE[2]);
    // Cookies go by TLS only, and nobody without it can set them.
    const cookies = await mads.context.cookies();
    expect(cookies.length).toBeGreaterThan(0);
    for (const cookie of cookies) expect(cookie.secure, cookie.name).toBe(true);
    expect(cookies.map((c) => c.name)).toContain("__Host-galvet-session");
    // Past the proxy nobody is let in by what a sender says of itself.
    const past = await fetch(`http://127.0.0.1:${behind}/hulls`, {
      redirect: "manual",
      headers: { "X-Forwarded-For": "127.0.0.1" },
    });
    expect(past.status).toBe(303);

    // The counter: from the first question to three hulls, on a second screen as well.
    await mads.page.goto(`${address}/counter`);
    await expectAxeClean(mads.page);
    await mads.page
      .getByRole("button", { name: "Open a screen for the customer" })
      .click();
    const where = await mads.page
      .locator(".counter-screen a")
      .getAttribute("href");
    expect(where).toContain(address);
    const customer = await browser.newContext({ ignoreHTTPSErrors: true });
    const screen = await customer.newPage();
    await screen.goto(where);
    await expect(screen.locator(".three-hull")).toHaveCount(3);
    await expect(screen.locator(".lead")).toContainText("88");
    expect(await screen.locator("main a, main form, nav a").count()).toBe(0);
    await expectAxeClean(screen);
    await mads.page.getByLabel("the angler's weight").fill("97 kg");
    await expect(mads.page.locator(".counter-count")).toContainText("pass");
    await expect(screen.locator(".lead")).toContainText("97");
    await mads.page.getByLabel("what we have").check();
    await expect(mads.page.locator(".three .shelf-here").first()).toBeVisible();
    await expect(screen.locator(".three .shelf").first()).toContainText("here");

    // Meanwhile somebody else changes what there is; each takes back their own.
    await ida.page.goto(`${address}/stock/osprith-kelda-two`);
    await ida.page.getByLabel("there is").selectOption("here");
    await ida.page.getByLabel("how many are here").fill("1");
    await ida.page.getByRole("button", { name: "Save" }).click();
    await expect(ida.page.locator(".trash").first()).toContainText(
      "Osprith Kelda Two 39901 here",
    );
    await mads.page.goto(`${address}/lately`);
    await expect(mads.page.locator(".lately li").first()).toContainText("Ida");
    await expect(mads.page.locator(".undo")).toHaveCount(0);
    await ida.page.goto(`${address}/lately`);
    await expect(ida.page.locator(".lately li").first()).toContainText("you");
    await expect(ida.page.locator(".undo")).toHaveCount(1);

    // On paper, under the customer's name; the screen is withdrawn.
    await mads.page.goto(`${where.replace("/screen/", "/counter?screen=")}`);
    await mads.page.getByLabel("Keep it for").fill("Tove Lind");
    await mads.page.getByRole("button", { name: "Keep", exact: true }).click();
    await mads.page.goto(`${address}/customers?find=tove`);
    await expect(mads.page.locator(".customers li")).toContainText(
      "1 question",
    );
    await mads.page.goto(`${where.replace("/screen/", "/counter?screen=")}`);
    await mads.page.getByRole("button", { name: "Close the screen" }).click();
    await expect(screen.locator("#screen-over")).toBeVisible();
    const closed = await customer.request.get(where);
    expect(closed.status()).toBe(404);
    // Nothing else is there for the customer's browser.
    const elsewhere = await customer.request.get(`${address}/hulls`, {
      maxRedirects: 0,
    });
    expect(elsewhere.status()).toBe(303);

    // Signed out is out, at once and everywhere that was asked for.
    await ida.page.goto(`${address}/account`);
    await expectAxeClean(ida.page);
    await ida.page.getByRole("button", { name: "Sign out here" }).click();
    await ida.page.goto(`${address}/stock`);
    await expect(ida.page).toHaveURL(/sign-in/);
    await expectAxeClean(ida.page);
    for (const { context } of [mads, ida]) await context.close();
    await customer.close();
  },
);

shop(
  "the owner lets somebody in and shuts them out; a looker only looks",
  async ({ shop: { address }, browser }) => {
    const runa = await signedIn(browser, address, PEOPLE[0]);
    const lill = await signedIn(browser, address, PEOPLE[3]);
    await lill.page.goto(`${address}/hulls/quarnel-pipkin/record`);
    await expect(lill.page.getByText("add a reading").first()).toBeHidden();
    await expect(lill.page.locator("main form")).toHaveCount(0);
    const refused = await lill.page.request.get(`${address}/customers`);
    expect(refused.status()).toBe(403);
    await runa.page.goto(`${address}/people`);
    await expectAxeClean(runa.page);
    await expectFits(runa.page);
    const row = runa.page.locator(".people > li", { hasText: "Lill" });
    await row.getByText("Change", { exact: true }).click();
    await expect(row).toContainText("Signed in");
    await row.getByRole("button", { name: "Shut Lill out" }).click();
    await lill.page.goto(`${address}/hulls`);
    await expect(lill.page).toHaveURL(/sign-in/);
    await runa.page.getByRole("button", { name: "Let Lill in again" }).click();
    await expect(
      runa.page.locator(".people > li", { hasText: "Lill" }),
    ).toHaveCount(1);
    for (const path of ["/backups", "/customers", "/retention", "/bookings"]) {
      await runa.page.goto(`${address}${path}`);
      await expectAxeClean(runa.page);
    }
    for (const { context } of [runa, lill]) await context.close();
  },
);

/**
 * A shop under load: many hulls, rigs and outings, many people at once. Makes its own data
 * in a temporary directory, serves it on this machine alone, and prints how long pages took.
 *
 *   node e2e/load.mjs [--binary FILE] [--hulls 1000] [--rigs 500] [--outings 10000]
 *                     [--people 50] [--seconds 60] [--pause 5]
 *                     [--memory 1024]
 */
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { parseArgs } from "node:util";

const { values } = parseArgs({
  options: {
    binary: { type: "string", default: "target/release/galvet" },
    hulls: { type: "string", default: "1000" },
    rigs: { type: "string", default: "500" },
    outings: { type: "string", default: "10000" },
    people: { type: "string", default: "50" },
    seconds: { type: "string", default: "60" },
    // What a hurried reader takes to read a page.
    pause: { type: "string", default: "5" },
    // What is remembered, MB: a thousand hulls take more than the usual.
    memory: { type: "string", default: "1024" },
  },
});
const [HULLS, RIGS, OUTINGS, PEOPLE, SECONDS, PAUSE] = [
  values.hulls,
  values.rigs,
  values.outings,
  values.people,
  values.seconds,
  values.pause,
].map(Number);
const BINARY = values.binary;
const WORD = "seventeen wet herons";

const place = mkdtempSync(join(tmpdir(), "galvet-load-"));
const data = join(place, "data");

/** Runs a command of Galvet's; findings are as good as none. */
function galvet(args, input) {
  const stdio = ["pipe", "ignore", "inherit"];
  const { status } = spawnSync(BINARY, args, { input, stdio });
  if (status !== 0 && status !== 1) throw new Error(`${args[0]}: ${status}`);
}

/** Starts a server; where it is. */
async function start(args) {
  const child = spawn(BINARY, args, { stdio: ["ignore", "pipe", "ignore"] });
  for await (const line of createInterface({ input: child.stdout })) {
    const address = line.match(/http:\/\/\S+/)?.[0];
    if (address) return { child, address };
  }
  throw new Error("it ended without an address");
}

/** Ends a server, and waits until it has. */
function end({ child }) {
  const gone = new Promise((resolve) => child.on("exit", resolve));
  child.kill();
  return gone;
}

/** So many of a list, each under a key of its own; `vary` makes them differ. */
function many(list, count, vary) {
  return Array.from({ length: count }, (_, n) => {
    const one = structuredClone(list[n % list.length]);
    if (n >= list.length) {
      one.key = `${one.key}-${n}`;
      vary(one, n);
    }
    return one;
  });
}

/** Data of a size, made of the demo's. */
async function fill() {
  const demo = await start(["demo", "--port", "0"]);
  const all = await (await fetch(`${demo.address}/everything.json`)).json();
  await end(demo);
  const hulls = many(all.hulls, HULLS, (hull, n) => {
    hull.model = `${hull.model} ${n}`;
    // Each its own body: no two are floated as one.
    for (const reading of hull.readings.length ?? [])
      reading.value *= 1 + (n % 97) / 4000;
  });
  const rigs = many(all.rigs, RIGS, (rig, n) => {
    rig.name = `${rig.name} ${n}`;
  });
  // Without photos: their pixels are not in the file.
  const sheets = { ...all.sheets, photos: [] };
  sheets.outings = many(sheets.outings, OUTINGS, (outing, n) => {
    outing.name = `${outing.name} ${n}`;
  });
  const file = join(place, "all.json");
  writeFileSync(file, JSON.stringify({ ...all, hulls, rigs, sheets }));
  const begun = performance.now();
  galvet(["import", file, "--data", data]);
  return (performance.now() - begun) / 1000;
}

/** Signs everybody in; what their browsers keep. */
async function comeIn(address) {
  const cookies = [];
  for (let n = 0; n < PEOPLE; n += 1) {
    const answer = await fetch(`${address}/sign-in`, {
      method: "POST",
      redirect: "manual",
      headers: {
        "Sec-Fetch-Site": "same-origin",
        "Content-Type": "application/x-www-form-urlencoded",
        // Each from an address of their own, as the proxy would say.
        "X-Forwarded-For": `10.1.${n >> 8}.${n & 255}`,
      },
      body: new URLSearchParams({ name: `Person ${n}`, password: WORD }),
    });
    const set = answer.headers
      .getSetCookie()
      .find((c) => c.includes("session="));
    if (!set) throw new Error(`person ${n} is not let in: ${answer.status}`);
    cookies.push(set.split(";")[0]);
  }
  return cookies;
}

/** One page; milliseconds, and its status. Waited for, unless it is `hurried`. */
async function ask(address, path, cookie, hurried = false) {
  const begun = performance.now();
  const headers = { Cookie: cookie };
  if (hurried) headers.Prefer = "respond-async";
  const answer = await fetch(address + path, { headers });
  await answer.arrayBuffer();
  return [performance.now() - begun, answer.status];
}

/** A page as a browser shows it: until there is something, and until it is whole. */
async function look(address, path, cookie) {
  const begun = performance.now();
  const [first, status] = await ask(address, path, cookie, true);
  for (let now = status; now === 202;) {
    await new Promise((done) => setTimeout(done, 300));
    [, now] = await ask(address, path, cookie, true);
  }
  return { first, whole: performance.now() - begun };
}

/** Everybody asks for a while, with a pause for reading before each page. */
async function together(address, cookies, pages) {
  const until = performance.now() + SECONDS * 1000;
  const took = [];
  const odd = {};
  await Promise.all(
    cookies.map(async (cookie, who) => {
      for (let n = 0; ; n += 1) {
        const pause = PAUSE * 2000 * Math.random();
        await new Promise((done) => setTimeout(done, pause));
        if (performance.now() > until) return;
        const [ms, status] = await ask(address, pages(who, n), cookie, true);
        took.push(ms);
        // Told how far it is: a page all the same.
        if (status !== 200) odd[status] = (odd[status] ?? 0) + 1;
      }
    }),
  );
  return { took, odd };
}

/** The share of a list that is no longer than what comes back. */
function quantile(list, share) {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
}

function told(what, { took, odd }) {
  const [middle, most, worst] = [0.5, 0.95, 1].map((q) =>
    quantile(took, q).toFixed(0),
  );
  const refused = Object.entries(odd).map(([s, n]) => `${n} × ${s}`);
  console.log(
    `${what}: ${took.length} pages, median ${middle} ms, p95 ${most} ms, worst ${worst} ms` +
      (refused.length ? `; ${refused.join(", ")}` : ""),
  );
}

let server;
try {
  const taken = await fill();
  for (let n = 0; n < PEOPLE; n += 1) {
    const role = n === 0 ? "owner" : "staff";
    galvet(
      ["user", "add", `Person ${n}`, "--role", role, "--data", data, "--own"],
      `${WORD}\n`,
    );
  }
  const size = statSync(join(data, "galvet.db")).size / 1e6;
  console.log(
    `${HULLS} hulls, ${RIGS} rigs, ${OUTINGS} outings: taken in in ${taken.toFixed(1)} s, ${size.toFixed(0)} MB`,
  );
  server = await start([
    ...["serve", "--data", data, "--listen", "127.0.0.1:0", "--https"],
    ...["--memory", values.memory],
  ]);
  const { address } = server;
  const cookies = await comeIn(address);
  const hulls = (
    await (
      await fetch(`${address}/hulls.csv`, { headers: { Cookie: cookies[0] } })
    ).text()
  )
    .split("\n")
    .slice(1, HULLS)
    .map((line) => line.split(",")[0])
    .filter(Boolean);
  const hull = (n) => hulls[(n * 37) % hulls.length];
  const [first] = await ask(address, "/", cookies[0]);
  console.log(`the first ranking of all: ${(first / 1000).toFixed(1)} s`);

  const known = ["/", "/hulls", "/?weight=60", "/stock", "/customers"];
  for (const path of known) await ask(address, path, cookies[0]);
  const seen = (who, n) =>
    (who + n) % 3 === 2
      ? `/hulls/${hull(who % 5)}`
      : known[(who + n) % known.length];
  for (let n = 0; n < 5; n += 1)
    await ask(address, `/hulls/${hull(n)}`, cookies[0]);
  told(
    `${PEOPLE} people, pages remembered`,
    await together(address, cookies, seen),
  );
  told(
    `${PEOPLE} people, a hull each on a question of their own`,
    await together(
      address,
      cookies,
      (who, n) =>
        `/hulls/${hull(who * 101 + n)}?mass=${60 + ((who * 7 + n) % 60)}.${n % 10}+kg`,
    ),
  );
  const [log] = await ask(address, "/log", cookies[0]);
  const [again] = await ask(address, "/log", cookies[0]);
  console.log(
    `the log: ${log.toFixed(0)} ms at first, ${again.toFixed(0)} ms again`,
  );
  const fresh = [];
  for (let n = 0; n < 3; n += 1)
    fresh.push(await look(address, `/?mass=${71 + n}.3+kg`, cookies[0]));
  const seconds = (which) =>
    fresh.map((f) => (f[which] / 1000).toFixed(1)).join(", ");
  console.log(
    `a ranking of all on a fresh question, nobody else asking: the best so far after ${seconds("first")} s, all after ${seconds("whole")} s`,
  );
  told(
    `${PEOPLE} people, a ranking of all each on a question of their own`,
    await together(
      address,
      cookies,
      (who, n) => `/?mass=${60 + who}.${n % 10}+kg&stature=1.74+m`,
    ),
  );
  told(
    `five ask fresh rankings and go on before they are whole, ${PEOPLE - 5} read what is remembered (these)`,
    await (async () => {
      const asking = together(
        address,
        cookies.slice(0, 5),
        (who, n) => `/?mass=${80 + who}.${n % 10}+kg`,
      );
      const reading = await together(address, cookies.slice(5), seen);
      told("  the five", await asking);
      return reading;
    })(),
  );
} finally {
  if (server) await end(server);
  rmSync(place, { recursive: true, force: true });
}

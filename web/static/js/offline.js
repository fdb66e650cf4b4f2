/**
 * The page on which an outing is begun, at a ramp without a connection: from the
 * network where there is one, else as it was opened last on this phone. Nothing
 * else is answered from here.
 */
/** @type {any} */
const worker = self;
/** Where pages and their files are kept. */
const KEPT = "galvet-ramp";

/**
 * Whether an answer is the page itself: one that says how far it is, is not.
 * @param {Response} answer
 */
const isThere = (answer) => answer.status === 200;

worker.addEventListener("install", () => worker.skipWaiting());
worker.addEventListener("activate", (event) =>
  event.waitUntil(worker.clients.claim()),
);

async function page(request) {
  try {
    const answer = await fetch(request);
    if (isThere(answer)) {
      const kept = await caches.open(KEPT);
      await kept.put(request, answer.clone());
    }
    return answer;
  } catch (error) {
    const kept = await caches.open(KEPT);
    const same = await kept.match(request);
    if (same) return same;
    throw error;
  }
}

async function file(request) {
  const kept = await caches.open(KEPT);
  const known = await kept.match(request);
  if (known) return known;
  const answer = await fetch(request);
  if (isThere(answer)) await kept.put(request, answer.clone());
  return answer;
}

worker.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== worker.location.origin) return;
  if (request.mode === "navigate" && pathname === "/log/new")
    event.respondWith(page(request));
  else if (pathname.startsWith("/assets/")) event.respondWith(file(request));
});

/**
 * An outing begun at the ramp is never lost: what is typed is kept in the
 * browser as it is typed, and what is saved without a connection waits there
 * and is sent later. Each entry has a word of its own, so that one that is
 * sent twice is kept once.
 */
import { one } from "./dom.js";

/** Where entries wait. */
const WAITING = "galvet-outings";
/** Where what is being typed is kept, by its hull. */
const TYPED = "galvet-outing-typed ";

/**
 * @param {string} key
 * @param {unknown} otherwise
 */
function kept(key, otherwise) {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") ?? otherwise;
  } catch {
    return otherwise;
  }
}

/**
 * @param {string} key
 * @param {unknown} value
 */
function keep(key, value) {
  try {
    localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

/**
 * The day it is here, where nobody typed another: a page that was kept on the
 * phone still says that on which it was kept.
 *
 * @param {HTMLFormElement} form
 */
function today(form) {
  const day = form.elements.namedItem("day");
  if (!(day instanceof HTMLInputElement) || form.querySelector(".mistake"))
    return;
  const now = new Date();
  const two = (n) => String(n).padStart(2, "0");
  day.value = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** A word nobody else has. */
function word() {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  return Array.from(bytes, (b) => b.toString(36).padStart(2, "0")).join("");
}

/**
 * Sends every entry that waits, one after the other; returns where the last one
 * is, and how many still wait.
 *
 * @returns {Promise<{left: number, at: string, refused: number}>}
 */
async function send() {
  let at = "";
  let refused = 0;
  for (const entry of kept(WAITING, [])) {
    if (entry.refused) {
      refused += 1;
      continue;
    }
    let answer;
    try {
      answer = await fetch(entry.action, {
        method: "POST",
        body: new URLSearchParams(entry.pairs),
      });
    } catch {
      break;
    }
    const all = kept(WAITING, []);
    if (answer.ok) {
      at = answer.url;
      keep(
        WAITING,
        all.filter((e) => e.once !== entry.once),
      );
    } else if (answer.status === 422) {
      // What is wrong with it is told where it can be put right.
      refused += 1;
      keep(
        WAITING,
        all.map((e) => (e.once === entry.once ? { ...e, refused: true } : e)),
      );
    } else break;
  }
  return { left: kept(WAITING, []).length, at, refused };
}

/**
 * Keeps this page and its files on the phone, so that it opens at a ramp without
 * a connection. Browsers allow it over a safe connection only; without it an
 * entry begun while there is one is still never lost.
 */
async function keepThePage() {
  if (!("serviceWorker" in navigator) || !("caches" in window)) return;
  try {
    await navigator.serviceWorker.register("/log/offline.js", {
      scope: "/log/new",
    });
    const files = performance
      .getEntriesByType("resource")
      .map((entry) => new URL(entry.name))
      .filter((url) => url.origin === location.origin)
      .filter((url) => url.pathname.startsWith("/assets/"))
      .map((url) => url.href);
    const kept = await caches.open("galvet-ramp");
    await kept.addAll([location.href, ...files]);
  } catch {
    // Kept the next time.
  }
}

/** @param {Document} page */
export function outingsThatWait(page) {
  const form = one(page, "form[data-kept-entry]", HTMLFormElement);
  const told = one(page, "[data-entry-state]", HTMLElement);
  const tell = (words) => {
    if (told) told.textContent = words;
  };
  const waiting = () => {
    const all = kept(WAITING, []).length;
    return all === 0
      ? ""
      : `${all} ${all === 1 ? "outing waits" : "outings wait"} on this phone to be sent.`;
  };
  const later = async () => {
    if (kept(WAITING, []).length === 0) return;
    const { left } = await send();
    tell(
      left === 0 ? "What waited on this phone is sent and saved." : waiting(),
    );
  };
  addEventListener("online", later);
  if (!form) {
    later();
    return;
  }
  keepThePage();
  const address = form.getAttribute("action") ?? "";
  const hull = new URL(address, location.href).searchParams.get("hull");
  const typedKey = TYPED + hull;
  const fields = () =>
    Array.from(new FormData(form), ([name, value]) => [name, String(value)]);
  // One that was refused comes back to be put right, else what was being typed.
  const all = kept(WAITING, []);
  const back = all.find((e) => e.refused && e.action === address);
  const typed = back?.pairs ?? kept(typedKey, null);
  if (typed && !form.querySelector(".mistake")) {
    for (const [name, value] of typed) {
      const field = form.elements.namedItem(name);
      if (field instanceof HTMLInputElement && field.type === "checkbox")
        field.checked = true;
      else if (
        field instanceof HTMLInputElement ||
        field instanceof HTMLSelectElement ||
        field instanceof HTMLTextAreaElement
      )
        field.value = value;
    }
    tell(
      back
        ? "This was not understood when it was sent: save it again to see where."
        : "What you typed before is here again.",
    );
  } else {
    tell(waiting());
    today(form);
  }
  let once = back?.once ?? word();
  form.addEventListener("input", () => keep(typedKey, fields()));
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const pairs = [
      ...fields().filter(([name]) => name !== "once"),
      ["once", once],
    ];
    const others = kept(WAITING, []).filter((e) => e.once !== once);
    const safe = keep(WAITING, [
      ...others,
      { once, action: address, pairs, refused: false },
    ]);
    if (!safe) {
      // A browser that keeps nothing sends it as any form.
      form.submit();
      return;
    }
    tell("Saving …");
    const { at, left, refused } = await send();
    const mine = kept(WAITING, []).find((e) => e.once === once);
    if (!mine) {
      localStorage.removeItem(typedKey);
      if (at) location.assign(at);
      return;
    }
    if (mine.refused) {
      keep(
        WAITING,
        kept(WAITING, []).filter((e) => e.once !== once),
      );
      // The page itself tells what was not understood.
      const hidden = document.createElement("input");
      hidden.type = "hidden";
      hidden.name = "once";
      hidden.value = once;
      form.append(hidden);
      form.submit();
      return;
    }
    localStorage.removeItem(typedKey);
    once = word();
    tell(
      `No connection: kept on this phone, sent when there is one. ${left - refused > 1 ? waiting() : ""}`,
    );
  });
  later();
}

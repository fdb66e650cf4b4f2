/**
 * Lists ticked at the water's edge. A tick shows at once and is kept in the
 * browser until the server has it: it does not matter whether there is a
 * connection when it is made. Of two answers to one line the later holds.
 */
import { all as allOf, one } from "./dom.js";

/** Time without a further tick before what is ticked is sent, ms. */
const PAUSE = 800;

/**
 * Answers that wait to be sent, by line.
 *
 * @param {string} key
 * @returns {Record<string, {state: string, at: number}>}
 */
function waiting(key) {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "{}");
  } catch {
    return {};
  }
}

/** @param {ParentNode} page */
export function listsThatKeep(page) {
  const outing = one(page, "[data-ticks]", HTMLElement);
  if (!outing) return;
  const { ticks: address = "", list = "" } = outing.dataset;
  const key = `galvet-ticks ${address.split("?")[0]}`;
  const told = one(outing, "[data-tick-state]", HTMLElement);
  const said = one(document, "#said", HTMLElement);
  let timer = 0;

  /** @param {string} words */
  const tell = (words) => {
    if (told) told.textContent = words;
  };
  /**
   * @param {HTMLElement} line
   * @param {string} state
   */
  const show = (line, state) => {
    line.dataset.state = state;
    line
      .querySelector(".tick-box")
      ?.setAttribute("aria-pressed", String(state === "done"));
  };
  const count = () => {
    const hard = allOf(page, ".paper-hard", HTMLElement);
    const open = hard.filter((line) => line.dataset.state === "open").length;
    return open === 0 ? "" : ` ${open} never to be skipped still open.`;
  };
  /** @param {Record<string, {state: string, at: number}>} all */
  const keep = (all) => {
    try {
      localStorage.setItem(key, JSON.stringify(all));
      return true;
    } catch {
      return false;
    }
  };

  async function send() {
    const all = waiting(key);
    const lines = Object.entries(all);
    if (lines.length === 0) return;
    const body = new URLSearchParams();
    for (const [line, { state, at }] of lines)
      body.append("answer", `${line}|${state}|${at}|`);
    try {
      const answer = await fetch(address, {
        method: "POST",
        body,
        redirect: "manual",
      });
      if (answer.type !== "opaqueredirect" && !answer.ok)
        throw new Error(String(answer.status));
      // What was ticked anew meanwhile still waits.
      const rest = waiting(key);
      for (const [line, sent] of lines)
        if (rest[line]?.at === sent.at) delete rest[line];
      keep(rest);
      tell(`Saved.${count()}`);
    } catch {
      tell(`No connection: kept on this phone, sent later.${count()}`);
    }
  }

  for (const line of allOf(page, "[data-line]", HTMLElement)) {
    const kept = waiting(key)[`${list}/${line.dataset.line}`];
    if (kept) show(line, kept.state);
    line.querySelector(".paper-tick")?.addEventListener("submit", (event) => {
      event.preventDefault();
      const state = line.dataset.state === "done" ? "open" : "done";
      const all = waiting(key);
      all[`${list}/${line.dataset.line}`] = { state, at: Date.now() };
      show(line, state);
      if (!keep(all)) {
        tell("This browser keeps nothing: stay connected.");
      }
      const what = line.querySelector(".paper-what strong")?.textContent ?? "";
      if (said)
        said.textContent = `${what}: ${state === "done" ? "done" : "open again"}`;
      tell(`Saving …${count()}`);
      clearTimeout(timer);
      timer = setTimeout(send, PAUSE);
    });
  }
  addEventListener("online", send);
  document.addEventListener("visibilitychange", () => {
    if (document.visibilityState === "visible") send();
  });
  send();
}

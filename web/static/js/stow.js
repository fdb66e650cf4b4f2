/**
 * The stow board: things are dragged, or moved with the arrow keys; the server
 * works out what that does to it while one goes, and keeps it when one stops.
 * Without this module the form beside the list does the same.
 */
import { displaced, lyingOn } from "./displaced.js";
import { stepOf } from "./keys.js";
import { swap } from "./swap.js";

/** Milliseconds at rest until what was put is kept. */
const REST = 700;
/** Milliseconds between two tries while something is dragged. */
const BEAT = 60;

/** @param {Document} root */
export function boardThatMoves(root) {
  const answer = root.querySelector("#answer");
  if (!answer?.querySelector("svg[data-board]")) return;
  const board = new Board(root, answer);
  board.take();
  // Another question brings another drawing.
  new MutationObserver(() => board.take()).observe(answer, {
    childList: true,
    subtree: true,
  });
}

class Board {
  /** Counts tries: only the last one's answer is shown. */
  count = 0;
  /**
   * The thing being moved, with where it is.
   * @type {{thing: string, nth: number, place: string, x: number, y: number, turned: boolean} | undefined}
   */
  moving = undefined;
  /**
   * What lay where before keys began to move something.
   * @type {import("./displaced.js").Lying[] | undefined}
   */
  before = undefined;

  constructor(root, answer) {
    this.root = root;
    this.answer = answer;
  }

  get plan() {
    return this.answer.querySelector("svg[data-board]");
  }

  get region() {
    return this.answer.querySelector("[data-pins]");
  }

  say(text) {
    const saved = this.answer.querySelector("[data-saved]");
    if (saved) saved.textContent = text;
  }

  /** Makes every mark that can be put somewhere a grip. */
  take() {
    const plan = this.plan;
    if (!plan || plan.dataset.taken) return;
    plan.dataset.taken = "yes";
    for (const link of this.answer.querySelectorAll("a[data-thing]")) {
      const mark = plan.querySelector(
        `.kit[data-kit="${link.dataset.number}"]:not([data-side])`,
      );
      if (!mark) continue;
      Object.assign(mark.dataset, {
        thing: link.dataset.thing,
        nth: link.dataset.nth,
      });
      mark.setAttribute("tabindex", "0");
      mark.setAttribute("role", "button");
      mark.setAttribute("aria-label", this.nameOf(link));
      mark.addEventListener("pointerdown", (event) => this.grab(mark, event));
      mark.addEventListener("keydown", (event) => this.key(mark, event));
    }
  }

  nameOf(link) {
    const said = link.parentElement.querySelector(".facts")?.textContent ?? "";
    return `${link.textContent}: ${said}`;
  }

  /** Where a mark's middle is, in metres of the hull. */
  whereIs(mark) {
    const { scale, bow, middle } = this.plan.dataset;
    // The thing itself, without what is written on it.
    const box = (mark.querySelector("rect, .kit-line") ?? mark).getBBox();
    const unit = Number(scale);
    // What leans in a holder stands at its foot.
    const x = mark.querySelector(".kit-line") ? box.x : box.x + box.width / 2;
    return {
      x: (x - Number(bow)) / unit,
      y: (box.y + box.height / 2 - Number(middle)) / unit,
      across: box.height > box.width,
    };
  }

  pinOf(mark) {
    const pins = JSON.parse(this.region.dataset.pins);
    const { thing, nth } = mark.dataset;
    const known = pins.find((p) => p.thing === thing && String(p.nth) === nth);
    const at = this.whereIs(mark);
    return known
      ? { ...known }
      : {
          thing,
          nth: Number(nth),
          place: "",
          x: at.x,
          y: at.y,
          turned: false,
        };
  }

  /** All pins with one of them as it is now. */
  pinsWith(pin) {
    const pins = JSON.parse(this.region.dataset.pins);
    const others = pins.filter(
      (p) => p.thing !== pin.thing || p.nth !== pin.nth,
    );
    return [...others, pin];
  }

  grab(mark, event) {
    if (event.button) return;
    event.preventDefault();
    mark.focus();
    const matrix = this.plan.getScreenCTM().inverse();
    const unit = Number(this.plan.dataset.scale);
    const point = (e) =>
      new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix);
    const from = point(event);
    const pin = this.pinOf(mark);
    const start = { x: pin.x, y: pin.y };
    let last = 0;
    let moved = false;
    const follow = (e) => {
      const to = point(e);
      const by = { x: to.x - from.x, y: to.y - from.y };
      moved ||= Math.hypot(by.x, by.y) > 3;
      if (!moved) return;
      mark.classList.add("kit-dragged");
      mark.setAttribute("transform", `translate(${by.x} ${by.y})`);
      Object.assign(pin, {
        place: "",
        x: start.x + by.x / unit,
        y: start.y + by.y / unit,
      });
      if (e.timeStamp - last < BEAT) return;
      last = e.timeStamp;
      this.figures(pin);
    };
    const over = () => {
      window.removeEventListener("pointermove", follow);
      window.removeEventListener("pointerup", over);
      window.removeEventListener("pointercancel", over);
      if (moved) this.keep(pin);
    };
    window.addEventListener("pointermove", follow);
    window.addEventListener("pointerup", over);
    window.addEventListener("pointercancel", over);
  }

  key(mark, event) {
    const by = stepOf(event.key, event.shiftKey);
    const letter = event.key.toLowerCase();
    if (!by && letter !== "r" && letter !== "f") return;
    event.preventDefault();
    const { thing, nth } = mark.dataset;
    if (letter === "f") return this.send({ action: "free", thing, nth });
    const same =
      this.moving && this.moving.thing === thing && this.moving.nth === +nth;
    const pin = same ? this.moving : this.pinOf(mark);
    if (by) {
      pin.x += by[0];
      pin.y += by[1];
    } else pin.turned = !pin.turned;
    pin.place = "";
    this.moving = pin;
    this.nudge(pin);
    clearTimeout(this.resting);
    this.resting = setTimeout(() => this.keep(pin), REST);
  }

  /** Asks what a layout does to it, without keeping it. */
  async ask(pin) {
    const mine = ++this.count;
    const body = new URLSearchParams({
      pins: JSON.stringify(this.pinsWith(pin)),
      at: pin.thing,
      n: String(pin.nth),
    });
    const query = window.location.search;
    const response = await fetch(`${this.answer.dataset.part}${query}`, {
      method: "POST",
      body,
    });
    if (!response.ok || mine !== this.count) return undefined;
    return response.text();
  }

  /** The figures alone, while something is dragged. */
  async figures(pin) {
    const html = await this.ask(pin).catch(() => undefined);
    if (html === undefined) return;
    const fresh = document.createElement("template");
    fresh.innerHTML = html;
    for (const region of ["stow-figures", "stow-clashes"]) {
      const name = `[data-region="${region}"]`;
      const old = this.answer.querySelector(name);
      const next = fresh.content.querySelector(name);
      if (old && next) old.replaceWith(next);
    }
    this.markClashes(fresh.content);
    this.tellDisplaced(lyingOn(this.answer), fresh.content, pin);
  }

  /** Tells beside the hull what else would lie elsewhere, and marks it. */
  tellDisplaced(before, tried, pin) {
    const found = displaced(before, lyingOn(tried), pin);
    const lines = found.map(({ words }) => {
      const line = this.root.createElement("li");
      line.textContent = words;
      return line;
    });
    const list = this.answer.querySelector("[data-displaced]");
    list?.replaceChildren(...lines);
    const shown = list?.closest("[role]");
    if (shown) shown.toggleAttribute("hidden", found.length === 0);
    for (const mark of this.plan?.querySelectorAll(".kit[data-kit]") ?? [])
      mark.classList.remove("kit-displaced");
    for (const { thing, nth } of found) {
      const link = `a[data-thing="${CSS.escape(thing)}"][data-nth="${nth}"]`;
      const number = this.answer.querySelector(link)?.dataset.number;
      const marks = this.plan?.querySelectorAll(`.kit[data-kit="${number}"]`);
      for (const mark of marks ?? []) mark.classList.add("kit-displaced");
    }
  }

  /** Marks on the drawing in hand what the tried one has in the way, and where the
   * water lies then. */
  markClashes(tried) {
    const plan = this.plan;
    const [water, then] = [plan, tried].map((at) =>
      at?.querySelector(".stow-water"),
    );
    if (water && then) water.setAttribute("d", then.getAttribute("d"));
    for (const mark of plan?.querySelectorAll(".kit[data-kit]") ?? []) {
      const same = `.kit[data-kit="${mark.dataset.kit}"]`;
      const clash = tried.querySelector(same)?.classList.contains("kit-clash");
      mark.classList.toggle("kit-clash", Boolean(clash));
    }
  }

  /** All of the board, after a tap of a key. */
  async nudge(pin) {
    this.before ??= lyingOn(this.answer);
    const html = await this.ask(pin).catch(() => undefined);
    if (html === undefined) return;
    this.show(html, pin);
    this.tellDisplaced(this.before ?? [], this.answer, pin);
    this.say("Not kept yet …");
  }

  show(html, pin) {
    const query = new URLSearchParams(window.location.search);
    swap(this.answer, html, query);
    this.take();
    const again = this.plan?.querySelector(
      `.kit[data-thing="${CSS.escape(pin.thing)}"][data-nth="${pin.nth}"]`,
    );
    again?.focus();
  }

  keep(pin) {
    return this.send({
      action: "pin",
      thing: pin.thing,
      nth: String(pin.nth),
      pins: JSON.stringify([pin]),
    });
  }

  /** Keeps something, and shows it as it is then. */
  async send(fields) {
    clearTimeout(this.resting);
    this.moving = this.before = undefined;
    const mine = ++this.count;
    this.say("Saving …");
    try {
      const query = window.location.search;
      const response = await fetch(`${this.answer.dataset.page}${query}`, {
        method: "POST",
        body: new URLSearchParams(fields),
      });
      const html = await response.text();
      if (mine !== this.count) return;
      this.tellDisplaced([], this.answer, { thing: "", nth: 0 });
      const page = new DOMParser().parseFromString(html, "text/html");
      const fresh = page.getElementById("answer");
      if (fresh) {
        const pin = { thing: fields.thing, nth: Number(fields.nth) };
        this.show(fresh.innerHTML, pin);
      }
      const trouble = page.querySelector("[data-trouble]");
      this.say(response.ok ? "Saved." : (trouble?.textContent ?? "Not kept."));
    } catch {
      this.say("Not saved: the server does not answer.");
    }
  }
}

/**
 * The pond played: a course in time, moved live by pointer, keys and buttons. Without motion
 * the strip of stills tells the same, and a step is a button.
 */

import { all, one } from "./dom.js";
import { Course, LONGEST } from "./pond-course.js";
import { View } from "./pond-view.js";

/** Milliseconds between two leans. */
const BEAT = 120;
/** Keys and what they do. @type {Record<string, string>} */
const MOVES = { c: "cast", f: "fish", t: "turn", x: "strike" };

/** @param {HTMLElement} stage */
function begin(stage) {
  const water = one(stage, ".pond-water", HTMLCanvasElement);
  const trace = one(stage, ".pond-trace", HTMLCanvasElement);
  const now = one(stage, ".pond-now", HTMLOutputElement);
  if (!water || !trace || !now) return;
  const {
    pond = "",
    script = "",
    sea = "flat",
    until = "20",
    up = "false",
  } = stage.dataset;
  const course = new Course(pond, { script, sea, until: Number(until), up });
  const player = new Player(stage, course, new View(water, trace, course), now);
  stage.hidden = false;
  byButtons(stage, player);
  byKeys(water, player);
  byPointer(water, player);
  course.open().then(
    () => player.opened(),
    () => {
      stage.hidden = true;
    },
  );
}

/** Goes through a course in time. */
class Player {
  /**
   * @param {HTMLElement} stage
   * @param {Course} course
   * @param {View} view
   * @param {HTMLOutputElement} now
   */
  constructor(stage, course, view, now) {
    this.time = 0;
    this.plays = false;
    this.slow = 1;
    this.last = 0;
    this.stage = stage;
    this.course = course;
    this.view = view;
    this.now = now;
    /** @type {AudioContext | undefined} */
    this.sound = undefined;
    this.still = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
    /** Frame times, ms, for who measures. */
    /** @type {number[]} */
    this.frames = [];
    this.lean = 0;
    this.asked = false;
    /** @type {ReturnType<typeof setTimeout> | undefined} */
    this.beat = undefined;
    this.leant = -BEAT;
    course.now = () => this.time;
  }

  opened() {
    this.draw();
    if (!this.still) this.play(true);
    new ResizeObserver(() => this.draw()).observe(this.stage);
  }

  /** @param {boolean} on */
  play(on) {
    this.plays = on;
    const button = one(this.stage, '[data-play="play"]', HTMLButtonElement);
    if (button) {
      button.textContent = on ? "Pause" : "Play";
      button.setAttribute("aria-pressed", String(on));
    }
    if (!on) return;
    if (this.time >= this.course.ends() - 0.01) this.time = 0;
    this.last = performance.now();
    requestAnimationFrame((at) => this.frame(at));
  }

  /** @param {number} at ms */
  frame(at) {
    if (!this.plays) return;
    const passed = Math.min(Math.max(at - this.last, 0), 100);
    this.last = at;
    this.frames.push(passed);
    if (this.frames.length > 600) this.frames.shift();
    this.time = Math.min(
      this.time + (passed / 1000) * this.slow,
      this.course.ends(),
    );
    this.course
      .goOn(this.time)
      .catch(() => this.say("the pond does not answer"));
    this.draw();
    this.creak();
    const through = this.time >= this.course.ends() - 1e-3;
    const waits =
      this.course.own && !this.course.over() && this.time < LONGEST - 0.1;
    if (through && !waits) {
      this.play(false);
      this.told();
      this.helped();
      return;
    }
    requestAnimationFrame((next) => this.frame(next));
  }

  draw() {
    const { told } = this.course;
    if (!told) return;
    this.view.draw(this.time);
    const at = this.course.at(told.main.moving, this.time);
    const heel = (at.heel * 180) / Math.PI;
    const off = Math.abs(((at.heel - at.slope) * 180) / Math.PI);
    const wets = Math.min(told.main.still.wets, told.main.still.runs_in) / 100;
    const room = wets - off;
    const side =
      Math.abs(heel) < 0.5 ? "level" : heel < 0 ? "to port" : "to starboard";
    const over = this.course.over() && this.time >= this.course.ends() - 0.02;
    const { recess } = told.main.still;
    const comes = recess ? "water comes in" : "its edge dips";
    const parts = [
      `${this.time.toFixed(1)} s`,
      over
        ? "over"
        : side === "level"
          ? side
          : `${Math.abs(heel).toFixed(0)}° ${side}`,
      room >= 0 ? `${room.toFixed(0)}° left until ${comes}` : comes,
    ];
    // In the water, what was left no longer matters.
    if (over) parts.length = 2;
    else if (recess)
      parts.push(`${Math.round(100 * at.filled)} % of the deck full`);
    this.now.textContent = parts.join(" · ");
    this.now.classList.toggle("pond-wet", room < 0 || over);
  }

  /** What would help, once the exercise is through: asked for once. */
  async helped() {
    const box = one(document, "[data-pond-helps]", HTMLElement);
    const link = box && one(box, "a[data-slow]", HTMLAnchorElement);
    if (!box || !link || this.asked || this.course.own) return;
    this.asked = true;
    try {
      const answer = await fetch(link.href);
      const page = new DOMParser().parseFromString(
        await answer.text(),
        "text/html",
      );
      const lines = page.querySelector("[data-pond-help] ul");
      if (lines) box.before(document.importNode(lines, true));
    } catch {
      // The link leads there all the same.
      this.asked = false;
    }
  }

  /** What came of moves of one's own. */
  told() {
    const box = one(document, "[data-pond-story]", HTMLElement);
    const story = this.course.told?.story;
    if (!box || !story || !this.course.own) return;
    box.replaceChildren(
      ...story.map((line) => {
        const p = document.createElement("p");
        p.textContent = line;
        return p;
      }),
    );
    this.say(story[0] ?? "");
  }

  /** @param {string} words */
  say(words) {
    const said = document.getElementById("said");
    if (said) said.textContent = words;
  }

  /** @param {string} move */
  async does(move) {
    if (this.course.over()) return;
    try {
      await this.course.does(move, this.time);
      if (!this.plays && !this.still) this.play(true);
      this.draw();
      if (this.still) this.told();
    } catch (wrong) {
      this.say(
        wrong instanceof Error ? wrong.message : "that did not come through",
      );
    }
  }

  /** Leans to a side, share of a reach; nothing where it leans so already. @param {number} share */
  leans(share) {
    const to = Math.round(5 * Math.max(-1, Math.min(1, share))) / 5;
    if (to === this.lean) return;
    this.lean = to;
    // Of what is pulled to within a beat only the last is done.
    clearTimeout(this.beat);
    const since = performance.now() - this.leant;
    const lean = () => {
      this.leant = performance.now();
      this.does(`lean_${this.lean}`);
    };
    if (since >= BEAT) lean();
    else this.beat = setTimeout(lean, BEAT - since);
  }

  standOrSit() {
    const { told } = this.course;
    if (!told) return;
    const up = this.course.at(told.main.moving, this.time).up;
    this.does(up > 0.5 ? "sit" : "stand");
  }

  again() {
    clearTimeout(this.beat);
    this.lean = 0;
    return this.anew(this.course.anew());
  }

  /** From the start, once what is to be played is there. @param {Promise<void>} comes */
  async anew(comes) {
    try {
      await comes;
    } catch {
      this.say("that did not come through");
      return;
    }
    this.time = 0;
    this.pressed();
    this.draw();
    if (!this.still) this.play(true);
  }

  step() {
    this.play(false);
    this.time = Math.min(this.time + 0.1, this.course.ends());
    this.draw();
  }

  /** What is going on, on its buttons. */
  pressed() {
    const { sea } = this.course;
    for (const button of all(this.stage, "[data-water]", HTMLButtonElement))
      button.setAttribute("aria-pressed", String(button.dataset.water === sea));
    for (const button of all(this.stage, "[data-toggle]", HTMLButtonElement)) {
      const last = this.course.last(button.dataset.toggle ?? "", LONGEST);
      button.setAttribute("aria-pressed", String((last?.side ?? 0) !== 0));
    }
  }

  /** @param {string} sea */
  water(sea) {
    return this.anew(this.course.inWater(sea));
  }

  /** A low tone that rises with the heel. */
  creak() {
    if (!this.sound || !this.course.told) return;
    const at = this.course.at(this.course.told.main.moving, this.time);
    const heel = Math.abs((at.heel * 180) / Math.PI);
    this.tone?.frequency.setTargetAtTime(
      70 + 9 * heel,
      this.sound.currentTime,
      0.05,
    );
    this.loud?.gain.setTargetAtTime(
      Math.min(heel / 200, 0.12),
      this.sound.currentTime,
      0.05,
    );
  }

  /** @param {boolean} on */
  sounds(on) {
    if (!on) {
      this.sound?.close();
      this.sound = undefined;
      return;
    }
    this.sound = new AudioContext();
    this.tone = this.sound.createOscillator();
    this.loud = this.sound.createGain();
    this.loud.gain.value = 0;
    this.tone.connect(this.loud).connect(this.sound.destination);
    this.tone.start();
  }
}

/** @param {HTMLElement} stage @param {Player} player */
function byButtons(stage, player) {
  /** @param {HTMLButtonElement} button */
  const flips = (button) => {
    const on = button.getAttribute("aria-pressed") !== "true";
    button.setAttribute("aria-pressed", String(on));
    return on;
  };
  stage.addEventListener("click", (event) => {
    const button =
      event.target instanceof Element ? event.target.closest("button") : null;
    if (!button) return;
    const { play, move, water, toggle, hold } = button.dataset;
    if (play === "play") player.play(!player.plays);
    else if (play === "again") player.again();
    else if (play === "step") player.step();
    else if (play === "slow") player.slow = flips(button) ? 0.25 : 1;
    else if (play === "sound") player.sounds(flips(button));
    else if (water) {
      player.water(water);
    } else if (toggle && move)
      player.does(flips(button) ? move : `${toggle}_0`);
    else if (move && hold === undefined) player.does(move);
    else if (move && event.detail === 0) {
      // By keyboard: leans, and comes back when pressed again.
      const side = Number(move.split("_")[1]);
      player.leans(player.lean === side ? 0 : side);
    }
  });
  for (const button of all(stage, "[data-hold]", HTMLButtonElement)) {
    const side = Number((button.dataset.move ?? "").split("_")[1]);
    button.addEventListener("pointerdown", () => player.leans(side));
    for (const end of ["pointerup", "pointercancel", "pointerleave"])
      button.addEventListener(end, () => {
        if (player.lean === side) player.leans(0);
      });
  }
}

/** @param {HTMLCanvasElement} water @param {Player} player */
function byKeys(water, player) {
  water.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const { key, repeat } = event;
    const low = key.toLowerCase();
    if (key === " ") player.play(!player.plays);
    else if (key === "ArrowLeft") player.leans(-1);
    else if (key === "ArrowRight") player.leans(1);
    else if (key === ".") player.step();
    else if (low === "r" && !repeat) player.again();
    else if (low === "s" && !repeat) player.standOrSit();
    else if (low in MOVES && !repeat) player.does(MOVES[low]);
    else return;
    event.preventDefault();
  });
  water.addEventListener("keyup", (event) => {
    if (event.key === "ArrowLeft" || event.key === "ArrowRight")
      player.leans(0);
  });
  water.addEventListener("blur", () => player.leans(0));
}

/** Pulls the figure to a side. @param {HTMLCanvasElement} water @param {Player} player */
function byPointer(water, player) {
  let from = 0;
  let pulls = false;
  water.addEventListener("pointerdown", (event) => {
    pulls = true;
    from = event.clientX;
    water.setPointerCapture(event.pointerId);
  });
  water.addEventListener("pointermove", (event) => {
    if (pulls)
      player.leans((event.clientX - from) / (0.18 * water.clientWidth));
  });
  for (const end of ["pointerup", "pointercancel"])
    water.addEventListener(end, () => {
      pulls = false;
      player.leans(0);
    });
}

const stage = one(document, "[data-pond]", HTMLElement);
if (stage) begin(stage);

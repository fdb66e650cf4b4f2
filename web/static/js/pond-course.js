/**
 * A course of the pond in time: what the server worked out, asked for ahead of what is shown,
 * and moves of one's own put into it.
 */

/**
 * @typedef {import("./pond-figure.js").Still} Still
 * @typedef {import("./pond-figure.js").Moment} Moment
 */

/**
 * What moves: hundredths of a degree, thousandths, mm, N.
 * @typedef {object} Moving
 * @property {number} from
 * @property {number[]} heel
 * @property {number[]} legs
 * @property {number[]} trunk
 * @property {number[]} slope
 * @property {number[]} up
 * @property {number[]} filled
 * @property {number[]} reach
 * @property {number[]} aside
 * @property {number[]} beside
 * @property {number[]} force
 * @property {number[]} mate
 * @property {[number, string][]} happened
 * @property {boolean} over
 */

/**
 * @typedef {object} Told
 * @property {number} every
 * @property {{ still: Still, moving: Moving }} main
 * @property {{ still: Still, heel: number[] }[]} faint
 * @property {{ name: string, drawn: { still: Still, moving: Moving } } | null} ghost
 * @property {string[]} story
 */

const COLUMNS = /** @type {const} */ ([
  "heel",
  "legs",
  "trunk",
  "slope",
  "up",
  "filled",
  "reach",
  "aside",
  "beside",
  "force",
  "mate",
]);
/** A move takes hold so far ahead of what is shown, s: the server's answer is there by then. */
const AHEAD = 0.16;
/** In which a late answer moves what is shown, s. */
const FADES = 0.25;
/** What is asked for beyond what is shown, s. */
const BEYOND = 5;
export const LONGEST = 120;
/** Most moves of one course, as the server takes them. */
const MOST = 400;
const DEGREE = Math.PI / 18000;

/**
 * Frames from a time on put in place of those there were.
 * @param {Moving} old
 * @param {Moving} more
 * @param {number} every
 */
function joined(old, more, every) {
  const keep = Math.round(more.from / every);
  /** @type {Moving} */
  const out = { ...more, from: 0 };
  for (const column of COLUMNS)
    out[column] = old[column].slice(0, keep).concat(more[column]);
  return out;
}

/** A course being played, and asked on. */
export class Course {
  /**
   * @param {string} address of the first of it
   * @param {{ script: string, sea: string, until: number, up: string }} begins
   */
  constructor(address, begins) {
    this.address = address;
    this.begins = begins;
    this.script = begins.script.split("*").filter((move) => move !== "");
    this.sea = begins.sea;
    this.until = begins.until;
    /** Whether the moves are one's own by now. */
    this.own = false;
    /** @type {Told | undefined} */
    this.told = undefined;
    this.asking = 0;
    /** Asked for so far, s. */
    this.reaches = 0;
    /** From when on frames are asked for that no answer has brought, s. */
    this.lacks = Infinity;
    /** When it is, s, for who shows it. */
    this.now = () => 0;
    /** How far an answer that came late moved what was shown, and when, s. */
    /** @type {{ at: number, by: Moment } | undefined} */
    this.moved = undefined;
  }

  /** The exercise as it is. */
  async open() {
    this.asking += 1;
    const turn = this.asking;
    this.lacks = Infinity;
    const answer = await fetch(this.address);
    if (!answer.ok) throw new Error(await answer.text());
    const told = await answer.json();
    if (turn !== this.asking) return;
    this.take(told);
    this.reaches = this.until;
  }

  /** @param {number} from @param {number} until */
  async ask(from, until) {
    const address = new URL(this.address, window.location.href);
    address.searchParams.set("moves", this.script.join("*"));
    address.searchParams.set("sea", this.sea);
    address.searchParams.set("up", this.begins.up);
    // What a move before was to bring, this answer brings as well.
    this.lacks = Math.min(this.lacks, from);
    address.searchParams.set("from", this.lacks.toFixed(2));
    address.searchParams.set("until", until.toFixed(2));
    this.asking += 1;
    const turn = this.asking;
    const answer = await fetch(address);
    if (!answer.ok) throw new Error(await answer.text());
    /** @type {Told} */
    const more = await answer.json();
    // A later move has been asked for meanwhile.
    if (turn !== this.asking) return;
    this.lacks = Infinity;
    this.take(more);
    this.reaches = until;
  }

  /** @param {Told} more */
  take(more) {
    const old = this.told;
    if (!old || more.main.moving.from === 0) {
      this.told = more;
      this.moved = undefined;
      return;
    }
    const now = this.now();
    const shown = this.at(old.main.moving, now);
    this.moved = undefined;
    this.join(old, more);
    if (now <= more.main.moving.from || !this.told) return;
    const is = this.at(this.told.main.moving, now);
    const names = /** @type {(keyof Moment)[]} */ (Object.keys(is));
    const by = { ...is };
    for (const name of names) by[name] = shown[name] - is[name];
    this.moved = { at: now, by };
  }

  /** @param {Told} old @param {Told} more */
  join(old, more) {
    const { every } = more;
    const keep = Math.round(more.main.moving.from / every);
    this.told = {
      ...more,
      main: {
        still: more.main.still,
        moving: joined(old.main.moving, more.main.moving, every),
      },
      faint: more.faint.map((faint, i) => ({
        still: faint.still,
        heel: (old.faint[i]?.heel ?? []).slice(0, keep).concat(faint.heel),
      })),
      ghost:
        more.ghost && old.ghost
          ? {
              name: more.ghost.name,
              drawn: {
                still: more.ghost.drawn.still,
                moving: joined(
                  old.ghost.drawn.moving,
                  more.ghost.drawn.moving,
                  every,
                ),
              },
            }
          : more.ghost,
    };
  }

  /** The exercise from its beginning, its own moves and water again. */
  anew() {
    this.script = this.begins.script.split("*").filter((move) => move !== "");
    this.sea = this.begins.sea;
    this.own = false;
    return this.open();
  }

  /**
   * Does something, just ahead of what is shown; the rest of the exercise's moves goes.
   * @param {string} move
   * @param {number} now s
   */
  async does(move, now) {
    if (this.script.length >= MOST)
      throw new Error("that is a long time: begin again");
    const at = Math.min(now + AHEAD, LONGEST);
    this.script = this.script.filter((m) => parseFloat(m) < at - 1e-6);
    this.script.push(`${at.toFixed(2)}_${move}`);
    this.own = true;
    return this.ask(at, Math.min(at + BEYOND, LONGEST));
  }

  /**
   * The same moves from the start in other water.
   * @param {string} sea
   */
  async inWater(sea) {
    const before = this.sea;
    this.sea = before === sea ? "flat" : sea;
    this.own = true;
    try {
      await this.ask(0, Math.max(this.until, 20));
    } catch (wrong) {
      this.sea = before;
      throw wrong;
    }
  }

  /**
   * Asks for more before what there is runs out.
   * @param {number} now s
   */
  async goOn(now) {
    if (!this.own || this.over() || this.reaches >= LONGEST) return;
    if (this.reaches - now > 0.5 * BEYOND || this.waits) return;
    this.waits = true;
    try {
      await this.ask(this.reaches, Math.min(this.reaches + BEYOND, LONGEST));
    } finally {
      this.waits = false;
    }
  }

  over() {
    return this.told?.main.moving.over ?? false;
  }

  /** When there is nothing more to show, s. */
  ends() {
    if (!this.told) return 0;
    return (this.told.main.moving.heel.length - 1) * this.told.every;
  }

  /** When it heels most, s. */
  furthest() {
    if (!this.told) return 0;
    const { heel } = this.told.main.moving;
    const most = heel.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    return this.told.every * heel.findIndex((h) => Math.abs(h) === most);
  }

  /**
   * Where a boat is at a time, between two frames.
   * @param {Moving} moving
   * @param {number} time
   * @returns {Moment}
   */
  at(moving, time) {
    const every = this.told?.every ?? 0.02;
    const last = moving.heel.length - 1;
    const at = Math.min(Math.max(time / every, 0), last);
    const i = Math.min(Math.floor(at), Math.max(last - 1, 0));
    /** @param {number[]} column */
    const of = (column) => {
      const a = column[i] ?? 0;
      return a + (at - i) * ((column[i + 1] ?? a) - a);
    };
    /** @type {Moment} */
    const is = {
      heel: DEGREE * of(moving.heel),
      legs: DEGREE * of(moving.legs),
      trunk: DEGREE * of(moving.trunk),
      slope: DEGREE * of(moving.slope),
      up: of(moving.up) / 1000,
      filled: of(moving.filled) / 1000,
      reach: of(moving.reach) / 1000,
      aside: of(moving.aside) / 1000,
      beside: of(moving.beside),
      force: of(moving.force),
      mate: DEGREE * of(moving.mate),
    };
    // An answer that came late moves what is shown little by little.
    const since = this.moved ? (time - this.moved.at) / FADES : 1;
    if (
      !this.moved ||
      moving !== this.told?.main.moving ||
      since < 0 ||
      since >= 1
    )
      return is;
    for (const name of /** @type {(keyof Moment)[]} */ (Object.keys(is)))
      is[name] += (1 - since) * this.moved.by[name];
    return is;
  }

  /**
   * The newest move of a kind, with its side, before a time.
   * @param {string} kind
   * @param {number} time
   * @returns {{ at: number, side: number } | undefined}
   */
  last(kind, time) {
    let found;
    for (const move of this.script) {
      const [at, what, side] = move.split("_");
      if (what === kind && parseFloat(at) <= time)
        found = { at: parseFloat(at), side: parseFloat(side ?? "0") };
    }
    return found;
  }
}

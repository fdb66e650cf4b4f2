/**
 * The pond's two pictures: the boat in its water, and its heel against time beside what the
 * hull pushes back with.
 */

import { Brush, levelOf, turned } from "./pond-figure.js";

/**
 * @typedef {import("./pond-figure.js").Moment} Moment
 * @typedef {import("./pond-figure.js").Still} Still
 * @typedef {import("./pond-course.js").Course} Course
 */

/** Millimetres shown over the water, somebody seated and on the feet, and under it. */
const OVER = [1350, 2160];
const UNDER = 430;
/** Heels up to which the trace may be read, °. */
const SCALES = [12, 24, 48, 96];

/**
 * A canvas as sharp as the screen.
 * @param {HTMLCanvasElement} canvas
 */
function fitted(canvas) {
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = [canvas.clientWidth, canvas.clientHeight];
  if (canvas.width !== Math.round(width * ratio)) {
    canvas.width = Math.round(width * ratio);
    canvas.height = Math.round(height * ratio);
  }
  return { width, height, ratio };
}

/** Colours of the page, asked once until they change. */
function palette() {
  const style = getComputedStyle(document.body);
  /** @type {Map<string, string>} */
  const known = new Map();
  const probe = document.createElement("span");
  probe.hidden = true;
  document.body.append(probe);
  /** @param {string} name */
  const colour = (name) => {
    const there = known.get(name);
    if (there) return there;
    probe.style.color = `var(--color-${name})`;
    const found = getComputedStyle(probe).color;
    known.set(name, found);
    return found;
  };
  return { colour, font: style.fontFamily, anew: () => known.clear() };
}

/** Draws a course at a time. */
export class View {
  /**
   * @param {HTMLCanvasElement} water
   * @param {HTMLCanvasElement | undefined} trace
   * @param {Course} course
   */
  constructor(water, trace, course) {
    this.water = water;
    this.trace = trace;
    this.course = course;
    this.palette = palette();
    window
      .matchMedia("(prefers-color-scheme: dark)")
      .addEventListener("change", () => this.palette.anew());
  }

  /** @param {number} time s */
  draw(time) {
    if (!this.course.told) return;
    this.drawWater(time);
    if (this.trace) this.drawTrace(time, this.trace);
  }

  /**
   * The surface: sloped as the boat feels it, levelling out to either side, with a ripple that
   * only decorates.
   * @param {CanvasRenderingContext2D} on
   * @param {number} slope
   * @param {number} time
   * @param {number} half mm
   */
  surface(on, slope, time, half) {
    on.beginPath();
    on.moveTo(-half - 99, -2 * UNDER);
    for (let y = -half - 99; y <= half + 99; y += 45) {
      const falls = 900 * Math.tanh(y / 900) * Math.tan(slope);
      const away = Math.min(Math.abs(y) / 900, 1);
      const ripple = 7 * Math.sin(y / 170 + 1.7 * time) * away;
      on.lineTo(y, ripple + 3 * Math.sin(y / 61 - 2.3 * time) * away - falls);
    }
    on.lineTo(half + 99, -2 * UNDER);
    on.closePath();
  }

  /**
   * The far shore: reeds in the haze, always the same.
   * @param {CanvasRenderingContext2D} on
   * @param {number} half mm
   */
  shore(on, half) {
    const { colour } = this.palette;
    const air = on.createLinearGradient(0, 2200, 0, 0);
    air.addColorStop(0, colour("sheet"));
    air.addColorStop(1, colour("water"));
    on.globalAlpha = 0.5;
    on.fillStyle = air;
    on.fillRect(-half, -UNDER, 2 * half, 2700);
    on.globalAlpha = 0.2;
    on.strokeStyle = colour("good");
    on.lineCap = "round";
    for (let n = -70; n <= 70; n += 1) {
      // The golden ratio spreads them evenly, without a pattern.
      const share = (n * 0.618034) % 1;
      const foot = 46 * n + 60 * share;
      const thick = Math.abs(foot) > 700 ? 1 : 0.45;
      const tall = (150 + 230 * Math.abs(share)) * thick;
      on.lineWidth = 9 * thick;
      on.beginPath();
      on.moveTo(foot, 0);
      on.quadraticCurveTo(foot, 0.6 * tall, foot + 60 * share, tall);
      on.stroke();
    }
    on.globalAlpha = 1;
  }

  /** @param {number} time */
  drawWater(time) {
    const { told } = this.course;
    const on = this.water.getContext("2d");
    if (!told || !on) return;
    const { width, height, ratio } = fitted(this.water);
    const { still } = told.main;
    const at = this.course.at(told.main.moving, time);
    // Whoever sits is looked at from closer by.
    const over = OVER[0] + (OVER[1] - OVER[0]) * at.up;
    const scale = Math.min(height / (over + UNDER), width / 2100);
    const half = (0.5 * width) / scale;
    on.setTransform(ratio, 0, 0, ratio, 0, 0);
    on.clearRect(0, 0, width, height);
    on.translate(0.5 * width, height - UNDER * scale);
    on.scale(scale, -scale);
    const { colour } = this.palette;
    const brush = new Brush(on, colour);
    this.shore(on, half);
    for (const faint of told.faint) this.faint(on, faint, at, time);
    if (told.ghost) this.ghost(on, told.ghost.drawn, time);
    this.afloat(on, still, at, () => {
      brush.seat(still, at);
      const dog = this.course.last("dog", time);
      if (dog && dog.side !== 0)
        brush.dog(still, at, dog.side * Math.min((time - dog.at) / 0.6, 1));
      brush.mate(still, at);
      brush.person(still, at, this.holds(time, at));
      brush.hull(still, at);
      brush.marks(still, at);
    });
    this.surface(on, at.slope, time, half);
    const deep = on.createLinearGradient(0, 40, 0, -UNDER);
    deep.addColorStop(0, colour("water"));
    deep.addColorStop(1, colour("waterline"));
    on.globalAlpha = 0.62;
    on.fillStyle = deep;
    on.fill();
    on.globalAlpha = 1;
    on.lineWidth = 2.2 / scale;
    on.strokeStyle = colour("waterline");
    on.stroke();
  }

  /** @param {number} time @param {Moment} at */
  holds(time, at) {
    const fish = this.course.last("fish", time);
    const here =
      fish !== undefined && time - fish.at < 3 && Math.abs(at.reach) > 0.3;
    return {
      rod: Math.abs(at.reach) < 0.5 && Math.abs(at.aside) < 0.5,
      fish: here,
    };
  }

  /**
   * Draws about the middle of the floor, which rides over the water.
   * @param {CanvasRenderingContext2D} on
   * @param {Still} still
   * @param {Moment} at
   * @param {() => void} draw
   */
  afloat(on, still, at, draw) {
    on.save();
    on.translate(0, -levelOf(still, at.heel - at.slope, at.filled));
    draw();
    on.restore();
  }

  /**
   * One of the hull's possible shapes.
   * @param {CanvasRenderingContext2D} on
   * @param {{ still: Still, heel: number[] }} faint
   * @param {Moment} main
   * @param {number} time
   */
  faint(on, faint, main, time) {
    const last = faint.heel.length - 1;
    const every = this.course.told?.every ?? 0.02;
    const i = Math.max(Math.min(Math.round(time / every), last), 0);
    const heel = ((faint.heel[i] ?? 0) * Math.PI) / 18000;
    const at = { ...main, heel };
    this.afloat(on, faint.still, at, () => {
      const brush = new Brush(on, this.palette.colour);
      brush.outline(faint.still.outline, (p) => turned(p, heel));
      on.globalAlpha = 0.4;
      on.setLineDash([22, 16]);
      on.lineWidth = 6;
      on.strokeStyle = this.palette.colour("doubt");
      on.stroke();
    });
  }

  /**
   * Another hull, or the same set up otherwise, under the same moves.
   * @param {CanvasRenderingContext2D} on
   * @param {{ still: Still, moving: import("./pond-course.js").Moving }} drawn
   * @param {number} time
   */
  ghost(on, drawn, time) {
    const at = this.course.at(drawn.moving, time);
    this.afloat(on, drawn.still, at, () => {
      on.globalAlpha = 0.32;
      const brush = new Brush(on, this.palette.colour);
      brush.seat(drawn.still, at);
      brush.person(drawn.still, at, { rod: false, fish: false });
      brush.hull(drawn.still, at);
    });
  }

  /** @param {number} time @param {HTMLCanvasElement} trace */
  drawTrace(time, trace) {
    const { told } = this.course;
    const on = trace.getContext("2d");
    if (!told || !on) return;
    const { width, height, ratio } = fitted(trace);
    on.setTransform(ratio, 0, 0, ratio, 0, 0);
    on.clearRect(0, 0, width, height);
    on.font = `12px ${this.palette.font}`;
    const wide = width > 520 ? 0.7 * width : width;
    this.heels(on, time, [wide - 12, height]);
    if (wide < width) {
      on.translate(wide + 12, 0);
      this.arms(on, time, [width - wide - 12, height]);
    }
  }

  /**
   * Heel against time: port up, starboard down; where water comes in as two lines.
   * @param {CanvasRenderingContext2D} on
   * @param {number} time
   * @param {[number, number]} size
   */
  heels(on, time, [width, height]) {
    const { told } = this.course;
    if (!told) return;
    const { colour } = this.palette;
    const { main, ghost, every } = told;
    const span = Math.max(this.course.ends(), this.course.own ? 20 : 1);
    const from = this.course.own ? Math.max(0, time - 15) : 0;
    const until = this.course.own ? from + 20 : span;
    const x = (/** @type {number} */ t) =>
      (width * (t - from)) / (until - from);
    const middle = 0.5 * height;
    const wets = Math.min(main.still.wets, main.still.runs_in) / 100;
    const heels = main.moving.heel.concat(ghost?.drawn.moving.heel ?? []);
    const reached = heels.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    const most = SCALES.find((s) => s > Math.max(reached / 100, 1)) ?? 96;
    const y = (/** @type {number} */ deg) =>
      middle + (middle - 8) * Math.max(-1, Math.min(1, deg / most));
    on.strokeStyle = colour("rule");
    on.fillStyle = colour("soft");
    on.lineWidth = 1;
    for (const share of [-0.75, 0, 0.75]) {
      const deg = share * most;
      on.beginPath();
      on.moveTo(0, y(deg));
      on.lineTo(width, y(deg));
      on.stroke();
      const side = share < 0 ? "port" : share > 0 ? "starboard" : "level";
      on.fillText(
        deg === 0 ? side : `${Math.abs(deg)}° ${side}`,
        2,
        y(deg) - 3,
      );
    }
    on.strokeStyle = colour("limit");
    on.setLineDash([6, 5]);
    for (const deg of wets < most ? [-wets, wets] : []) {
      on.beginPath();
      on.moveTo(0, y(deg));
      on.lineTo(width, y(deg));
      on.stroke();
    }
    on.setLineDash([]);
    on.fillStyle = colour("limit");
    if (wets < most)
      on.fillText(
        main.still.recess ? "water comes in" : "edge dips",
        0.4 * width,
        y(-wets) - 4,
      );
    /** @param {number[]} heels @param {string} stroke @param {number} thick */
    const line = (heels, stroke, thick) => {
      on.strokeStyle = stroke;
      on.lineWidth = thick;
      on.beginPath();
      const first = Math.max(0, Math.floor(from / every));
      for (let i = first; i < heels.length && i * every <= until; i += 3)
        on.lineTo(x(i * every), y(heels[i] / 100));
      on.stroke();
    };
    on.globalAlpha = 0.55;
    if (ghost) line(ghost.drawn.moving.heel, colour("doubt"), 1.6);
    on.globalAlpha = 0.25;
    line(main.moving.heel, colour("ink"), 1.4);
    on.globalAlpha = 1;
    const shown = Math.round(time / every) + 1;
    line(main.moving.heel.slice(0, shown), colour("link"), 2.4);
    const now = this.course.at(main.moving, time);
    on.fillStyle = colour("link");
    on.beginPath();
    on.arc(x(time), y((now.heel * 180) / Math.PI), 5, 0, 2 * Math.PI);
    on.fill();
  }

  /**
   * What the hull pushes back with at each heel, and where it is now.
   * @param {CanvasRenderingContext2D} on
   * @param {number} time
   * @param {[number, number]} size
   */
  arms(on, time, [width, height]) {
    const { told } = this.course;
    if (!told) return;
    const { colour } = this.palette;
    const { still, moving } = told.main;
    const most = Math.max(...still.arms.map(Math.abs), 1);
    const x = (/** @type {number} */ deg) => (width * deg) / 60;
    const y = (/** @type {number} */ arm) =>
      0.62 * height - (0.52 * height * arm) / most;
    on.strokeStyle = colour("rule");
    on.lineWidth = 1;
    on.beginPath();
    on.moveTo(0, y(0));
    on.lineTo(width, y(0));
    on.stroke();
    on.strokeStyle = colour("load");
    on.lineWidth = 2;
    on.beginPath();
    still.arms.forEach((arm, deg) => on.lineTo(x(deg), y(arm)));
    on.stroke();
    on.fillStyle = colour("soft");
    on.fillText("pushes back", 4, 14);
    on.fillText("0", 0, height - 4);
    on.fillText("60°", width - 26, height - 4);
    const heel =
      this.course.at(moving, time).heel - this.course.at(moving, time).slope;
    const deg = Math.min(Math.abs((heel * 180) / Math.PI), 60);
    const i = Math.min(Math.floor(deg), 59);
    const arm = still.arms[i] + (deg - i) * (still.arms[i + 1] - still.arms[i]);
    on.fillStyle = colour("limit");
    on.beginPath();
    on.arc(x(deg), y(arm), 5, 0, 2 * Math.PI);
    on.fill();
  }
}

/**
 * A moment of the pond on a canvas: the hull's section heeled in its water, the angler in it.
 * The same geometry as the stills, which the server draws (pond/scene.rs).
 */

/**
 * What does not move: mm over the middle of the floor.
 * @typedef {object} Still
 * @property {number[]} outline
 * @property {number} floor
 * @property {boolean} recess whether there is one that water can fill
 * @property {number} rim
 * @property {number} seat
 * @property {number} stature
 * @property {number} beam
 * @property {number[]} hips
 * @property {number[]} trunk
 * @property {number[]} aid
 * @property {number[]} cap
 * @property {number[]} head
 * @property {number[]} dry
 * @property {number[]} wet
 * @property {number} wets
 * @property {number} runs_in
 * @property {number[]} arms
 * @property {[number, number] | null} mate stature and hip of who sits beside
 */

/**
 * Where everything is: angles in rad, shares, lengths in mm.
 * @typedef {object} Moment
 * @property {number} heel
 * @property {number} legs
 * @property {number} trunk
 * @property {number} slope
 * @property {number} up
 * @property {number} filled
 * @property {number} reach
 * @property {number} aside
 * @property {number} beside
 * @property {number} force
 * @property {number} mate
 */

/** @typedef {[number, number]} Point across to starboard, up */

const LEG = 0.2455;
const HIP = 0.05;
const SHOULDER = [0.113, 0.27];
const FEET = [180, 130];
const HANDS = [
  [0.1, 0.03],
  [0.2, 0.02],
  [0.38, 0.17],
];

/**
 * @param {Point} point
 * @param {number} by rad, to starboard
 * @returns {Point}
 */
export function turned([y, z], by) {
  const [sin, cos] = [Math.sin(by), Math.cos(by)];
  return [y * cos + z * sin, z * cos - y * sin];
}

/**
 * @param {number} a
 * @param {number} b
 * @param {number} share
 */
const between = (a, b, share) => a + share * (b - a);

/**
 * The joint of two limbs of one length between two points, bent away from the middle.
 * @param {Point} a
 * @param {Point} b
 * @param {number} length
 * @param {number} side
 * @param {number} shown
 * @returns {Point}
 */
function bent(a, b, length, side, shown) {
  const [y, z] = [b[0] - a[0], b[1] - a[1]];
  const apart = Math.max(Math.hypot(y, z), 1e-3);
  const out =
    shown * Math.sqrt(Math.max(length * length - 0.25 * apart * apart, 0));
  return [
    between(a[0], b[0], 0.5) + (out * side * Math.abs(z)) / apart,
    between(a[1], b[1], 0.5) - (out * side * y * Math.sign(z)) / apart,
  ];
}

/**
 * Height of the water over the middle of the floor, mm.
 * @param {Still} still
 * @param {number} heel rad, from the water's slope
 * @param {number} filled
 */
export function levelOf(still, heel, filled) {
  const at = Math.abs((heel * 180) / Math.PI);
  /** @param {number[]} grid */
  const of = (grid) => {
    const i = Math.min(Math.floor(at), grid.length - 2);
    return between(grid[i] ?? 0, grid[i + 1] ?? 0, Math.min(at - i, 1));
  };
  return between(of(still.dry), of(still.wet), filled);
}

/**
 * Draws in metres: across to starboard, up from the middle of the floor.
 */
export class Brush {
  /**
   * @param {CanvasRenderingContext2D} on
   * @param {(name: string) => string} colour by the name of a token
   */
  constructor(on, colour) {
    this.on = on;
    this.colour = colour;
  }

  /** @param {number[]} flat @param {(p: Point) => Point} place */
  outline(flat, place) {
    this.on.beginPath();
    for (let i = 0; i < flat.length; i += 2) {
      const [y, z] = place([flat[i], flat[i + 1]]);
      this.on.lineTo(y, z);
    }
    this.on.closePath();
  }

  /**
   * A smooth outline: each point is pulled towards, the way leads through the middles.
   * @param {number[]} flat
   * @param {(p: Point) => Point} place
   */
  around(flat, place) {
    const { on } = this;
    /** @type {Point[]} */
    const points = [];
    for (let i = 0; i < flat.length; i += 2)
      points.push(place([flat[i], flat[i + 1]]));
    const last = points[points.length - 1];
    if (!last) return;
    on.beginPath();
    on.moveTo(
      between(last[0], points[0][0], 0.5),
      between(last[1], points[0][1], 0.5),
    );
    points.forEach(([y, z], i) => {
      const next = points[i + 1] ?? points[0];
      on.quadraticCurveTo(
        y,
        z,
        between(y, next[0], 0.5),
        between(z, next[1], 0.5),
      );
    });
    on.closePath();
  }

  /**
   * A limb that tapers from joint to joint.
   * @param {Point[]} joints
   * @param {number[]} widths mm
   */
  limb(joints, widths) {
    const { on } = this;
    for (let i = 0; i < joints.length; i += 1) {
      const [y, z] = joints[i];
      on.beginPath();
      on.arc(y, z, 0.5 * widths[i], 0, 2 * Math.PI);
      on.fill();
      if (i === 0) continue;
      const [b, c] = joints[i - 1];
      const long = Math.max(Math.hypot(y - b, z - c), 1e-3);
      const [across, up] = [-(z - c) / long, (y - b) / long];
      const [from, to] = [0.5 * widths[i - 1], 0.5 * widths[i]];
      on.beginPath();
      on.moveTo(b + across * from, c + up * from);
      on.lineTo(y + across * to, z + up * to);
      on.lineTo(y - across * to, z - up * to);
      on.lineTo(b - across * from, c - up * from);
      on.fill();
    }
  }

  /**
   * The hull, heeled.
   * @param {Still} still
   * @param {Moment} at
   */
  hull(still, at) {
    const { on, colour } = this;
    this.outline(still.outline, (p) => turned(p, at.heel));
    on.fillStyle = colour("hull");
    on.strokeStyle = colour("hull-edge");
    on.lineWidth = 7;
    on.lineJoin = "round";
    on.fill();
    on.stroke();
    if (still.rim > 0 && at.filled > 0.004) this.aboard(still, at);
  }

  /** Water on the floor, where it runs: to the low side. @param {Still} still @param {Moment} at */
  aboard(still, at) {
    const { on, colour } = this;
    on.save();
    on.beginPath();
    for (const corner of [
      [-still.floor, 0],
      [still.floor, 0],
      [still.floor, still.rim],
      [-still.floor, still.rim],
    ])
      on.lineTo(...turned(/** @type {Point} */ (corner), at.heel));
    on.clip();
    const low = -Math.abs(still.floor * Math.sin(at.heel));
    const height = low + at.filled * (still.rim - low);
    on.fillStyle = colour("waterline");
    on.globalAlpha = 0.55;
    on.fillRect(-2000, -2000, 4000, 2000 + height);
    on.restore();
  }

  /** @param {Still} still @param {Moment} at */
  marks(still, at) {
    if (still.rim <= 0) return;
    const { on, colour } = this;
    on.fillStyle = colour("limit");
    for (const side of [-1, 1]) {
      on.beginPath();
      on.arc(...turned([side * still.floor, 0], at.heel), 13, 0, 2 * Math.PI);
      on.fill();
    }
  }

  /** @param {Still} still @param {Moment} at */
  seat(still, at) {
    if (still.seat < 30) return;
    const { on, colour } = this;
    on.strokeStyle = colour("hull-edge");
    on.lineWidth = 16;
    on.beginPath();
    on.moveTo(...turned([-200, still.seat], at.heel));
    on.lineTo(...turned([200, still.seat], at.heel));
    for (const side of [-160, 160]) {
      on.moveTo(...turned([side, 0], at.heel));
      on.lineTo(...turned([side, still.seat], at.heel));
    }
    on.stroke();
  }

  /**
   * Whoever is in it, the aid on.
   * @param {Still} still
   * @param {Moment} at
   * @param {{ rod: boolean, fish: boolean }} holds
   */
  person(still, at, holds) {
    const { on, colour } = this;
    const tall = still.stature;
    const high = between(still.hips[0], still.hips[1], at.up);
    const beside = turned([at.beside, 0], at.heel);
    const middle = turned([0, high], at.legs);
    /** @type {Point} */
    const hip = [middle[0] + beside[0], middle[1] + beside[1]];
    /** @param {Point} p @returns {Point} */
    const onTrunk = (p) => {
      const [y, z] = turned(p, at.trunk);
      return [hip[0] + y, hip[1] + z];
    };
    on.strokeStyle = colour("cloth");
    on.fillStyle = colour("cloth");
    /** @type {Point[]} */
    const hands = [];
    for (const side of [-1, 1]) {
      const foot = this.foot(still, at, side);
      const top = onTrunk([side * HIP * tall, 0]);
      const knee = bent(top, foot, LEG * tall, side, 0.5);
      this.limb([top, knee, foot], [0.085 * tall, 0.07 * tall, 0.05 * tall]);
      hands.push(this.hand(tall, at, side, onTrunk));
    }
    this.around(still.trunk, onTrunk);
    on.fill();
    const neck = onTrunk([0, (SHOULDER[1] + 0.02) * tall]);
    const head = onTrunk([0, still.head[0]]);
    this.limb([neck, head], [0.06 * tall, 0.05 * tall]);
    this.around(still.aid, onTrunk);
    on.fillStyle = colour("aid");
    on.strokeStyle = colour("cloth");
    on.lineWidth = 6;
    on.fill();
    on.stroke();
    on.fillStyle = colour("skin");
    on.beginPath();
    on.arc(...head, still.head[1], 0, 2 * Math.PI);
    on.fill();
    on.stroke();
    this.around(still.cap, onTrunk);
    on.fillStyle = colour("cloth");
    on.fill();
    if (holds.rod) this.rod(hands[1], at);
    if (holds.fish) this.fish(hands[at.reach < 0 ? 0 : 1]);
  }

  /** Who sits behind the angler, paler. @param {Still} still @param {Moment} at */
  mate(still, at) {
    if (!still.mate) return;
    const [tall, high] = still.mate;
    const { on } = this;
    on.save();
    on.globalAlpha = 0.45;
    const share = tall / still.stature;
    this.person(
      {
        ...still,
        stature: tall,
        hips: [high, high],
        trunk: still.trunk.map((v) => share * v),
        aid: still.aid.map((v) => share * v),
        cap: still.cap.map((v) => share * v),
        head: still.head.map((v) => share * v),
      },
      {
        ...at,
        legs: at.heel,
        trunk: at.mate,
        up: 0,
        reach: 0,
        aside: 0,
        beside: 0,
        force: 0,
      },
      { rod: false, fish: false },
    );
    on.restore();
  }

  /** @param {Still} still @param {Moment} at @param {number} side @returns {Point} */
  foot(still, at, side) {
    const inside = turned(
      [side * between(FEET[1], FEET[0], at.up), 20],
      at.heel,
    );
    const over = Math.sign(at.aside) * (0.5 * still.beam + 40 + 40 * side);
    const outside = turned([over, -100], at.heel);
    const share = Math.abs(at.aside);
    return [
      between(inside[0], outside[0], share),
      between(inside[1], outside[1], share),
    ];
  }

  /**
   * Draws an arm; where its hand is.
   * @param {number} tall
   * @param {Moment} at
   * @param {number} side
   * @param {(p: Point) => Point} onTrunk
   */
  hand(tall, at, side, onTrunk) {
    const shoulder = onTrunk([side * SHOULDER[0] * tall, SHOULDER[1] * tall]);
    const reaches = Math.max(side * at.reach, 0);
    // A cast lifts the hand that throws.
    const throws = side > 0 ? Math.min(Math.abs(at.force) / 60, 1) : 0;
    /** @param {number} i */
    const along = (i) =>
      between(between(HANDS[0][i], HANDS[1][i], at.up), HANDS[2][i], reaches);
    const lifted = along(1) + 0.22 * throws;
    const hand = onTrunk([side * along(0) * tall, lifted * tall]);
    const elbow = bent(shoulder, hand, 0.155 * tall, side, 0.5);
    this.limb(
      [shoulder, elbow, hand],
      [0.046 * tall, 0.04 * tall, 0.034 * tall],
    );
    return hand;
  }

  /** A rod in the hand, bent by what pulls at it. @param {Point} hand @param {Moment} at */
  rod(hand, at) {
    const { on, colour } = this;
    const lean = 0.3 + at.trunk + at.force / 90;
    const tip = turned([0, 1050], lean);
    const bend = turned([0, 700], 0.3 + at.trunk);
    on.lineCap = "round";
    on.strokeStyle = colour("ink");
    on.lineWidth = 10;
    on.beginPath();
    on.moveTo(...hand);
    on.quadraticCurveTo(
      hand[0] + bend[0],
      hand[1] + bend[1],
      hand[0] + tip[0],
      hand[1] + tip[1],
    );
    on.stroke();
  }

  /** @param {Point} hand */
  fish([y, z]) {
    const { on, colour } = this;
    on.fillStyle = colour("load");
    on.beginPath();
    on.ellipse(y, z - 150, 46, 150, 0, 0, 2 * Math.PI);
    on.moveTo(y, z - 270);
    on.lineTo(y - 70, z - 370);
    on.lineTo(y + 70, z - 370);
    on.fill();
  }

  /** A dog at a side. @param {Still} still @param {Moment} at @param {number} share */
  dog(still, at, share) {
    const { on, colour } = this;
    const [y, z] = turned([share * 300, 160], at.heel);
    on.fillStyle = colour("hull-edge");
    on.beginPath();
    on.ellipse(y, z, 150, 110, at.heel, 0, 2 * Math.PI);
    const ahead = Math.sign(share || 1);
    on.ellipse(y + ahead * 120, z + 130, 75, 65, 0, 0, 2 * Math.PI);
    on.fill();
    on.beginPath();
    on.ellipse(y + ahead * 85, z + 190, 22, 50, -0.4 * ahead, 0, 2 * Math.PI);
    on.fill();
  }
}

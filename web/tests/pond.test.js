import assert from "node:assert/strict";
import { test } from "node:test";
import { Course } from "../static/js/pond-course.js";
import { levelOf, turned } from "../static/js/pond-figure.js";

const near = (a, b) => assert.ok(Math.abs(a - b) < 1e-6, `${a} for ${b}`);

/** So many frames whose heel is their number. */
function told(from, count) {
  const column = Array.from({ length: count }, (_, i) => from / 0.02 + i);
  const names =
    "heel legs trunk slope up filled reach aside beside force mate".split(" ");
  const moving = Object.fromEntries(names.map((name) => [name, column]));
  const main = {
    still: {},
    moving: { ...moving, from, happened: [], over: false },
  };
  return { every: 0.02, main, faint: [], ghost: null, story: [] };
}

test("starboard goes down, a mast leans to it", () => {
  const [y, z] = turned([1, 0], Math.PI / 6);
  near(y, Math.cos(Math.PI / 6));
  near(z, -0.5);
  near(turned([0, 2], Math.PI / 6)[0], 1);
});

test("the water's height is read between whole degrees, and between dry and full", () => {
  const still = { dry: [-30, -20, -10], wet: [10, 10, 10] };
  near(levelOf(still, Math.PI / 360, 0), -25);
  near(levelOf(still, -Math.PI / 360, 0), -25);
  near(levelOf(still, 0, 0.5), -10);
  near(levelOf(still, 1, 0), -10);
});

test("a moment lies between two frames, and frames from a time on take the place of others", () => {
  const course = new Course("/pond/course.json", {
    script: "2_stand*8_cast",
    sea: "flat",
    until: 1,
    up: "false",
  });
  course.take(told(0, 51));
  near(course.ends(), 1);
  near(course.at(course.told.main.moving, 0.03).up, 0.0015);
  const later = told(0.5, 100);
  later.main.moving.heel = later.main.moving.heel.map(() => -7);
  course.take(later);
  assert.equal(course.told.main.moving.heel.length, 125);
  assert.equal(course.told.main.moving.heel[24], 24);
  assert.equal(course.told.main.moving.heel[25], -7);
  near(course.furthest(), 24 * 0.02);
});

test("a move of one's own ends the exercise's, and an older answer does not undo it", async () => {
  const asked = [];
  const answers = [];
  globalThis.window = { location: { href: "http://127.0.0.1/pond" } };
  globalThis.fetch = (address) => {
    asked.push(new URL(address));
    return new Promise((done) => answers.push(done));
  };
  const course = new Course("/pond/course.json?hull=one", {
    script: "2_stand*8_cast",
    sea: "flat",
    until: 24,
    up: "false",
  });
  course.take(told(0, 1201));
  const first = course.does("lean_1", 5);
  const second = course.does("lean_0", 5.5);
  assert.equal(
    asked[1].searchParams.get("moves"),
    "2_stand*5.16_lean_1*5.66_lean_0",
  );
  // The first has not been answered: this one brings what it was to bring.
  assert.equal(asked[1].searchParams.get("from"), "5.16");
  const answer = (body) => ({ ok: true, json: async () => body });
  const newest = told(5.16, 35);
  newest.main.moving.heel = newest.main.moving.heel.map(() => -1);
  answers[1](answer(newest));
  await second;
  answers[0](answer(told(5.16, 500)));
  await first;
  assert.equal(course.told.main.moving.heel.length, 293);
  assert.deepEqual(course.last("lean", 5.5), { at: 5.16, side: 1 });
  assert.equal(course.last("cast", 30), undefined);
});

test("an answer that came late moves what is shown little by little", () => {
  const course = new Course("/pond/course.json", {
    script: "",
    sea: "flat",
    until: 2,
    up: "false",
  });
  course.take(told(0, 101));
  course.now = () => 1;
  const late = told(0.5, 100);
  late.main.moving.reach = late.main.moving.reach.map(() => 1000);
  const before = course.at(course.told.main.moving, 1).reach;
  course.take(late);
  const at = (time) => course.at(course.told.main.moving, time).reach;
  near(at(1), before);
  near(at(1.125), before + 0.5 * (1 - before));
  near(at(1.3), 1);
});

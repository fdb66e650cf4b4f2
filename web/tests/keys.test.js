import assert from "node:assert/strict";
import { test } from "node:test";
import { STEP, stepOf, walkTo } from "../static/js/keys.js";

test("an arrow key moves a centimetre, with Shift ten", () => {
  assert.deepEqual(stepOf("ArrowLeft", false), [-0.01, 0]);
  assert.deepEqual(stepOf("ArrowRight", true), [10 * STEP, 0]);
  assert.deepEqual(stepOf("ArrowUp", false), [0, -0.01]);
  assert.deepEqual(stepOf("ArrowDown", true), [0, 0.1]);
  assert.equal(stepOf("r", false), undefined);
  assert.equal(stepOf("constructor", false), undefined);
});

test("keys walk along a list and stop at its ends", () => {
  assert.equal(walkTo("ArrowDown", 0, 3), 1);
  assert.equal(walkTo("ArrowDown", 2, 3), undefined);
  assert.equal(walkTo("ArrowUp", 2, 3), 1);
  assert.equal(walkTo("ArrowUp", 0, 3), undefined);
  assert.equal(walkTo("Home", 2, 3), 0);
  assert.equal(walkTo("End", 0, 3), 2);
  // Left and right are for what lies side by side.
  assert.equal(walkTo("ArrowRight", 0, 3), undefined);
  assert.equal(walkTo("ArrowRight", 0, 3, { sideways: true }), 1);
  assert.equal(walkTo("ArrowLeft", 1, 3, { sideways: true }), 0);
  // Nothing to walk along, and other keys.
  assert.equal(walkTo("End", -1, 0), undefined);
  assert.equal(walkTo("Enter", 0, 3), undefined);
  assert.equal(walkTo("toString", 0, 3), undefined);
});

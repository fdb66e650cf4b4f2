import assert from "node:assert/strict";
import { test } from "node:test";
import { displaced } from "../static/js/displaced.js";

const crate = { thing: "crate", nth: "0", name: "crate", place: "tank well" };
const box = (nth, place) => ({ thing: "box", nth, name: "box", place });
const moving = { thing: "crate", nth: 0 };

test("what a tried layout moves is told, the thing in hand is not", () => {
  const now = [crate, box("0", "tank well"), box("1", "bow hatch")];
  const elsewhere = { ...crate, place: "bow hatch" };
  assert.deepEqual(displaced(now, now, moving), []);
  assert.deepEqual(
    displaced(
      now,
      [elsewhere, box("0", "stern hatch"), box("1", "bow hatch")],
      moving,
    ),
    [{ thing: "box", nth: "0", words: "box would go to the stern hatch" }],
  );
  // Of two of a kind the one that is meant.
  assert.deepEqual(displaced(now, [elsewhere, box("0", "tank well")], moving), [
    { thing: "box", nth: "1", words: "box would find no place" },
  ]);
});

test("what has no place and finds none is not displaced", () => {
  const adrift = box("0", "");
  assert.deepEqual(displaced([adrift], [], moving), []);
  assert.deepEqual(displaced([adrift], [box("0", "tank well")], moving), [
    { thing: "box", nth: "0", words: "box would go to the tank well" },
  ]);
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { patched, patchOf } from "../../src/app/worker/patch.ts";
import type { Leg, Project, Screen } from "../../src/core/model/schema.ts";
import { randomDocument } from "../random/documents.ts";

/** As it comes out on the other side. */
const across = <T>(value: T): T => structuredClone(value);

describe("a patch to the project that a worker has", () => {
  it("makes there what was made here, and keeps what was not edited", () => {
    const before = randomDocument(7);
    const there = across(before);
    const [first] = before.screens as [Screen];
    const after: Project = { ...before, name: "Other", screens: [{ ...first, name: "First" }, ...before.screens.slice(1)] };
    const patch = patchOf(before, after);
    expect(Object.keys(patch.fields)).toEqual(["name"]);
    expect(Object.keys(patch.lists)).toEqual(["screens"]);
    const made = patched(there, across(patch));
    expect(made).toEqual(after);
    expect(made.legs).toBe(there.legs);
    expect(made.screens[1]).toBe(there.screens[1]);
  });

  it("follows entries added, removed, moved and changed, and fields that come and go", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), fc.array(fc.nat(20), { maxLength: 8 }), fc.boolean(), (seed, moves, accepts) => {
        const before = randomDocument(seed);
        const there = across(before);
        const legs = [...before.legs];
        for (const n of moves) {
          const at = n % Math.max(1, legs.length);
          const [leg] = legs.splice(at, 1);
          if (leg && n % 3 !== 0) legs.push(n % 2 === 0 ? leg : ({ ...leg, note: `n${n}` } as Leg));
        }
        const { accepted: _, ...rest } = before;
        const after: Project = { ...rest, legs, ...(accepts ? { accepted: [{ code: "far", subjects: ["s0"], reason: "so" }] } : {}) };
        expect(patched(there, across(patchOf(before, after)))).toEqual(after);
      }),
    );
  });
});

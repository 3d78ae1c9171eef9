import { describe, expect, it } from "vitest";
import { type Luma, type Rect, snapped } from "../../../src/core/pictures/snap.ts";
import { seeded } from "../../random/documents.ts";

/** A plain ground with rectangles on it, each of a brightness. */
function drawn(width: number, height: number, boxes: Array<{ at: Rect; value: number }>, noise = 0, seed = 1): Luma {
  const random = seeded(seed);
  const values = new Uint8Array(width * height).map(() => 220 + Math.floor(random() * noise));
  for (const { at, value } of boxes)
    for (let y = at[1]; y < at[1] + at[3]; y++) for (let x = at[0]; x < at[0] + at[2]; x++) values[y * width + x] = value + Math.floor(random() * noise);
  return { width, height, values };
}

describe("an area that is drawn by hand", () => {
  it("goes to the edges of what is there, on random pictures, also where they are grainy", () => {
    const random = seeded(5);
    for (let i = 0; i < 200; i++) {
      const [w, h] = [60 + Math.floor(random() * 200), 24 + Math.floor(random() * 60)];
      const at: Rect = [20 + Math.floor(random() * 80), 20 + Math.floor(random() * 80), w, h];
      const luma = drawn(400, 240, [{ at, value: random() < 0.5 ? 90 : 160 }], i % 2 === 0 ? 0 : 6, i);
      const off = () => Math.floor(random() * 17) - 8;
      const [x0, y0, x1, y1] = [at[0] + off(), at[1] + off(), at[0] + w + off(), at[1] + h + off()];
      expect(snapped(luma, [x0, y0, x1 - x0, y1 - y0], 9), `seed ${i}`).toEqual(at);
    }
  });

  it("stays as it is drawn where there is no edge within reach, and never leaves the picture", () => {
    const luma = drawn(400, 240, [{ at: [100, 100, 80, 40], value: 60 }]);
    expect(snapped(luma, [200, 150, 50, 30], 9)).toEqual([200, 150, 50, 30]);
    expect(snapped(luma, [300, 200, 300, 300], 9)).toEqual([300, 200, 100, 40]);
    expect(snapped(luma, [-40, -40, 60, 60], 9)).toEqual([0, 0, 20, 20]);
    expect(snapped(luma, [3, 100, 60, 40], 9)[0]).toBe(0);
  });

  it("takes the nearer of two edges that are alike", () => {
    const luma = drawn(400, 240, [
      { at: [100, 60, 100, 60], value: 90 },
      { at: [212, 60, 100, 60], value: 90 },
    ]);
    expect(snapped(luma, [104, 64, 98, 52], 9)).toEqual([100, 60, 100, 60]);
  });
});

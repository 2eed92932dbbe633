import fc from "fast-check";
import jsQR from "jsqr";
import { create } from "qrcode";
import { describe, expect, it } from "vitest";
import { codesText, textToCodes, withCode, type CodesRead } from "./codes";

const readAll = (codes: readonly string[]) =>
  codes.reduce<CodesRead | null>((read, code) => withCode(read, code), null)!;

describe("a text as codes", () => {
  it("comes back as it was, in whatever order its codes are seen, and however often (law)", () => {
    const text = fc.string({ unit: "binary", maxLength: 3_000 });
    fc.assert(
      fc.property(text, fc.func(fc.nat()), (said, by) => {
        const codes = textToCodes(said)!;
        const seen = [...codes, ...codes.slice(0, 2)].sort((a, b) => by(a) - by(b));
        expect(codesText(readAll(seen))).toEqual({ ok: true, value: said });
        if (codes.length > 1) expect(codesText(readAll(codes.slice(1)))).toEqual({ ok: true, value: null });
      }),
    );
  });

  it("is refused where a letter of it was read wrongly", () => {
    const codes = textToCodes(JSON.stringify(Array.from({ length: 400 }, (_, i) => ({ i, at: i * i }))))!;
    expect(codes.length).toBeGreaterThan(1);
    const wrong = codes.map((c, i) => (i === 0 ? `${c.slice(0, -1)}${c.endsWith("A") ? "B" : "A"}` : c));
    expect(codesText(readAll(wrong))).toEqual({ ok: false, error: { code: "broken" } });
  });

  it("is refused where it does not unpack, or unpacks without end", () => {
    const forge = (letters: string) => {
      const [code] = textToCodes("x")!;
      const [, sum] = code!.split(".");
      return codesText(withCode(null, `ZN1.${sum}.1.1.${letters}`)!);
    };
    expect(forge("AAAA")).toEqual({ ok: false, error: { code: "broken" } });
    const bomb = textToCodes("0".repeat(3_900_000));
    expect(bomb && codesText(readAll(bomb)).ok).toBe(true);
    expect(textToCodes("0".repeat(4_100_000))).toBeNull();
  });

  it("is left alone by any other code, and begun anew by one of another text", () => {
    const [one, other] = [textToCodes("one")!, textToCodes("other")!];
    const read = readAll(one);
    for (const code of ["", "https://example.org", "ZN1.0.1.1.AA", "ZN1.000000000000.0.1.AA", "ZN1.000000000000.2.1.AA", "ZN1.000000000000.1.999.AA"])
      expect(withCode(read, code)).toBe(read); // prettier-ignore
    expect(codesText(withCode(read, other[0]!)!)).toEqual({ ok: true, value: "other" });
  });

  it("of one night's presses fits into codes that an independent reader reads (jsQR over a drawing of 4 px a module)", () => {
    const night = JSON.stringify(Array.from({ length: 80 }, (_, i) => ({ id: `event-k${i}x7`, kind: "event", rev: `00019b0c${i}-0-node`, author: "node", seen: {}, data: { memberId: "member-ines", night: "2026-12-05", rigId: "rig-refractor", atMs: 1_796_490_000_000 + i * 437_123, is: { what: "focused", airC: i % 7, steps: 5_000 + i } } }))); // prettier-ignore
    const codes = textToCodes(night)!;
    expect(codes.length).toBeLessThan(20);
    let read: CodesRead | null = null;
    for (const code of codes) {
      const { modules } = create(code, { errorCorrectionLevel: "L" });
      expect(modules.size).toBeLessThanOrEqual(85);
      const side = (modules.size + 8) * 4;
      const pixels = new Uint8ClampedArray(4 * side * side).fill(255);
      for (let y = 0; y < side; y++)
        for (let x = 0; x < side; x++) {
          const [col, row] = [Math.floor(x / 4) - 4, Math.floor(y / 4) - 4];
          const isDark = col >= 0 && row >= 0 && col < modules.size && row < modules.size && modules.get(row, col);
          if (isDark) pixels.fill(0, 4 * (y * side + x), 4 * (y * side + x) + 3);
        }
      read = withCode(read, jsQR(pixels, side, side)!.data);
    }
    expect(codesText(read!)).toEqual({ ok: true, value: night });
  });
});

const card = ([k, v]: readonly [string, string | number]) =>
  `${k.padEnd(8)}= ${typeof v === "number" || v === "T" ? String(v).padStart(20) : `'${v}'`}`.padEnd(80);

/** A light of the demo's refractor, as its camera's program writes it: FITS with these pixels, square. */
export function lightFrame(startIso: string, side: number, pixels: Buffer, filter = "OIII 5 nm"): Buffer {
  const cards = [["SIMPLE", "T"], ["BITPIX", 16], ["NAXIS", 2], ["NAXIS1", side], ["NAXIS2", side], ["IMAGETYP", "Light Frame"], ["DATE-OBS", startIso], ["EXPTIME", 300], ["FILTER", filter], ["INSTRUME", "Mono-43"], ["FOCALLEN", 480], ["XPIXSZ", 4.63], ["OBJCTRA", "04 43 21"], ["OBJCTDEC", "+46 42 00"]] as const; // prettier-ignore
  const head = Buffer.from((cards.map(card).join("") + "END").padEnd(2880));
  return Buffer.concat([head, pixels, Buffer.alloc((2880 - (pixels.length % 2880)) % 2880)]);
}

/** Pixels of a small star field: 36 round stars of one width, in pixels, on a noisy sky; each seed another noise. */
export function starPixels(side: number, sigma: number, seed: number): Buffer {
  let state = seed;
  const random = () => (state = (state * 1_103_515_245 + 12_345) & 0x7fffffff) / 0x7fffffff;
  const values = Float32Array.from({ length: side * side }, () => 900 + 40 * (random() + random() + random() - 1.5));
  for (let s = 0; s < 36; s++) {
    const [x, y] = [30 + (s % 6) * 40 + 5 * random(), 30 + Math.floor(s / 6) * 40 + 5 * random()];
    for (let py = Math.round(y) - 12; py <= Math.round(y) + 12; py++)
      for (let px = Math.round(x) - 12; px <= Math.round(x) + 12; px++)
        if (px >= 0 && py >= 0 && px < side && py < side)
          values[py * side + px]! +=
            (9000 / sigma ** 2) * Math.exp(-((px - x) ** 2 + (py - y) ** 2) / (2 * sigma ** 2));
  }
  const data = Buffer.alloc(side * side * 2);
  values.forEach((v, i) => data.writeInt16BE(Math.min(32_767, Math.round(v)), 2 * i));
  return data;
}

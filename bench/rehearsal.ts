import { readFileSync } from "node:fs";
import { starZones, unpackCatalog, unpackStars, type PackedCatalog } from "~/core/catalog";
import { hindsight, playNight, PREPARED, PREPARED_TARGET, preparedNight } from "~/core/rehearsal";
import { fileOfSub } from "~/core/rehearsal";

/** The rehearsal without its page: playing and judging each prepared night, and frames of 1,024 pixels a side: `npx tsx bench/rehearsal.ts`. */
const catalog = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
const stars = unpackStars(new Uint8Array(readFileSync("app/data/stars.bin")));
if (!catalog.ok || !stars.ok) throw new Error("the packed data do not read");
const target = catalog.value.find((e) => e.id === PREPARED_TARGET)!;
const zones = starZones(stars.value);
const median = (list: number[]) => list.sort((a, b) => a - b)[list.length >> 1]!;
const timed = (times: number, work: () => unknown) =>
  median(
    Array.from({ length: times }, () => {
      const from = performance.now();
      work();
      return performance.now() - from;
    }),
  );

for (const which of PREPARED) {
  const night = preparedNight(which, target);
  const played = playNight(night, 1, { ways: [], then: "advice" });
  const playMs = timed(9, () => playNight(night, 1, { ways: [], then: "advice" }));
  const judgeMs = timed(1, () => [...hindsight(night, 1, played)]);
  console.log(`${which}: ${played.subs.length} subs, ${played.decided.length} decisions; played in ${playMs.toFixed(1)} ms, judged in ${judgeMs.toFixed(0)} ms`); // prettier-ignore
}
const night = preparedNight("flip", target);
const { subs } = playNight(night, 1, { ways: [], then: "advice" });
console.log(`frame of 1,024 pixels a side, from its exposure to its bytes: ${timed(25, () => fileOfSub(night, 1, subs[3]!, 1024, zones)).toFixed(0)} ms (aim 60 ms)`); // prettier-ignore
console.log(`whole sensor of 11.7 Mpx: ${timed(3, () => fileOfSub(night, 1, subs[3]!, null, zones)).toFixed(0)} ms`);

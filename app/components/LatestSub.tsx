import { clockTime } from "~/components/clock";
import { counted, fixed } from "~/components/numbers";
import { hintWords } from "~/components/words/cull-words";
import { CULL_WORDS } from "~/components/words/log-words";
import { compass } from "~/components/words/compass";
import { Why } from "~/components/ui/Why";
import type { Landing } from "~/core/live";

/** "2.9″ (usual 2.6″)"; "2.9″" where nobody can say what is usual. */
const against = (value: string, usual: string | null): string => (usual === null ? value : `${value} (usual ${usual})`);

/** The sub that landed last, against its like of the night. `scale` = arcseconds a pixel of its rig. */
export function LatestSub({
  landing: { sub, count, usual, hint, offArcmin, drift },
  projectName,
  scale,
  zone,
}: {
  readonly landing: Landing;
  readonly projectName: string;
  readonly scale: number;
  readonly zone: string;
}) {
  const { measure, panel, channel, startMs, exposureSec } = sub.data;
  const told = (value: number | null, usually: number | null, words: (v: number) => string): string | null =>
    value === null ? null : against(words(value), usually === null ? null : words(usually));
  const width = (px: number) => (scale > 0 ? `${fixed(px * scale, 1)}″` : `${fixed(px, 1)} px`);
  const figures: readonly (readonly [name: string, words: string | null])[] = [
    ["FWHM", told(measure?.fwhmPx ?? null, usual.fwhmPx, width)],
    ["Eccentricity", told(measure?.eccentricity ?? null, usual.eccentricity, (v) => fixed(v, 2))],
    ["Stars", told(measure?.stars ?? null, usual.stars, (v) => fixed(v))],
    ["Sky, counts", told(measure?.background ?? null, usual.background, (v) => fixed(v))],
    ["Off its panel", offArcmin === null ? null : `${fixed(offArcmin, 1)}′`],
    [
      "Drift",
      drift && `${fixed(drift.arcsecPerHour, 0)}″/h to the ${compass(drift.towardsDeg)}, by ${counted(drift.subs, "solution")}`, // prettier-ignore
    ],
  ];
  return (
    <section aria-label="The last sub" className="border-rule my-3 border-t pt-2">
      <p>
        The last sub, {startMs === null ? "" : `${clockTime(startMs + exposureSec * 1000, zone)}: `}
        {projectName}, {panel} {channel}, number {count} of its like tonight.
      </p>
      {measure ? null : <p className="text-soft">Its stars were not measured: packed, no FITS, or too few of them.</p>}
      <dl className="mt-1 grid grid-cols-2 gap-x-4 gap-y-1 sm:flex sm:flex-wrap sm:gap-x-6">
        {figures.map(([name, words]) =>
          words === null ? null : (
            <div key={name}>
              <dt className="text-note text-soft">{name}</dt>
              <dd className="text-lg">{words}</dd>
            </div>
          ),
        )}
      </dl>
      {hint ? (
        <p className="border-rust text-rust mt-2 border-l-2 pl-3">
          It stands out: {hintWords(hint)}. Looks like {CULL_WORDS[hint.reason]}.
        </p>
      ) : null}
      <p className="text-note mt-1">
        <Why title="What this is held against">
          The usual is the middle of tonight’s subs of the same project, panel, channel, rig and length, once there are
          three. A sub stands out when it is wider, longer or brighter by more than 3 robust standard deviations, or has
          less than 70 % of the stars, once there are ten. The drift is the middle slope between all pairs of the last
          40 plate solutions, which dithers leave alone.
        </Why>
      </p>
    </section>
  );
}

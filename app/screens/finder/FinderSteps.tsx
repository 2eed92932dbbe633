import { fixed } from "~/components/numbers";
import type { FinderPath, Hop } from "~/core/finder";
import { formatDegrees } from "~/core/notation";
import { compass } from "~/components/words/compass";

/** A hop in degrees, hands or fields, as an arm can follow it. */
function hopWords(hop: Hop, finderDeg: number): string {
  const fields = hop.degrees / finderDeg;
  const measure = fields < 0.75 ? "within the finder’s field" : `${fixed(fields, 1)} finder fields`;
  return `${formatDegrees(hop.degrees)} ${hop.way} (${measure}; on the sky towards ${Math.round(hop.positionAngleDeg)}°, ${compass(hop.positionAngleDeg)})`;
}

/** The way to a target in words: where to begin, and every hop. */
export function FinderSteps({
  path,
  targetName,
  finderDeg,
}: {
  readonly path: FinderPath;
  readonly targetName: string;
  readonly finderDeg: number;
}) {
  switch (path.kind) {
    case "targetDown":
      return (
        <p className="text-figure">
          {path.at.altitudeDeg < 0
            ? `${targetName} is below the horizon at that time.`
            : `${targetName} stands ${formatDegrees(path.at.altitudeDeg, 0)} high towards ${compass(path.at.azimuthDeg)}, behind your skyline.`}
        </p>
      );
    case "noStar":
      return (
        <p className="text-figure">No star the eye sees at once stands clear of your skyline. Choose another time.</p>
      );
    case "path":
      return (
        <ol className="space-y-2">
          <li>
            <span className="font-semibold">{path.start.name}</span>, magnitude {fixed(path.start.magnitude, 1)}: stands{" "}
            {formatDegrees(path.startAt.altitudeDeg, 0)} high towards {compass(path.startAt.azimuthDeg)} (azimuth{" "}
            {formatDegrees(path.startAt.azimuthDeg, 0)}). Begin here.
          </li>
          {path.hops.map((hop, i) => (
            <li key={i}>
              <span className="text-lamp font-semibold">{i + 1}</span> {hopWords(hop, finderDeg)} to{" "}
              <span className="font-semibold">
                {hop.to ? `${hop.to.name}, magnitude ${fixed(hop.to.magnitude, 1)}` : targetName}
              </span>
              .
            </li>
          ))}
        </ol>
      );
  }
}

import { fixed } from "~/components/numbers";
import type { CatalogEntry } from "~/core/catalog";
import { bestEllipseAngle } from "~/core/framing";
import { formatDeclination, formatRightAscension } from "~/core/notation";
import { lightWords, pixelWords, sizeWords } from "~/components/words/target-words";
import { Panel } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";

/** What is known of an object, how sure, and how it sits in one frame. */
export function TargetFacts({
  entry,
  frame,
}: {
  readonly entry: CatalogEntry;
  readonly frame?: {
    readonly widthArcmin: number;
    readonly heightArcmin: number;
    readonly arcsecPerPx: number;
    readonly rigName: string;
  };
}) {
  const fit =
    frame && entry.majorArcmin !== null
      ? bestEllipseAngle(
          { major: entry.majorArcmin, minor: entry.minorArcmin ?? entry.majorArcmin },
          {
            long: Math.max(frame.widthArcmin, frame.heightArcmin),
            short: Math.min(frame.widthArcmin, frame.heightArcmin),
          },
        )
      : null;
  const c = entry.curated;
  return (
    <Panel title="Facts">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        <dt className="text-soft">Position</dt>
        <dd>
          {formatRightAscension(entry.at.raDeg, 0)}
          <br />
          {formatDeclination(entry.at.decDeg)}
        </dd>
        <dt className="text-soft">Size</dt>
        <dd>
          <Why title={sizeWords(entry)}>
            <p>
              {c
                ? `General knowledge, not measured; confidence ${c.confidence}.`
                : "From the catalogue. Galaxy sizes are lower limits: frame with half as much again."}
            </p>
          </Why>
        </dd>
        {fit ? (
          <>
            <dt className="text-soft">In one frame</dt>
            <dd>
              {fit.fill <= 1 ? `fills ${Math.round(fit.fill * 100)} %` : `${fixed(fit.fill, 1)} × too large`},{" "}
              {pixelWords(entry, frame!.arcsecPerPx)}, {frame!.rigName}
            </dd>
          </>
        ) : null}
        {entry.magnitude !== null ? (
          <>
            <dt className="text-soft">Magnitude</dt>
            <dd>{fixed(entry.magnitude, 1)}</dd>
          </>
        ) : null}
        {c ? (
          <>
            <dt className="text-soft">Light</dt>
            <dd>{lightWords(entry)}</dd>
            <dt className="text-soft">Hours</dt>
            <dd>
              <Why title={`${c.hoursMin} h at least`}>
                <p>A rule of thumb at f/5 under 20 mag/arcsec²; per channel for line emission. Not measured.</p>
              </Why>
            </dd>
          </>
        ) : null}
        {entry.aliases.length > 0 ? (
          <>
            <dt className="text-soft">Also</dt>
            <dd className="text-note">{entry.aliases.slice(0, 6).join(", ")}</dd>
          </>
        ) : null}
        {c && c.members.length > 0 ? (
          <>
            <dt className="text-soft">Contains</dt>
            <dd className="text-note">{c.members.join(", ")}</dd>
          </>
        ) : null}
      </dl>
    </Panel>
  );
}

import { fixed, trimmed } from "~/components/numbers";
import type { CatalogEntry } from "~/core/catalog";
import { isOfStars, lightSource, type LightSource, type ObjectLight, type Picture } from "~/core/exposure";
import { bestEllipseAngle } from "~/core/framing";
import { Declination, RightAscension } from "~/components/Position";
import { lightWords, moonBornWords, pixelWords, sizeWords } from "~/components/words/target-words";
import { Panel } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";

/** What a picture of it takes here, and how it bears moonlight. */
interface HoursOfTarget {
  readonly picture: Picture;
  readonly panels: number;
  /** The physical figure beside the habit, h; null for pictures of stars. */
  readonly sameDepth: number | null;
  readonly moonShare: number;
}

const SOURCE_WORDS: Readonly<Record<LightSource, string>> = {
  handPicked: "class and line strengths picked by hand, from general knowledge",
  surface: "its magnitude and size in the catalogue",
  kind: "what is usual of its kind: take the hours as a first guess",
};

/** What its faintest part that belongs to the picture shines with, in words. */
function faintPartWords({ ha, oiii, sii, magPerArcsec2 }: ObjectLight): string {
  const lines = [
    ["Ha", ha],
    ["OIII", oiii],
    ["SII", sii],
  ] as const;
  return [
    ...lines.flatMap(([line, rayleighs]) => (rayleighs > 0 ? [`${line} ${rayleighs} R`] : [])),
    ...(magPerArcsec2 === null ? [] : [`${fixed(magPerArcsec2, 1)} mag/arcsec²`]),
  ].join(", ");
}

function HoursFact({ entry, picture, panels, sameDepth, moonShare }: HoursOfTarget & { readonly entry: CatalogEntry }) {
  const { jobs, light } = picture;
  return (
    <>
      <dt className="text-soft">Hours</dt>
      <dd>
        <Why title={`${trimmed(picture.hours * panels)} h to begin with${panels > 1 ? `, ${panels} panels` : ""}`}>
          <p>
            {jobs.map((j) => `${j.channel} ${trimmed(j.hours)} h`).join(", ")}
            {panels > 1 ? " each panel" : ""}, with your rig under your sky.
          </p>
          {isOfStars(light) ? (
            <p>A picture of stars: hours go by the aperture, as is common practice.</p>
          ) : (
            <p>
              For its faintest part that belongs to the picture, {faintPartWords(light)}:{" "}
              {SOURCE_WORDS[lightSource(entry)]}. The model is fitted to what people take, good to a factor of 1.6.
            </p>
          )}
          {sameDepth === null ? null : (
            <p>
              For the depth this rig reaches in 6 h under 21.0 mag/arcsec²: {fixed(sameDepth, sameDepth < 10 ? 1 : 0)} h
              in {jobs[0]!.channel}.
            </p>
          )}
          {picture.isDrowned ? <p>Without a filter for its lines it is out of reach here.</p> : null}
        </Why>
      </dd>
      <dt className="text-soft">Moon</dt>
      <dd>
        {moonBornWords(moonShare)}, in {jobs[0]!.channel}
      </dd>
    </>
  );
}

/** What is known of an object, how sure, and how it sits in one frame. */
export function TargetFacts({
  entry,
  frame,
  hours,
}: {
  readonly entry: CatalogEntry;
  readonly hours?: HoursOfTarget;
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
          <RightAscension deg={entry.at.raDeg} digits={0} />
          <br />
          <Declination deg={entry.at.decDeg} />
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
          </>
        ) : null}
        {hours ? <HoursFact entry={entry} {...hours} /> : null}
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

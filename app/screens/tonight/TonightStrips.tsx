import { Term } from "~/components/ui/Term";
import { fixed } from "~/components/numbers";
import { WhenSeen } from "~/components/ui/WhenSeen";
import { Link } from "react-router";
import type { NightSteps } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import type { ExpectedProject, TonightProject } from "~/core/plan";
import { HourScale, WorthStrip } from "~/components/charts/WorthStrip";
import { Section } from "~/components/ui/Panel";

/** The night of every open project as a worth strip. */
export function TonightStrips({
  tonight,
  expected,
  steps,
  zone,
  search,
  window,
}: {
  readonly tonight: readonly (TonightProject & { readonly name: string })[];
  /** With the weather taken in, by project. */
  readonly expected: ReadonlyMap<string, ExpectedProject>;
  readonly steps: NightSteps;
  readonly zone: string;
  readonly search: string;
  /** The stretch worth being out for. */
  readonly window: { readonly startMs: number; readonly endMs: number } | null;
}) {
  const sorted = [...tonight].sort((a, b) => b.worthMin - a.worthMin);
  return (
    <Section
      title="Worth of the night, my projects"
      aside={
        <>
          height = <Term word="worth" /> of a minute · hatched = lost, and to what
        </>
      }
    >
      <div className="border-rule grid grid-cols-[minmax(0,1fr)_6.5rem] items-end gap-x-4 border-b sm:grid-cols-[11rem_minmax(0,1fr)_7.5rem]">
        <span className="hidden sm:block" />
        <HourScale steps={steps} zone={zone} />
        <span />
      </div>
      <ul>
        {sorted.map((t) => (
          <li
            key={t.id}
            className="border-rule grid grid-cols-[minmax(0,1fr)_6.5rem] items-center gap-x-4 border-b py-2 sm:grid-cols-[11rem_minmax(0,1fr)_7.5rem]"
          >
            <div className="col-span-2 sm:col-span-1">
              <Link to={`/projects/${t.id}/plan${search}`} className="font-semibold hover:underline">
                {t.name}
              </Link>
              <p className="text-note text-soft">
                {t.channel} · {formatMinutes(t.remainingMin)} to go
                {t.panels.length > 1 ? `, least on ${t.panels[0]}` : ""}
              </p>
            </div>
            <WhenSeen heightPx={56}>
              <WorthStrip
                steps={steps}
                walk={t.walk}
                channel={t.channel}
                zone={zone}
                isTall
                marks={
                  window
                    ? [
                        { atMs: window.startMs, word: "start" },
                        { atMs: window.endMs, word: "stop" },
                      ]
                    : []
                }
              />
            </WhenSeen>
            <div className="text-right">
              <p className="font-semibold">{formatMinutes(t.usableMin)}</p>
              <p className="text-note text-soft">
                {fixed((expected.get(t.id)?.expectedMin ?? t.usableMin) / 60, 1)} h expected
                <br />
                {fixed((expected.get(t.id)?.expectedWorthMin ?? t.worthMin) / 60, 1)} h worth
              </p>
            </div>
          </li>
        ))}
      </ul>
    </Section>
  );
}

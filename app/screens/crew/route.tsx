import { useState } from "react";
import { useRevalidator } from "react-router";
import { BundleDrop } from "~/components/forms/BundleDrop";
import { CrewTable } from "./CrewTable";
import { download, fileStem } from "~/components/download";
import { MergePreview, type MergeView } from "./MergePreview";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Panel, Section } from "~/components/ui/Panel";
import { useSay } from "~/components/ui/Toasts";
import { memberTotals, newsIn, type StoredRecord } from "~/core/crew";
import { encodeBundle, type Bundle } from "~/core/formats";
import type { ContributionData } from "~/core/ledger";
import { allRecords, loadLibrary, mergeIn } from "~/storage/records";
import { isDemo, now } from "~/storage/session";
import type { Route } from "./+types/route";
import { requireContext } from "~/desk/project";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const library = await loadLibrary();
  const c = requireContext(library, params.projectId);
  return {
    projectId: c.id,
    name: c.project.data.name,
    totals: memberTotals(c.contributions.map((x) => x.data)),
    members: Object.fromEntries(library.members.map((m) => [m.id, m.data.name])),
    goals: c.goal.data.channels.map((g) => ({ channel: g.channel, goalMin: g.hoursPerPanel * 60 * c.panels.length })),
    isDemo: isDemo(),
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Crew · Zenithar" }];

/** Records of one project and of what it refers to: places, rigs, filters, members, a target of one's own. */
function belonging(records: readonly StoredRecord[], projectId: string): StoredRecord[] {
  const field = (r: StoredRecord, name: string) => (r.data as Record<string, unknown>)[name];
  const own = records.filter((r) => r.id === projectId || field(r, "projectId") === projectId);
  const wanted = new Set(
    own
      .flatMap((r) => ["placeId", "rigId", "memberId", "targetId"].map((n) => field(r, n)))
      .concat(own.map((r) => r.author)),
  );
  const kit = records.filter((r) => wanted.has(r.id));
  const filters = new Set(kit.flatMap((r) => (field(r, "filterIds") as string[] | undefined) ?? []));
  return [...own, ...kit, ...records.filter((r) => filters.has(r.id))];
}

export default function CrewRoute({ loaderData }: Route.ComponentProps) {
  const { projectId, name, totals, members, goals } = loaderData;
  const { revalidate } = useRevalidator();
  const say = useSay();
  const [view, setView] = useState<MergeView | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const share = async () => {
    const at = new Date(now()).toISOString();
    download(
      `${fileStem(name)}-${at.slice(0, 10)}.zenithar.json`,
      encodeBundle(belonging(await allRecords(), projectId), "project", at),
      "application/json",
    );
  };
  const look = async (bundle: Bundle, fileName: string) => {
    const fresh = newsIn(await allRecords(), bundle.records);
    const news = fresh
      .filter((r) => r.kind === "contribution" && r.deletedAt === undefined)
      .map((r) => r.data as ContributionData);
    setView({
      fileName,
      bundle,
      fresh: fresh.length,
      news: memberTotals(news),
      hasThis: bundle.records.some((r) => r.id === projectId),
    });
  };
  const accept = async () => {
    if (!view) return;
    const merged = await mergeIn(view.bundle.records);
    if (!merged.ok) return setFault(merged.error.code);
    await revalidate();
    setView(null);
    say(
      `${view.fileName} joined: ${merged.value.added} new, ${merged.value.changed} changed, ${merged.value.known} already here.`,
    );
  };
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div>
        {fault ? <StorageRefusal code={fault} /> : null}
        <Section title="What have we together?" aside="kept hours, and their worth at each one's own sky">
          <CrewTable totals={totals} members={members} goals={goals} />
        </Section>
        {view ? (
          <MergePreview view={view} members={members} onAccept={() => void accept()} onLeave={() => setView(null)} />
        ) : null}
      </div>
      <aside className="space-y-4">
        <Panel title="Give">
          <p className="text-soft mb-3">
            One file with this project: its frame, goals, everyone&apos;s hours and the kit they came from. Whoever
            imports it loses nothing and doubles nothing.
          </p>
          <Button look="main" onClick={() => void share()}>
            Export this project
          </Button>
        </Panel>
        <Panel title="Take">
          <p className="text-soft mb-3">A friend&apos;s file. You see what it brings before it is joined.</p>
          <BundleDrop words="Import a friend's file" onBundle={(b, f) => void look(b, f)} />
          {loaderData.isDemo ? (
            <p className="text-note text-soft mt-3">
              To try it:{" "}
              <a href="/demo/from-wren.zenithar.json" download className="underline underline-offset-4">
                the file Wren sent
              </a>
              .
            </p>
          ) : null}
        </Panel>
      </aside>
    </div>
  );
}

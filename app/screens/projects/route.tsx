import { FirstStepPage } from "~/components/FirstStep";
import { useSearchParams } from "react-router";
import { deskOf } from "~/at-desk";
import { gapWords } from "~/components/FaultPage";
import { HourWords } from "~/components/HourWords";
import { WhenSeen } from "~/components/ui/WhenSeen";
import { keptSearch } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { loadProjects } from "./load";
import { ProjectCard } from "./ProjectCard";

const CARD_PX = 150; // until it is drawn

export const clientLoader = ({ context }: Route.ClientLoaderArgs) => loadProjects(deskOf(context));
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Projects · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function ProjectsRoute({ loaderData: { projects, targets, next, firstStep } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (projects.length === 0)
    return (
      <FirstStepPage title="Projects" step={firstStep} search={search}>
        A picture takes many nights: its frame, its hours and its log live here.
      </FirstStepPage>
    );
  return (
    <>
      <h1 className="text-headline">Projects</h1>
      <ul className="mt-2 grid gap-x-10 gap-y-5 md:grid-cols-2">
        {projects.map(({ id, name, card, gap }) => (
          <li key={id} className="border-rule border-t pt-3">
            {card ? (
              <WhenSeen heightPx={CARD_PX}>
                <ProjectCard id={id} name={name} card={card} targets={targets} next={next} search={search} />
              </WhenSeen>
            ) : (
              <>
                <h2 className="text-figure">{name}</h2>
                <p className="text-soft">{gap ? gapWords(gap) : null}</p>
              </>
            )}
          </li>
        ))}
      </ul>
      <HourWords of={["kept", "counts"]} />
    </>
  );
}

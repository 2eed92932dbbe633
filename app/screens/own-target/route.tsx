import { deskOf, useDesk } from "~/at-desk";
import { useCallback } from "react";
import { data, useSearchParams } from "react-router";
import { WithDraft } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { opticsOf } from "~/core/framing";
import { loadChoice } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { ownTargetAction } from "./action";
import type { OwnTargetIntent } from "./intents";
import { OwnTargetForm } from "./OwnTargetForm";

export async function clientLoader({ context, request, params }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const { library, choice } = await loadChoice(desk, request);
  const target = library.ownTargets.find((t) => t.id === params.ownId) ?? null;
  if (params.ownId !== "new" && !target) throw data({ code: "unknownTarget" }, { status: 404 });
  const optics = choice.rig ? opticsOf(choice.rig.data) : null;
  return {
    target,
    isUsed: library.projects.some((p) => p.data.targetId === target?.id),
    field:
      optics && choice.rig
        ? {
            widthArcmin: optics.planeWidthArcmin,
            heightArcmin: optics.planeHeightArcmin,
            rigName: choice.rig.data.name,
          }
        : null,
  };
}
clientLoader.hydrate = true as const;

export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  ownTargetAction(deskOf(context), request, params.ownId);

export const meta: Route.MetaFunction = () => [{ title: "Own target · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function OwnTargetRoute({ loaderData, actionData }: Route.ComponentProps) {
  const desk = useDesk();
  const { target, field, isUsed } = loaderData;
  const [params] = useSearchParams();
  const { act, refusal, isBusy } = useAct<OwnTargetIntent>();
  const findNear = useCallback(
    (raDeg: number, decDeg: number, radiusDeg: number) =>
      desk.workers.sky.within({ raDeg, decDeg, radiusDeg, limit: 12 }),
    [desk],
  );
  return (
    <>
      <h1 className="text-headline mb-1">{target ? target.data.name : "A target of your own"}</h1>
      <p className="text-soft mb-4 max-w-prose">
        Something no list has: it is ranked, framed and planned like the others. Things that move, comets and planets,
        are out of scope.
      </p>
      <StorageRefusal fault={refusal ?? actionData?.refusal ?? null} />
      <WithDraft
        key={target?.id ?? "new"}
        name={`target ${target?.id ?? "new"}`}
        rev={target?.rev ?? ""}
        title={target ? `the target ${target.data.name}` : "a new target"}
      >
        <OwnTargetForm
          target={target?.data ?? null}
          position={params.get("position") ?? ""}
          baseRev={target?.rev ?? ""}
          faults={actionData && "faults" in actionData ? actionData.faults : {}}
          field={field}
          findNear={findNear}
        />
      </WithDraft>
      {target ? (
        <div className="mt-6">
          <Button
            disabled={isUsed || isBusy}
            onClick={() => void act({ act: "delete", rev: target.rev, data: target.data })}
          >
            Delete
          </Button>
          {isUsed ? <p className="text-note text-soft mt-1">A project was started from it, so it stays.</p> : null}
        </div>
      ) : null}
    </>
  );
}

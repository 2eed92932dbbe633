import { useCallback } from "react";
import { data, redirect, useNavigate, useSearchParams } from "react-router";
import { textOf } from "~/components/forms/form-numbers";
import { OwnTargetForm } from "./OwnTargetForm";
import { readOwnTarget } from "./own-target-form";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { opticsOf } from "~/core/framing";
import { saveAll } from "~/storage/records";
import { newId } from "~/storage/session";
import { skyWorker } from "~/workers/sky";
import type { Route } from "./+types/route";
import { keptSearch, loadChoice } from "~/desk/choice";
import { useEdits } from "~/components/forms/use-edits";

export async function clientLoader({ request, params }: Route.ClientLoaderArgs) {
  const { library, choice } = await loadChoice(request);
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

export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const form = await request.formData();
  const target = readOwnTarget(form);
  if (!target.ok) return data({ faults: target.error, storage: null }, { status: 400 });
  const id = params.ownId === "new" ? newId("target") : params.ownId;
  const saved = await saveAll([{ kind: "target", id, data: target.value, baseRev: textOf(form, "baseRev") || null }]);
  if (!saved.ok) return data({ faults: {}, storage: saved.error.code }, { status: 507 });
  return redirect(
    `/targets/${id}${keptSearch(new URL(request.url).searchParams, { low: new URL(request.url).searchParams.get("low") ?? "" })}`,
  );
}

export const meta: Route.MetaFunction = () => [{ title: "Own target · Zenithar" }];

export default function OwnTargetRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { target, field, isUsed } = loaderData;
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const { remove } = useEdits();
  const findNear = useCallback(
    (raDeg: number, decDeg: number, radiusDeg: number) => skyWorker().within({ raDeg, decDeg, radiusDeg, limit: 12 }),
    [],
  );
  return (
    <>
      <h1 className="text-headline mb-1">{target ? target.data.name : "A target of your own"}</h1>
      <p className="text-soft mb-4 max-w-prose">
        Something no list has: it is ranked, framed and planned like the others. Things that move, comets and planets,
        are out of scope.
      </p>
      {actionData?.storage ? <StorageRefusal code={actionData.storage} /> : null}
      <OwnTargetForm
        key={target?.rev ?? "new"}
        target={target?.data ?? null}
        position={params.get("position") ?? ""}
        baseRev={target?.rev ?? ""}
        faults={actionData?.faults ?? {}}
        field={field}
        findNear={findNear}
      />
      {target ? (
        <div className="mt-6">
          <Button
            disabled={isUsed}
            onClick={() => {
              remove(`${target.data.name} deleted.`, [{ kind: "target", ...target }]);
              void navigate(`/targets${keptSearch(params)}`);
            }}
          >
            Delete
          </Button>
          {isUsed ? <p className="text-note text-soft mt-1">A project was started from it, so it stays.</p> : null}
        </div>
      ) : null}
    </>
  );
}

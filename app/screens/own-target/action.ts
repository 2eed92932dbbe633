import type { Desk } from "~/desk/desk";
import { data, redirect } from "react-router";
import { isForm, type FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { remove } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { keptSearch } from "~/desk/sky/choice";
import { saveOwnTarget } from "~/desk/kit/kit";
import { notify } from "~/desk/records/notices";
import { theDrafts } from "~/desk/records/kept";
import type { OwnTargetIntent } from "./intents";
import { isCalled } from "~/core/catalog";
import { parseOffset, parsePosition, plainPosition } from "~/core/notation";
import { offsetBy } from "~/core/sky";
import { radToDeg } from "~/core/units";
import { readOwnTarget } from "./own-target-form";

/** A position told from a listed object, as coordinates; null where it is not, or nothing is called that. */
async function besideListed(desk: Desk, text: string): Promise<string | null> {
  const offset = parsePosition(text).ok ? null : parseOffset(text);
  if (!offset) return null;
  const entry = (await desk.workers.sky.search(offset.of, 5)).find((e) => isCalled(e, offset.of));
  if (!entry) return null;
  const distanceDeg = Math.hypot(offset.eastArcmin, offset.northArcmin) / 60;
  const positionAngleDeg = radToDeg(Math.atan2(offset.eastArcmin, offset.northArcmin));
  const { ra, dec } = plainPosition(offsetBy(entry.at, { positionAngleDeg, distanceDeg }));
  return `${ra} ${dec}`;
}

/** Saves a target of one's own and goes to its page, or deletes it and goes to the list. */
export async function ownTargetAction(desk: Desk, request: Request, ownId: string) {
  const params = new URL(request.url).searchParams;
  if (!isForm(request)) {
    const intent = await intentOf<OwnTargetIntent>(request);
    const done = await remove(desk, [{ kind: "target", id: ownId, ...intent }]);
    if (!done.ok) return answer(desk, done);
    notify(desk, `${intent.data.name} deleted.`, done.value.undoId);
    return redirect(`/targets${keptSearch(params)}`);
  }
  const form = await request.formData();
  const beside = await besideListed(desk, textOf(form, "position"));
  if (beside) form.set("position", beside);
  const target = readOwnTarget(form);
  if (!target.ok) return data<FormAnswer>({ faults: target.error, refusal: null }, { status: 400 });
  const id = ownId === "new" ? desk.newId("target") : ownId;
  const saved = await saveOwnTarget(desk, { id, baseRev: textOf(form, "baseRev"), data: target.value });
  if (!saved.ok) return data<FormAnswer>({ faults: {}, refusal: saved.error }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  return redirect(`/targets/${id}${keptSearch(params, { low: params.get("low") ?? "" })}`);
}

import { data } from "react-router";
import { textOf } from "~/components/forms/form-numbers";
import type { Edit } from "~/core/crew";
import { saveAll } from "~/storage/records";
import type { Route } from "./+types/route";

/** Takes edits made in passing (delete, undo, settings) from any screen. */
export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await request.formData();
  const edits = JSON.parse(textOf(form, "edits")) as Edit[];
  const saved = await saveAll(edits);
  return saved.ok ? data(null) : data(saved.error, { status: 507 });
}

export default function RecordsRoute() {
  return null;
}

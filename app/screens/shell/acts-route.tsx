import { data } from "react-router";
import { undo } from "~/desk/acts";
import { intentOf } from "~/desk/answer";
import { notify } from "~/desk/notices";
import type { Route } from "./+types/acts-route";
import { keepFaultWords } from "~/components/words/words";
import type { ShellIntent } from "./intents";

/** Takes an act of this tab back, from whatever screen Undo was pressed. */
export async function clientAction({ request }: Route.ClientActionArgs) {
  const { undoId } = await intentOf<ShellIntent>(request);
  const done = await undo(undoId);
  if (done === null) notify("That cannot be undone any more.");
  else if (!done.ok) notify(keepFaultWords(done.error));
  return data(null, { status: done?.ok ? 200 : 507 });
}

export default function ActsRoute() {
  return null;
}

import { useCallback } from "react";
import { useSubmit } from "react-router";
import { useSay } from "~/components/ui/Toasts";
import type { RecordKind } from "~/core/crew";
import type { Edit } from "~/core/crew";

/** Stores edits in passing, without leaving the page; a fault is shown by the next page that loads. */
export function useEdits() {
  const submit = useSubmit();
  const say = useSay();
  const send = useCallback(
    (edits: readonly Edit[]) =>
      void submit(
        { edits: JSON.stringify(edits) },
        { method: "post", action: "/records", navigate: false, encType: "application/x-www-form-urlencoded" },
      ),
    [submit],
  );
  const remove = useCallback(
    (
      words: string,
      things: readonly {
        readonly kind: RecordKind;
        readonly id: string;
        readonly rev: string;
        readonly data: unknown;
      }[],
    ) => {
      send(things.map((t) => ({ kind: t.kind, id: t.id, data: t.data, baseRev: t.rev, isDeleted: true })));
      say(words, () => send(things.map((t) => ({ kind: t.kind, id: t.id, data: t.data, baseRev: "latest" }))));
    },
    [send, say],
  );
  return { send, remove };
}

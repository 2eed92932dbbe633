import { Toast } from "radix-ui";

/** Something said in passing. */
export interface Note {
  readonly id: number;
  readonly text: string;
  readonly undoId?: string;
}

/** Notes at the bottom of the page, each with its Undo, until they pass or are put away. */
export function ToastList({
  notes,
  onUndo,
  onGone,
}: {
  readonly notes: readonly Note[];
  readonly onUndo: (undoId: string) => void;
  readonly onGone: (id: number) => void;
}) {
  return (
    <Toast.Provider duration={12_000} swipeDirection="down">
      {notes.map((note) => (
        <Toast.Root
          key={note.id}
          onOpenChange={(open) => !open && onGone(note.id)}
          className="border-rule bg-raised flex items-center gap-4 rounded-[8px] border px-4 py-2.5 shadow-lg"
        >
          <Toast.Description>{note.text}</Toast.Description>
          {note.undoId ? (
            <Toast.Action
              altText="Undo"
              onClick={() => note.undoId && onUndo(note.undoId)}
              className="text-lamp font-semibold underline underline-offset-4"
            >
              Undo
            </Toast.Action>
          ) : null}
          <Toast.Close aria-label="Dismiss" className="text-faint hover:text-ink">
            ×
          </Toast.Close>
        </Toast.Root>
      ))}
      <Toast.Viewport className="no-print fixed bottom-16 left-1/2 z-50 flex w-max max-w-[92vw] -translate-x-1/2 flex-col gap-2 sm:bottom-5" />
    </Toast.Provider>
  );
}

import { Dialog } from "radix-ui";
import { useState } from "react";
import { useDesk } from "~/at-desk";
import { RoundButton } from "~/components/RoundButton";
import { SHORTCUTS } from "~/components/shortcuts";
import { areSingleKeysOn, setSingleKeys } from "~/desk/records/single-keys";
import { STATIONS } from "./ShellFrame";

const KEYS: readonly (readonly [string, string])[] = [
  ...STATIONS.map((s) => [s.key, s.word] as const),
  ...Object.values(SHORTCUTS).map((s) => [s.keys, s.words] as const),
];

/** The keys that work everywhere. */
export function KeyHelp({
  open,
  onOpenChange,
}: {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
}) {
  const desk = useDesk();
  const [areOn, setOn] = useState(() => areSingleKeysOn(desk));
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="bg-ground/70 fixed inset-0 z-40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="border-rule bg-sheet fixed top-[6vh] left-1/2 z-50 max-h-[88vh] w-[min(28rem,94vw)] -translate-x-1/2 overflow-y-auto rounded-[10px] border p-5"
        >
          <Dialog.Title className="text-figure">Keys</Dialog.Title>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1">
            {KEYS.map(([key, word]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="border-rule bg-ground text-note rounded border px-1.5 font-sans whitespace-pre">
                    {key}
                  </kbd>
                </dt>
                <dd className="text-soft">{word}</dd>
              </div>
            ))}
          </dl>
          <label className="border-rule mt-3 flex min-h-6 items-baseline gap-2 border-t pt-3">
            <input
              type="checkbox"
              checked={areOn}
              onChange={(e) => {
                setSingleKeys(desk, e.target.checked);
                setOn(e.target.checked);
              }}
            />
            <span>Single keys work, without Ctrl (1 to 7, [, ], T, ?)</span>
          </label>
          <p className="mt-4 flex justify-between">
            <RoundButton onPressed={() => onOpenChange(false)} />
            <Dialog.Close className="underline underline-offset-4">Close</Dialog.Close>
          </p>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

import { Popover } from "radix-ui";
import type { TapFact } from "./TapFacts";

/** The words of what was tapped, beside it. */
export function TapFactSheet({ fact, onClose }: { readonly fact: TapFact; readonly onClose: () => void }) {
  return (
    <Popover.Root open onOpenChange={(isOpen) => isOpen || onClose()}>
      <Popover.Anchor virtualRef={{ current: fact.at }} />
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          aria-label="What it says"
          className="border-rule bg-sheet text-body text-ink z-40 max-w-80 rounded-[8px] border px-4 py-3 shadow-lg"
        >
          {fact.words}
          <Popover.Arrow className="fill-rule" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

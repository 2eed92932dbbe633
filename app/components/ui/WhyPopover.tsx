import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** What explains a number, open beside it from the start; it stays with its page and opens again. */
export function WhyPopover({
  children,
  title,
  look,
}: {
  readonly children: ReactNode;
  readonly title: ReactNode;
  readonly look: string;
}) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={look}>{title}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="border-rule bg-sheet text-body text-ink z-40 max-w-88 rounded-[8px] border p-4 shadow-lg"
        >
          {children}
          <Popover.Arrow className="fill-rule" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** A number that explains itself: press it, and what went in, which model and how sure opens beside it. */
export function Why({
  children,
  title,
  className,
}: {
  readonly children: ReactNode;
  readonly title: ReactNode;
  readonly className?: string;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`decoration-rule hover:decoration-lamp underline decoration-dotted underline-offset-4 ${className ?? ""}`}
      >
        {title}
      </Popover.Trigger>
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

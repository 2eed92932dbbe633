import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Link } from "react-router";

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
          <p className="border-rule mt-3 border-t pt-2">
            <Link to="/kit/glossary" className="text-note text-soft underline underline-offset-4">
              Words explained: glossary
            </Link>
          </p>
          <Popover.Arrow className="fill-rule" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

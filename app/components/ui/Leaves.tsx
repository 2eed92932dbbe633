import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

/** Leaves of one sheet, one open at a time; arrows go from head to head. */
export function Leaves({
  label,
  leaves,
  value,
  onValueChange,
}: {
  readonly label: string;
  readonly leaves: readonly {
    readonly key: string;
    readonly word: string;
    readonly content: ReactNode;
    /** Keeps what was typed and found in it while another leaf is open. */
    readonly isKept?: boolean;
  }[];
  readonly value: string;
  readonly onValueChange: (key: string) => void;
}) {
  return (
    <Tabs.Root
      value={value}
      onValueChange={onValueChange}
      className="border-rule bg-sheet rounded-[10px] border"
      activationMode="manual"
    >
      <Tabs.List
        aria-label={label}
        className="no-print border-rule text-note flex [scrollbar-width:none] justify-between gap-x-2 overflow-x-auto border-b px-3"
      >
        {leaves.map((l) => (
          <Tabs.Trigger
            key={l.key}
            value={l.key}
            className="text-soft hover:text-ink data-[state=active]:border-lamp data-[state=active]:text-ink -mb-px border-b-2 border-transparent py-2 whitespace-nowrap"
          >
            {l.word}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {leaves.map((l) => (
        <Tabs.Content
          key={l.key}
          value={l.key}
          {...(l.isKept ? { forceMount: true as const } : {})}
          className="p-4 data-[state=inactive]:hidden"
        >
          {l.content}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}

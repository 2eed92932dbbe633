import { ShellFrame } from "./ShellFrame";
import { ThemeChoice } from "./ThemeChoice";

/** The shell while what a person owns is still being read. */
export function ShellLoading() {
  return (
    <ShellFrame
      search=""
      themes={<ThemeChoice />}
      note={null}
      banner={null}
      isPending={false}
      ribbon={<div className="h-[93px]" />}
      onSearch={() => undefined}
      onHelp={() => undefined}
    >
      <p className="text-soft py-4">Loading …</p>
    </ShellFrame>
  );
}

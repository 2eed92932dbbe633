import { Keyboard, Search } from "lucide-react";
import { Dialog } from "radix-ui";
import { Link } from "react-router";
import { ThemeChoice } from "./ThemeChoice";
import { STATIONS } from "./ShellFrame";

/** On a small window: the stations that are not at hand, and the tools of the rail. */
export function MoreSheet({
  search,
  onClose,
  onSearch,
  onHelp,
}: {
  readonly search: string;
  readonly onClose: () => void;
  readonly onSearch: () => void;
  readonly onHelp: () => void;
}) {
  const instead = (open: () => void) => () => {
    onClose();
    open();
  };
  const line = "hover:bg-raised flex min-h-[56px] w-full items-center gap-4 rounded-[8px] px-3";
  return (
    <Dialog.Root open onOpenChange={(isOpen) => isOpen || onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="bg-ground/70 fixed inset-0 z-40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="border-rule bg-sheet fixed inset-x-0 bottom-0 z-50 max-h-[92vh] overflow-y-auto rounded-t-[14px] border-t p-3 pb-5 sm:inset-x-auto sm:bottom-3 sm:left-3 sm:w-80 sm:rounded-[10px] sm:border"
        >
          <Dialog.Title className="sr-only">More</Dialog.Title>
          <ul>
            {STATIONS.map(({ to, word, Icon, isAtHand }) =>
              isAtHand ? null : (
                <li key={to}>
                  <Link to={{ pathname: to, search }} onClick={onClose} className={line}>
                    <Icon size={20} strokeWidth={1.6} aria-hidden="true" />
                    {word}
                  </Link>
                </li>
              ),
            )}
            <li className="border-rule mt-1 border-t pt-1">
              <button type="button" onClick={instead(onSearch)} className={line}>
                <Search size={20} strokeWidth={1.6} aria-hidden="true" />
                Search everywhere
              </button>
            </li>
            <li>
              <button type="button" onClick={instead(onHelp)} className={line}>
                <Keyboard size={20} strokeWidth={1.6} aria-hidden="true" />
                Keys, and the round
              </button>
            </li>
            <li className="flex min-h-[56px] items-center gap-4 px-3">
              <span className="flex-1">Light</span>
              <ThemeChoice isInRow />
            </li>
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

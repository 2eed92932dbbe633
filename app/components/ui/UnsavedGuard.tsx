import { AlertDialog } from "radix-ui";
import { useCallback, useEffect, useRef } from "react";
import { useBlocker, type BlockerFunction } from "react-router";
import { Button } from "./Button";

const contentOf = (form: HTMLFormElement): string =>
  JSON.stringify([...new FormData(form)].filter(([, value]) => typeof value === "string"));

/**
 * Put into a form that is kept only when one saves it: whoever leaves the page with changes is asked first. Another night or
 * place chosen on the same page leaves the form as it is and is not asked about; nor is saving itself.
 */
export function UnsavedGuard() {
  const mark = useRef<HTMLInputElement>(null);
  const start = useRef<string | null>(null);
  const isChanged = useCallback(() => {
    const form = mark.current?.form;
    return form !== null && form !== undefined && start.current !== null && contentOf(form) !== start.current;
  }, []);
  useEffect(() => {
    const form = mark.current?.form;
    if (form) start.current = contentOf(form);
    const onUnload = (event: BeforeUnloadEvent) => {
      if (isChanged()) event.preventDefault();
    };
    window.addEventListener("beforeunload", onUnload);
    return () => window.removeEventListener("beforeunload", onUnload);
  }, [isChanged]);
  const asks = useCallback<BlockerFunction>(
    ({ currentLocation, nextLocation }) => currentLocation.pathname !== nextLocation.pathname && isChanged(),
    [isChanged],
  );
  const blocker = useBlocker(asks);
  return (
    <>
      <input ref={mark} type="hidden" disabled />
      <AlertDialog.Root open={blocker.state === "blocked"} onOpenChange={(isOpen) => isOpen || blocker.reset?.()}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="bg-ground/70 fixed inset-0 z-40" />
          <AlertDialog.Content className="border-rule bg-sheet fixed top-[14vh] left-1/2 z-50 w-[min(28rem,94vw)] -translate-x-1/2 rounded-[10px] border p-5">
            <AlertDialog.Title className="text-figure">Not saved yet</AlertDialog.Title>
            <AlertDialog.Description className="text-soft mt-2">
              What you changed on this page is gone when you leave it now.
            </AlertDialog.Description>
            <div className="mt-5 flex flex-wrap justify-end gap-3">
              <Button look="plain" onClick={() => blocker.proceed?.()}>
                Leave without saving
              </Button>
              <AlertDialog.Cancel asChild>
                <Button look="main">Stay here</Button>
              </AlertDialog.Cancel>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </>
  );
}

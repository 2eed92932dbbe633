import { Refusal } from "./ui/Panel";

/** Says that storing failed; what was typed is still in the form. */
export function StorageRefusal({ code }: { readonly code: string }) {
  return (
    <Refusal>
      {code === "storageFull" ? (
        <p>
          The browser&apos;s storage for this app is full: this was not saved. What you typed is still here. Export your
          data under Kit, Data, then free space on this device.
        </p>
      ) : (
        <p>
          The browser refused to store this (a private window, or storage is switched off). What you typed is still
          here. Export your data under Kit, Data before you close the tab.
        </p>
      )}
    </Refusal>
  );
}

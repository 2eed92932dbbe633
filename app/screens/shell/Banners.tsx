import { Link } from "react-router";
import { Button } from "~/components/ui/Button";

/** What is stored does not come together; what does still opens. */
export function FaultBanner({ reason }: { readonly reason: string }) {
  return (
    <p role="alert" className="border-rule bg-raised border-b px-5 py-2">
      Tonight&apos;s place could not be worked out from what is stored ({reason}). It is all kept: look under Kit, Data
      in and out.
    </p>
  );
}

/** Reminds of a backup until one is taken; "Later" lasts until the app is opened again. */
export function BackupBanner({
  words,
  search,
  onLater,
}: {
  readonly words: string;
  readonly search: string;
  readonly onLater: () => void;
}) {
  return (
    <div role="status" className="border-rule bg-raised flex flex-wrap items-center gap-x-4 border-b px-5 py-2">
      <p>
        {words} All of it lies in this browser alone.{" "}
        <Link to={`/kit/data${search}`} className="underline underline-offset-4">
          Take a backup
        </Link>
      </p>
      <Button look="plain" className="min-h-0 py-0" onClick={onLater}>
        Later
      </Button>
    </div>
  );
}

/** This browser keeps nothing. */
export function MemoryBanner() {
  return (
    <p role="alert" className="border-rule bg-raised border-b px-5 py-2">
      This browser does not let the app store anything (a private window?). You can work, but all is gone when this tab
      closes: export it under Kit, Data before you leave.
    </p>
  );
}

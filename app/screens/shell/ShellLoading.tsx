import { FetchAnew } from "~/components/FetchAnew";
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
      onMore={() => undefined}
    >
      <div className="in-data-[insecure]:hidden in-data-[unloaded]:hidden">
        <p className="text-soft py-4">Reading what is kept in this browser …</p>
        <PageShape />
      </div>
      <div className="hidden max-w-prose py-4 in-data-[unloaded]:block" role="alert">
        <h1 className="text-headline">The app did not load whole</h1>
        <FetchAnew />
        <p className="text-soft mt-3">
          Or{" "}
          <a href="" className="underline underline-offset-4">
            try this page once more
          </a>
          . Nothing you entered is lost: it lies in this browser, apart from the app.
        </p>
      </div>
      <div className="hidden max-w-prose py-4 in-data-[insecure]:block" role="alert">
        <h1 className="text-headline">This page came over plain http</h1>
        <p className="text-soft mt-3">
          Browsers let an app keep what you enter only where nobody on the way can change the page: over https, or on
          the machine the app runs on. Open it by its https address, or there as http://localhost with the same port.
          How to put https in front of it is told in docs/deploy.md.
        </p>
        <p className="text-soft mt-3">Nothing is lost: what you entered before lies under the address you used then.</p>
      </div>
    </ShellFrame>
  );
}

/** The room that a page is about to take: a heading, what it says, and its board. */
function PageShape() {
  return (
    <div aria-hidden="true" className="space-y-4">
      <div className="bg-raised h-9 w-2/3 max-w-[460px] rounded-[8px]" />
      <div className="bg-raised h-5 w-full max-w-[620px] rounded-[8px]" />
      <div className="bg-raised h-[260px] rounded-[8px]" />
    </div>
  );
}

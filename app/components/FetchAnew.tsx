import { Button } from "./ui/Button";

/** What the errors of a part of the app that did not load say, in the three browser families; from memory. */
export const NOT_LOADED = /dynamically imported module|Importing a module script failed|Unable to preload/;

/** What is said where a part of the app did not load, with the way out: the script in the page does it, even where nothing else came. */
export function FetchAnew() {
  return (
    <>
      <p className="text-soft mt-3">
        Something answered in the place of the app’s server, or the network broke off. The app can be fetched anew, past
        what your browser keeps of it. Do not clear this site’s data for it: that would delete what you entered.
      </p>
      <p className="mt-4">
        <Button look="main" data-fetch-anew="">
          Fetch the app anew
        </Button>
      </p>
      <p className="text-soft mt-3 hidden in-data-[anew=asking]:block" role="status">
        Fetching …
      </p>
      <p className="text-rust mt-3 hidden in-data-[anew=refused]:block" role="status">
        The server does not answer now, so everything stays as it is. Try again once there is a network.
      </p>
    </>
  );
}

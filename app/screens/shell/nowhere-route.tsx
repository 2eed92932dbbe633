import { data } from "react-router";

function nowhere(): null {
  throw data(null, { status: 404 });
}

/** An address that leads nowhere: said by the server, and by the page itself where there is none. */
export const loader = nowhere;
export const clientLoader = Object.assign(() => nowhere(), { hydrate: true as const });

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function Nowhere() {
  return null;
}

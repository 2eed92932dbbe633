import { useRouteError } from "react-router";
import { FaultWords } from "./FaultPage";

/** What a screen says in place of itself when it does not come together; rail, ribbon and everything above it stay. */
export function ScreenFault() {
  return <FaultWords error={useRouteError()} />;
}

import { useEffect, useRef } from "react";
import { isRouteErrorResponse, useLocation, useNavigate, useRouteError } from "react-router";
import { ACTS, type ActsAnswer, type ActsIntent } from "./forms/acts-intent";
import { useAct } from "./forms/use-act";
import { FaultWords, isNotLoaded } from "./FaultPage";

/** What became of looking through all that is stored. */
function checkWords(answer: ActsAnswer | undefined): string {
  if (!answer) return "Looking whether all that is stored reads …";
  if (answer.aside === 0) return "All that is stored reads: the fault is the app's own.";
  return answer.aside ? "What did not read was set aside." : "What is stored could not be checked now.";
}

/**
 * What a screen says in place of itself when it does not come together; rail, ribbon and everything above it stay. Where it was
 * something stored that does not read, that is set aside and the screen tried again.
 */
export function ScreenFault() {
  const error = useRouteError();
  const isOwn = error instanceof Error && !isRouteErrorResponse(error) && !isNotLoaded(error);
  const { act, answer } = useAct<ActsIntent, ActsAnswer>({ action: ACTS });
  const hasAsked = useRef(false);
  useEffect(() => {
    if (!isOwn || hasAsked.current) return;
    hasAsked.current = true;
    void act({ act: "recheck" });
  }, [isOwn, act]);
  const navigate = useNavigate();
  const { pathname, search, hash } = useLocation();
  const isMended = (answer?.aside ?? 0) > 0;
  useEffect(() => {
    // Going where one is, since loading anew alone leaves a screen that threw in its place.
    if (isMended) void navigate({ pathname, search, hash }, { replace: true, preventScrollReset: true });
  }, [isMended, navigate, pathname, search, hash]);
  return (
    <>
      <FaultWords error={error} />
      {isOwn ? <p className="text-soft max-w-prose">{checkWords(answer)}</p> : null}
    </>
  );
}

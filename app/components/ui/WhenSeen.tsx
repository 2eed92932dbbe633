import type { ReactNode } from "react";
import { useInView } from "react-intersection-observer";

/** Draws what is costly only once it is about to be seen; its place is kept free until then. A long list opens as fast as a short one. */
export function WhenSeen({ heightPx, children }: { readonly heightPx: number; readonly children: ReactNode }) {
  const { ref, inView } = useInView({ triggerOnce: true, rootMargin: "200px" });
  return (
    <div ref={ref} style={inView ? undefined : { minHeight: heightPx }}>
      {inView ? children : null}
    </div>
  );
}

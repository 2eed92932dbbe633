import { useEffect, useState } from "react";

/** Draws again when the theme changes, since the canvas does not know. */
export function useTheme(): number {
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    const observer = new MutationObserver(() => setTurn((t) => t + 1));
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    return () => observer.disconnect();
  }, []);
  return turn;
}

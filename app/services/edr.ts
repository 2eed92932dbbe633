import type { ForecastSource } from "./source";
import { ServiceRefusal } from "./refusal";

/** A real service may take longer than a stand-in, ms. */
const PATIENCE_MS = 8000;

/** The real service that this server's operator set up, asked through the server; null where there is none. */
export function realService(notice: string | undefined): ForecastSource | null {
  if (!notice) return null;
  const { name, credit } = JSON.parse(notice) as { readonly name: string; readonly credit: string };
  return {
    id: "edr",
    name,
    credit,
    isSimulated: false,
    timeoutMs: PATIENCE_MS,
    async ask({ latitudeDeg, longitudeDeg }, signal) {
      const at = `lat=${latitudeDeg.toFixed(2)}&lon=${longitudeDeg.toFixed(2)}`;
      const response = await fetch(`/services/forecast/edr?${at}`, { signal });
      if (!response.ok) throw new ServiceRefusal(response.status);
      return response.text();
    },
  };
}

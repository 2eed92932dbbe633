import type { KeepFault } from "~/core/records";
import type { Faults } from "./form-numbers";

/** What a form hears of its own action: what is wrong beside which box, and why nothing was kept. */
export interface FormAnswer {
  readonly faults: Faults;
  readonly refusal: KeepFault | null;
}

/** Whether an action was posted a form, or an intent as JSON. */
export const isForm = (request: Request): boolean => !(request.headers.get("Content-Type") ?? "").includes("json");

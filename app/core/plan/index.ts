export type { FrameData, GoalData, ProjectData, PanelGoal } from "./project";
export { layoutOf, panelsOf, remainingWork } from "./project";
export { allocate, type Allocation, type NightOffer, type PlanRules, type Need, type PlannedNight, type PlanResult } from "./allocate";
export { simulateFinish, type FinishOdds } from "./odds";
export { nightOffers } from "./offers";

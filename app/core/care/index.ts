export { checklistOf, leftOutOf, wholeChecklist, type Check, type UsualCheckId } from "./checklist";
export { changedCare, type CareChange } from "./edit";
export { doneChecks } from "./ticks";

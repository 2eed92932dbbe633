export { dataVersions, decodeRecords, refusedEdit } from "./checks";
export { decodeData, decodeRecord, stamped, type RecordFault } from "./decode";
export { marked } from "./version-mark";
export { changedFields } from "./changes";
export { withChanges, type FieldChange } from "./field-change";
export { NAME, type NumberField } from "./number-field";
export { AROUND_FIELDS, AWAY_FIELDS, PLACE_FIELDS, THING_NAME } from "./place-fields";
export {
  CAMERA_FIELDS,
  FOCUS_FIELDS,
  LIMIT_FIELDS,
  MOUNT_FIELDS,
  OPTICS_FIELDS,
  OVERHEAD_FIELDS,
  POWER_FIELDS,
  CHECK_WORDS,
  MOST_SETTINGS,
  SENSOR_FIELDS,
  SETTING_FIELDS,
  SETTING_NAME,
  SLOT_FIELD,
  WARM_FIELD,
} from "./rig-fields";
export { FILTER_FIELDS, THICKNESS_FIELD } from "./filter-fields";
export { GOAL_FIELDS } from "./goal-fields";
export { RULE_FIELDS, SHARING_FIELDS } from "./project-fields";
export { CALIBRATION_FIELDS } from "./settings-fields";
export { NIGHT_FIELDS, TIME_FIELDS } from "./night-facts-fields";
export { MOON_RULE_FIELDS, MOON_SHARE_FIELD } from "./moon-fields";
export { CONTRIBUTION_FIELDS } from "./contribution-fields";
export { PLANNING_FIELDS, USUAL_WISH_HOURS, WISH_FIELD } from "./settings-fields";
export { type Settings } from "./settings";
export type { Member } from "./member";
export { SIZE_FIELD } from "./target-fields";
export type { DataOf, EditOf } from "./kinds";
export { fieldsOf, isOf } from "./of-kind";
export { EDITION } from "./edition";
export { bundleSchema } from "./json-schema";
export type { KeepFault, PageFault, ProjectGap } from "./refusal";
export { MOST_EXTRA_PANELS, PANEL_NAME } from "./frame-fields";

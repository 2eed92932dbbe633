export { decodeData, decodeRecord, stamped, type RecordFault } from "./decode";
export { changedFields, withChanges, type FieldChange } from "./changes";
export { NAME, type NumberField } from "./fields";
export { AROUND_FIELDS, AWAY_FIELDS, PLACE_FIELDS, THING_NAME } from "./place";
export {
  CAMERA_FIELDS,
  MOUNT_FIELDS,
  OPTICS_FIELDS,
  OVERHEAD_FIELDS,
  POWER_FIELDS,
  MOST_SETTINGS,
  SENSOR_FIELDS,
  SETTING_FIELDS,
  SETTING_NAME,
  SLOT_FIELD,
  WARM_FIELD,
} from "./rig";
export { FILTER_FIELDS, THICKNESS_FIELD } from "./filter";
export { GOAL_FIELDS } from "./goal";
export { RULE_FIELDS, SHARING_FIELDS } from "./project";
export { CALIBRATION_FIELDS } from "./settings";
export { NIGHT_FIELDS, TIME_FIELDS } from "./night-facts";
export { MOON_RULE_FIELDS, MOON_SHARE_FIELD } from "./moon";
export { CONTRIBUTION_FIELDS } from "./contribution";
export { PLANNING_FIELDS, USUAL_WISH_HOURS, WISH_FIELD, type Settings } from "./settings";
export type { Member } from "./member";
export { SIZE_FIELD } from "./target";
export { EDITION } from "./edition";
export { bundleSchema } from "./json-schema";
export type { KeepFault } from "./refusal";
export { MOST_EXTRA_PANELS, PANEL_NAME } from "./frame";

import Joi from "joi";
import type { Crop } from "~/core/framing";
import type { DrawnOutline, FrameData } from "~/core/plan";
import { decDeg, id, name, numberOf, raDeg, textOf, type NumberField, type TextField } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

/** Numbers of a frame and its grid. */
export const FRAME_FIELDS = {
  positionAngleDeg: { label: "Camera angle", unit: "°", min: 0, max: 360 },
  columns: { label: "Columns", min: 1, max: 10, isWhole: true },
  rows: { label: "Rows", min: 1, max: 10, isWhole: true },
  overlap: { label: "Overlap", unit: "share", min: 0, max: 0.5 },
  rowShift: { label: "Shift of every other row", unit: "share of a panel", min: -0.5, max: 0.5 },
} as const satisfies Readonly<Record<string, NumberField>>;

/** The name of a panel beside its number. */
export const PANEL_NAME: TextField = { label: "Panel name", max: 60 };
/** Panels put down by hand. */
export const MOST_EXTRA_PANELS = 100;

const panelNumbers = Joi.array().max(200).items(Joi.number().integer().min(1));

export const frame: RecordSchema<FrameData> = {
  version: 1,
  migrations: [],
  schema: objectOf<FrameData>({
    projectId: id,
    raDeg,
    decDeg,
    positionAngleDeg: numberOf(FRAME_FIELDS.positionAngleDeg).less(360),
    columns: numberOf(FRAME_FIELDS.columns),
    rows: numberOf(FRAME_FIELDS.rows),
    overlap: numberOf(FRAME_FIELDS.overlap),
    overlapRows: numberOf(FRAME_FIELDS.overlap).optional(),
    rowShift: numberOf(FRAME_FIELDS.rowShift).optional(),
    extra: Joi.array()
      .max(MOST_EXTRA_PANELS)
      .items(
        objectOf<{ xArcmin: number; yArcmin: number }>({
          xArcmin: Joi.number().unit("′"),
          yArcmin: Joi.number().unit("′"),
        }),
      )
      .optional()
      .label("Panels put down by hand"),
    skipped: panelNumbers.optional().label("Panels left out"),
    names: Joi.object().pattern(Joi.string().max(4), textOf(PANEL_NAME)).optional().label("Panel names"),
    order: panelNumbers.optional().label("Order of shooting"),
    crop: objectOf<Crop>({
      xArcmin: Joi.number().min(-30_000).max(30_000).unit("′"),
      yArcmin: Joi.number().min(-30_000).max(30_000).unit("′"),
      widthArcmin: Joi.number().greater(0).max(30_000).unit("′"),
      heightArcmin: Joi.number().greater(0).max(30_000).unit("′"),
    })
      .optional()
      .label("Crop"),
    follows: objectOf<NonNullable<FrameData["follows"]>>({
      frameId: id,
      panels: Joi.object().pattern(Joi.string().max(20), Joi.string().max(20)),
    })
      .optional()
      .label("The frame it follows"),
    title: textOf({ label: "Title", max: 120 }).optional(),
    outlines: Joi.array()
      .max(40)
      .items(
        objectOf<DrawnOutline>({
          name,
          corners: Joi.array().min(3).max(400).items(Joi.array().ordered(raDeg, decDeg).length(2)),
        }),
      )
      .optional()
      .label("Outlines"),
  }),
};

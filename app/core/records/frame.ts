import { FRAME_FIELDS, PANEL_NAME, MOST_EXTRA_PANELS } from "./frame-fields";
import Joi from "joi";
import type { Crop } from "~/core/framing";
import type { DrawnOutline, FrameData } from "~/core/plan";
import { decDeg, id, name, numberOf, raDeg, textOf } from "./fields";
import { objectOf, type RecordSchema } from "./kind";

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

import { writeFileSync } from "node:fs";
import { bundleSchema } from "../app/core/records";

/** Writes the published JSON Schema of a bundle, made from the schemas by which records are read. */
writeFileSync(new URL("../docs/bundle.schema.json", import.meta.url), `${JSON.stringify(bundleSchema(), null, 2)}\n`);

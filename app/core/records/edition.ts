/**
 * Goes up with every change of a schema, so that what was checked by an earlier one is checked again when it is read. A test
 * holds it to the schemas.
 */
export const EDITION = 21;

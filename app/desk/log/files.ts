export type { MeasuredFile, PictureFault, ReadFile } from "~/workers/files";

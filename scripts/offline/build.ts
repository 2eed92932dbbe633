import { SHELL_URL } from "../../app/offline/words";
import { writeWorker } from "./worker-file";

/** The worker of what the server serves. */
const root = new URL("../../build/client", import.meta.url).pathname;
const { files, bytes } = await writeWorker({ root, base: "/", shell: SHELL_URL });
console.log(`offline: ${files} files, ${(bytes / 1e6).toFixed(1)} MB`);

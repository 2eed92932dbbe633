import { useEffect, useRef, useState } from "react";

/** Why there is no picture. */
export type CameraFault = "none" | "refused";

const EVERY_MS = 150; // a picture is looked at; codes change slower
const WIDTH_PX = 640; // a code of 85 modules has 5 px and more a module in half of it

/** Whether this browser can open a camera at all. */
export const canSee = (): boolean => typeof navigator.mediaDevices?.getUserMedia === "function";

/**
 * The camera's picture in a video element, and `onPicture` for one after the other, each once the one before is done with. The camera
 * is let go when nobody looks any more.
 */
export function useCamera(onPicture: (picture: ImageData) => Promise<void>) {
  const video = useRef<HTMLVideoElement>(null);
  const [fault, setFault] = useState<CameraFault | null>(null);
  const look = useRef(onPicture);
  useEffect(() => {
    look.current = onPicture;
  });
  useEffect(() => {
    let stream: MediaStream | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isGone = false;
    const canvas = document.createElement("canvas");
    const pen = canvas.getContext("2d", { willReadFrequently: true });
    const next = async () => {
      const shown = video.current;
      if (isGone || !shown || !pen) return;
      if (shown.videoWidth > 0) {
        canvas.width = Math.min(WIDTH_PX, shown.videoWidth);
        canvas.height = Math.round((canvas.width * shown.videoHeight) / shown.videoWidth);
        pen.drawImage(shown, 0, 0, canvas.width, canvas.height);
        await look.current(pen.getImageData(0, 0, canvas.width, canvas.height)).catch(() => undefined);
      }
      if (!isGone) timer = setTimeout(() => void next(), EVERY_MS);
    };
    navigator.mediaDevices
      .getUserMedia({ video: { facingMode: "environment" }, audio: false })
      .then(async (given) => {
        stream = given;
        if (isGone || !video.current) return given.getTracks().forEach((t) => t.stop());
        video.current.srcObject = given;
        await video.current.play();
        await next();
      })
      .catch((error: unknown) => {
        if (!isGone) setFault(error instanceof DOMException && error.name === "NotAllowedError" ? "refused" : "none");
      });
    return () => {
      isGone = true;
      clearTimeout(timer);
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, []);
  return { video, fault };
}

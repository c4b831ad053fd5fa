/** Widest picture that is asked of a camera, pixels. */
const WIDEST_PX = 4096;
/** Width of the frames that are judged while the camera is held, pixels: a frame costs a few milliseconds. */
const JUDGED_PX = 480;
const QUALITY = 0.95;

/** The camera that looks away from whoever holds the device; its picture as it is, and one frame of it as it is taken. */
export interface Camera {
  stream: MediaStream;
  /** Its lens as the browser names it. */
  id: string;
  /** Steps of exposure that it can be told, EV; null: it cannot. */
  exposure: { min: number; max: number; step: number; value: number } | null;
  setExposure(value: number): Promise<void>;
  /** A picture as large as the camera makes it. */
  take(video: HTMLVideoElement): Promise<File>;
  stop(): void;
}

/** What some cameras tell of themselves beside what every browser knows. */
type Told = MediaTrackCapabilities & { exposureCompensation?: { min: number; max: number; step: number } };

/** Why there is no picture, in words. */
export function cameraRefusal(error: unknown): string {
  const name = error instanceof DOMException ? error.name : "";
  if (name === "NotAllowedError") return "The browser was not allowed to use the camera: allow it in its settings for this page";
  if (name === "NotFoundError" || name === "OverconstrainedError") return "No camera is there";
  if (name === "NotReadableError" || name === "AbortError") return "The camera does not answer: is another program using it?";
  return "The camera could not be used";
}

/** @param id one camera of several; null: the one at the back @throws DOMException as `getUserMedia` does */
export async function openCamera(id: string | null): Promise<Camera> {
  const which = id ? { deviceId: { exact: id } } : { facingMode: { ideal: "environment" } };
  const stream = await navigator.mediaDevices.getUserMedia({ audio: false, video: { ...which, width: { ideal: WIDEST_PX } } });
  const track = stream.getVideoTracks()[0]!;
  const { exposureCompensation: steps } = (track.getCapabilities?.() ?? {}) as Told;
  const { exposureCompensation: value = 0, deviceId = "" } = track.getSettings() as MediaTrackSettings & { exposureCompensation?: number };
  return {
    stream,
    id: deviceId,
    exposure: steps && steps.max > steps.min ? { ...steps, step: steps.step || 0.1, value } : null,
    setExposure: (to) => track.applyConstraints({ advanced: [{ exposureCompensation: to } as MediaTrackConstraintSet] }),
    take: async (video) => new File([await taken(track, video)], "picture.jpg", { type: "image/jpeg" }),
    stop: () => stream.getTracks().forEach((t) => t.stop()),
  };
}

/** The camera's own photograph where the browser can ask for one, which is larger than a frame; else the frame that is shown. */
async function taken(track: MediaStreamTrack, video: HTMLVideoElement): Promise<Blob> {
  const Capture = (window as { ImageCapture?: new (of: MediaStreamTrack) => { takePhoto(): Promise<Blob> } }).ImageCapture;
  const photo = Capture && (await new Capture(track).takePhoto().catch(() => null));
  if (photo?.type === "image/jpeg") return photo;
  const drawing = frame(video, video.videoWidth);
  return drawing.convertToBlob({ type: "image/jpeg", quality: QUALITY });
}

function frame(video: HTMLVideoElement, width: number): OffscreenCanvas {
  const drawing = new OffscreenCanvas(width, Math.max(1, Math.round((width * video.videoHeight) / video.videoWidth)));
  drawing.getContext("2d", { willReadFrequently: true })!.drawImage(video, 0, 0, drawing.width, drawing.height);
  return drawing;
}

/** A small frame of what the camera sees now, four bytes a pixel; null before its first. */
export function smallFrame(video: HTMLVideoElement): ImageData | null {
  if (video.videoWidth === 0) return null;
  const drawing = frame(video, Math.min(JUDGED_PX, video.videoWidth));
  return drawing.getContext("2d")!.getImageData(0, 0, drawing.width, drawing.height);
}

/** Every camera there is, by the name that the browser gives it. */
export async function cameras(): Promise<{ id: string; name: string }[]> {
  const all = await navigator.mediaDevices.enumerateDevices();
  return all.filter((d) => d.kind === "videoinput" && d.deviceId).map((d, i) => ({ id: d.deviceId, name: d.label || `Camera ${i + 1}` }));
}

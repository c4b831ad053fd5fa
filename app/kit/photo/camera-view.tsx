import * as Dialog from "@radix-ui/react-dialog";
import { useEffect, useRef, useState } from "react";
import { type Picture, pictureOf } from "#core/models/photo/picture";
import { SelectField } from "~/kit/ui/field";
import { type Camera, cameraRefusal, cameras, openCamera, smallFrame } from "./the-camera";

/** Why a picture like this would be refused; null: it would be read. @param times so many pixels of it does one of the frame stand for */
export type CameraJudge = (frame: Picture, times: number) => string | null;
/** It comes when a camera is opened. */
export type LateJudge = () => Promise<CameraJudge>;
const JUDGED_EVERY_MS = 500;

/** What the camera sees, live; one picture of it, looked at before it is used. @param press what opened it, where the keyboard goes on */
export function CameraView({
  of,
  judge,
  press,
  onTake,
  onClose,
}: {
  of: string;
  judge: LateJudge | undefined;
  press: React.RefObject<HTMLButtonElement | null>;
  onTake: (file: File) => void;
  onClose: () => void;
}) {
  const { video, camera, refusal, all, choose } = useCamera();
  const said = useJudged(video, camera, judge);
  const [shot, setShot] = useState<{ file: File; url: string } | null>(null);
  useEffect(() => () => (shot ? URL.revokeObjectURL(shot.url) : undefined), [shot]);
  const [busy, setBusy] = useState(false);
  const take = async () => {
    setBusy(true);
    const file = await camera!.take(video.current!);
    setBusy(false);
    setShot({ file, url: URL.createObjectURL(file) });
  };
  const ready = useRef<HTMLButtonElement>(null);
  useEffect(() => ready.current?.focus(), [camera, shot]);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Dialog.Content
          aria-describedby={undefined}
          onCloseAutoFocus={(e) => {
            e.preventDefault();
            press.current?.focus();
          }}
          className="fixed top-[2vh] left-1/2 z-50 max-h-[96vh] w-[min(860px,97vw)] -translate-x-1/2 space-y-3 overflow-y-auto rounded-press border border-edge bg-paper p-4 text-ink"
        >
          <Dialog.Title className="text-xl font-semibold">{of ? `A picture of ${of}` : "A picture"}</Dialog.Title>
          {refusal ? (
            <p role="alert" className="font-medium text-stop-ink">
              {refusal}. A picture can be chosen from the disk instead.
            </p>
          ) : (
            <div className="relative">
              <video
                ref={video}
                autoPlay
                muted
                playsInline
                aria-label="What the camera sees"
                className={`max-h-[64vh] min-h-40 w-full bg-black object-contain ${shot ? "invisible" : ""}`}
              />
              {shot && <img src={shot.url} alt="What was taken" className="absolute inset-0 h-full w-full object-contain" />}
            </div>
          )}
          {judge && !refusal && (
            <p aria-live="polite" className={`min-h-6 ${said ? "font-medium text-stop-ink" : "text-ink2"}`} data-testid="camera-says">
              {shot ? "" : said === undefined ? "Looking…" : said === null ? "Light and view will do." : `${said}.`}
            </p>
          )}
          {!shot && camera?.exposure && <Exposure camera={camera} steps={camera.exposure} />}
          <div className="flex flex-wrap items-end gap-3">
            {shot ? (
              <>
                <button
                  ref={ready}
                  type="button"
                  className="press"
                  data-kind="main"
                  onClick={() => {
                    onTake(shot.file);
                    onClose();
                  }}
                >
                  Use it
                </button>
                <button type="button" className="press" onClick={() => setShot(null)}>
                  Take it again
                </button>
              </>
            ) : (
              <button ref={ready} type="button" className="press" data-kind="main" disabled={!camera || busy} onClick={() => void take()}>
                Take it
              </button>
            )}
            <Dialog.Close className="press" data-kind="quiet">
              Close
            </Dialog.Close>
            {!shot && all.length > 1 && (
              <SelectField label="Camera" value={camera?.id ?? ""} onChange={(e) => choose(e.target.value)}>
                {all.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.name}
                  </option>
                ))}
              </SelectField>
            )}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Brighter or darker, where the camera can be told. */
function Exposure({ camera, steps }: { camera: Camera; steps: NonNullable<Camera["exposure"]> }) {
  const [value, setValue] = useState(steps.value);
  return (
    <label className="block">
      <span className="small-label">Exposure, {value > 0 ? `+${value.toFixed(1)}` : value.toFixed(1)} EV</span>
      <input
        type="range"
        min={steps.min}
        max={steps.max}
        step={steps.step}
        value={value}
        className="h-11 w-full"
        onChange={(e) => {
          setValue(Number(e.target.value));
          void camera.setExposure(Number(e.target.value));
        }}
      />
    </label>
  );
}

/** The camera for as long as it is looked through. */
function useCamera() {
  const video = useRef<HTMLVideoElement>(null);
  const [id, choose] = useState<string | null>(null);
  const [camera, setCamera] = useState<Camera | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [all, setAll] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    let gone = false;
    let opened: Camera | null = null;
    const open = async () => {
      try {
        opened = await openCamera(id);
      } catch (error) {
        if (!gone) setRefusal(cameraRefusal(error));
        return;
      }
      if (gone) return opened.stop();
      video.current!.srcObject = opened.stream;
      setCamera(opened);
      setAll(await cameras()); // their names are told only once one may be used
    };
    void open();
    return () => {
      gone = true;
      setCamera(null);
      opened?.stop();
    };
  }, [id]);
  return { video, camera, refusal, all, choose };
}

/** What would be refused of what the camera sees now; undefined: not looked at yet. */
function useJudged(video: React.RefObject<HTMLVideoElement | null>, camera: Camera | null, judge: LateJudge | undefined) {
  const [said, setSaid] = useState<string | null | undefined>(undefined);
  useEffect(() => {
    if (!camera || !judge) return;
    let timer: ReturnType<typeof setInterval> | undefined;
    let gone = false;
    const begin = (refused: CameraJudge) => {
      if (gone) return;
      timer = setInterval(() => {
        const seen = video.current && smallFrame(video.current);
        if (seen) setSaid(refused(pictureOf(seen.data, seen.width, seen.height), video.current!.videoWidth / seen.width));
      }, JUDGED_EVERY_MS);
    };
    judge().then(begin, () => {}); // what could not be fetched judges nothing
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [video, camera, judge]);
  return said;
}

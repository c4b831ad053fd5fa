import { Suspense, lazy, useRef, useState } from "react";
import type { LateJudge } from "./camera-view";

const CameraView = lazy(async () => ({ default: (await import("./camera-view")).CameraView }));

export interface TakePictureProps {
  /** What is photographed, for whoever does not see the page, where it asks for several. */
  of?: string;
  disabled?: boolean;
  /** What would be refused of the picture, told while the camera is held. */
  judge?: LateJudge;
  onTake: (file: File) => void;
}

/**
 * Takes a picture with the device's own camera: live in the page where the browser lets the page have it, by the device's camera program over
 * plain http.
 */
export function TakePicture({ of = "", disabled, judge, onTake }: TakePictureProps) {
  const [open, setOpen] = useState(false);
  const press = useRef<HTMLButtonElement>(null);
  const program = useRef<HTMLInputElement>(null);
  // Known only once somebody presses: the server draws the same press for everybody.
  const start = () => ("mediaDevices" in navigator ? setOpen(true) : program.current!.click());
  return (
    <>
      <button ref={press} type="button" className="press" disabled={disabled} onClick={start}>
        Take a picture{of && <span className="sr-only"> of {of}</span>}
      </button>
      <input
        ref={program}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        tabIndex={-1}
        aria-hidden
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onTake(file);
        }}
      />
      {open && (
        <Suspense>
          <CameraView {...{ of, judge, onTake, press }} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}

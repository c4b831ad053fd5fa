import { FilePress } from "~/kit/ui/file-press";
import { TakePicture, type TakePictureProps } from "./take-picture";

/** One picture, by the camera or from the disk. */
export function ChoosePicture(props: TakePictureProps) {
  const { of, disabled, onTake } = props;
  return (
    <>
      <TakePicture {...props} />
      <FilePress accept="image/*" disabled={disabled} onFile={onTake}>
        Choose a picture{of && <span className="sr-only"> of {of}</span>}
      </FilePress>
    </>
  );
}

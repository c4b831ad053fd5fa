/** A press that takes one file from the disk; the same file can be taken again. */
export function FilePress({
  accept,
  disabled,
  onFile,
  children,
}: {
  accept: string;
  disabled?: boolean;
  onFile: (file: File) => void;
  children: React.ReactNode;
}) {
  return (
    <label className="press">
      {children}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        disabled={disabled}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
    </label>
  );
}

/** A wide table that scrolls by itself; it takes the focus so that the keyboard can scroll it too (WCAG 2.1.1). */
export function ScrollRegion({
  label,
  children,
  className = "",
  narrow = false,
}: {
  label: string;
  children: React.ReactNode;
  className?: string;
  /** Few columns: it may get narrower before it scrolls. */
  narrow?: boolean;
}) {
  const least = narrow ? "[&>table]:min-w-[330px]" : "[&>table]:min-w-[560px]";
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a scrolling region must be reachable by keyboard
    <div className={`relative overflow-x-auto ${least} ${className}`} role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}

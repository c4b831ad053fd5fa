/** A wide table that scrolls by itself; it takes the focus so that the keyboard can scroll it too (WCAG 2.1.1). */
export function ScrollRegion({ label, children, className = "" }: { label: string; children: React.ReactNode; className?: string }) {
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a scrolling region must be reachable by keyboard
    <div className={`overflow-x-auto [&>table]:min-w-[560px] ${className}`} role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}

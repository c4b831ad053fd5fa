/** What need not be read before the first press: it stands behind one tap. */
export function More({ label = "Why", className = "", children }: { label?: string; className?: string; children: React.ReactNode }) {
  return (
    <details className={className}>
      <summary className="inline-flex min-h-11 cursor-pointer items-center text-[14px] font-semibold underline underline-offset-4">
        {label}
      </summary>
      <div className="space-y-2 pb-2">{children}</div>
    </details>
  );
}

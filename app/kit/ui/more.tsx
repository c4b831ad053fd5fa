/** What need not be read before the first press: it stands behind one tap. */
export function More({
  label = "Why",
  open = false,
  className = "",
  children,
}: {
  label?: string;
  /** It begins unfolded: what it holds is asked for now. */
  open?: boolean;
  className?: string;
  children: React.ReactNode;
}) {
  return (
    <details className={className} open={open}>
      <summary className="inline-flex min-h-11 cursor-pointer items-center text-[14px] font-semibold underline underline-offset-4">
        {label}
      </summary>
      <div className="space-y-2 pb-2">{children}</div>
    </details>
  );
}

/** What stands where the options will, until they are weighed; or why they cannot be. */
export const OptionsWaiting = ({ reason = null }: { reason?: string | null }) => (
  <h2 className="min-h-[2.24em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight" aria-live="polite">
    {reason ?? "Working out the film first."}
  </h2>
);

/** A row of large figures, each with what it is below it. */
export const BigFigures = ({ figures, testId }: { figures: readonly { big: string; small: string }[]; testId: string }) => (
  <dl className="mt-4 flex flex-wrap gap-x-9 gap-y-3" data-testid={testId}>
    {figures.map(({ big, small }) => (
      <div key={small}>
        <dd className="text-[27px] leading-none font-semibold tracking-tight">{big}</dd>
        <dt className="text-[13px] text-ink2">{small}</dt>
      </div>
    ))}
  </dl>
);

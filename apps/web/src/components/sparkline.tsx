/** Counts of some days as small bars; the words say the same for those who do not see them. */
export function Sparkline({
  values,
  label,
  className = 'h-5 w-[120px] text-green',
}: {
  values: readonly number[];
  label: string;
  className?: string;
}) {
  const most = Math.max(1, ...values);
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${values.length * 4} 20`}
      className={className}
      preserveAspectRatio="none"
    >
      <title>{label}</title>
      {values.map((value, index) => {
        const height = value === 0 ? 1 : Math.max(2, (value / most) * 20);
        return (
          <rect
            key={index}
            x={index * 4}
            y={20 - height}
            width={3}
            height={height}
            fill="currentColor"
            opacity={value === 0 ? 0.35 : 1}
          />
        );
      })}
    </svg>
  );
}

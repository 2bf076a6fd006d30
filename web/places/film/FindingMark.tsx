import type { Severity } from '#core/system/stack';

/** A severity by its shape: a barred disc stops, a triangle cautions, a ring notes. */
export function FindingMark({ severity, size = 19 }: { severity: Severity; size?: number }) {
  return (
    <svg viewBox="0 0 20 20" width={size} height={size} aria-hidden="true" className="shrink-0">
      {severity === 'stop' && (
        <>
          <rect
            x="1.5"
            y="1.5"
            width="17"
            height="17"
            fill="var(--color-error)"
            stroke="var(--color-error)"
            strokeWidth="2"
          />
          <path d="M5 10h10" stroke="var(--color-error-content)" strokeWidth="3.4" />
        </>
      )}
      {severity === 'caution' && (
        <path d="M10 2L19 18H1Z" fill="none" stroke="var(--color-warning)" strokeWidth="2.6" strokeLinejoin="round" />
      )}
      {severity === 'note' && <circle cx="10" cy="10" r="6.5" fill="none" stroke="currentColor" strokeWidth="2" />}
    </svg>
  );
}

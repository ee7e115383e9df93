/** A lantern: lit when a stage is done. */
export function LanternMark({ lit, size = 22 }: { lit: boolean; size?: number }) {
  return (
    <svg viewBox="0 0 24 30" width={size} height={size * 1.25} aria-hidden>
      <path
        d="M12 1v4M7 6h10"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeLinecap="round"
        fill="none"
      />
      <path
        d="M7.4 6.2C4.4 9 3.6 12.4 4.2 16.4C4.7 19.9 6 22.4 7.6 24.4H16.4C18 22.4 19.3 19.9 19.8 16.4C20.4 12.4 19.6 9 16.6 6.2Z"
        fill={lit ? 'var(--amber)' : 'transparent'}
        fillOpacity={lit ? 0.92 : 1}
        stroke="currentColor"
        strokeWidth="1.6"
        strokeLinejoin="round"
      />
      <path d="M8 27.6h8" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" />
      {lit && <path d="M12 19.6c-2.2-1.6-1.6-4 0-6.4c1.6 2.4 2.2 4.8 0 6.4Z" fill="#fff6dc" />}
    </svg>
  )
}

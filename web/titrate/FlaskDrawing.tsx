import type { Colour } from '#core/chemistry';

/** The flask in the colour that its content has now. */
export function FlaskDrawing({ colour }: { readonly colour: Colour }) {
  return (
    <svg viewBox="0 0 120 104" className="h-full" role="img" aria-label={`flask, ${colour.word}`}>
      <path d="M29.5 62h61L108 92q3 8-6 8H18q-9 0-6-8z" fill={colour.css} />
      <path
        d="M48 4h24M50 4v34L12 92q-4 8 6 8h84q10 0 6-8L70 38V4"
        fill="none"
        stroke="var(--color-titrant-edge)"
        strokeWidth="2.4"
        strokeLinejoin="round"
      />
      <path d="M30 62q30 5 60 0" fill="none" stroke="var(--color-titrant-edge)" strokeWidth="1.2" />
    </svg>
  );
}

/** The head of an arrow, in the colour of its line, as a marker to be named by its id; `size` in widths of the line. */
export function ArrowHead({ id, size }: { id: string; size: number }) {
  return (
    <defs>
      <marker
        id={id}
        viewBox="0 0 10 10"
        refX="6"
        refY="5"
        markerWidth={size}
        markerHeight={size}
        orient="auto-start-reverse"
      >
        <path d="M0 0 10 5 0 10z" fill="context-stroke" />
      </marker>
    </defs>
  )
}

/** The key that does the same. */
export const Key = ({ children }: { children: string }) => (
  <kbd
    aria-hidden
    className="turns rounded border border-current/50 px-1 text-[11px] leading-4 font-normal max-sm:hidden"
  >
    {children}
  </kbd>
)

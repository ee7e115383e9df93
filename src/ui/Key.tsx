/** The key that does the same. */
export const Key = ({ children }: { children: string }) => (
  <kbd
    aria-hidden
    className="turns rounded border border-current/40 px-1 text-[11px] leading-4 font-normal opacity-80 max-sm:hidden"
  >
    {children}
  </kbd>
)

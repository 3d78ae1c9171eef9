/** While a page is being loaded. */
export function Opening() {
  return <p className="p-8 text-ink-2">Opening…</p>;
}

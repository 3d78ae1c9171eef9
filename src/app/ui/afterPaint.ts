/** Milliseconds after which something is done though the page is not painted, as when it is not in view. */
const AT_LATEST = 60;

/** Does something when what was changed is on the screen; gives what calls it off. */
export function afterPaint(act: () => void): () => void {
  let timer = setTimeout(done, AT_LATEST);
  const frame = requestAnimationFrame(() => {
    clearTimeout(timer);
    timer = setTimeout(done);
  });
  function done() {
    cancelAnimationFrame(frame);
    act();
  }
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

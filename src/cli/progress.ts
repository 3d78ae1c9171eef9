/** Milliseconds before a command says how far it is, and between two times that it does. */
const AFTER = 1000;
const BETWEEN = 200;

/** The part of standard error that is used. */
export interface Terminal {
  isTTY?: boolean;
  write(text: string): unknown;
}

/**
 * Tells on a terminal how far a check is once it takes longer than a second; on anything else nothing. `asked` is
 * for the check's `stop`: it never stops it. `what` is what is counted. `done` takes the line away.
 */
export function progress(
  says: string,
  what = "steps looked at",
  terminal: Terminal = process.stderr,
  now: () => number = () => performance.now(),
): { asked: () => boolean; done: () => void } {
  const started = now();
  let told = 0;
  let count = 0;
  return {
    asked: () => {
      count += 1;
      if (!terminal.isTTY || count % 64 !== 0) return false;
      const time = now();
      if (time - started < AFTER || time - told < BETWEEN) return false;
      told = time;
      terminal.write(`\r${says}: ${count} ${what}, ${Math.round((time - started) / 1000)} s`);
      return false;
    },
    done: () => {
      if (told > 0) terminal.write("\r\u001b[2K");
    },
  };
}

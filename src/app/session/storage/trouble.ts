/** Names of errors by which a browser, or Dexie for it, says that its storage failed, and not that what was to be stored is wrong. */
const OF_STORAGE =
  /^(QuotaExceeded|Abort|InvalidState|Unknown|Version|VersionChange|OpenFailed|MissingAPI|DatabaseClosed|TransactionInactive|Timeout|Data|NotReadable|Security)(Error)?$/;

/** Whether an error is one of the browser's storage. */
export function ofStorage(error: unknown): boolean {
  return error instanceof Error && OF_STORAGE.test(error.name);
}

/** An error of storing in words, with what helps; every other with its own. */
export function storageWords(error: unknown): string {
  if (!ofStorage(error)) return error instanceof Error ? error.message : String(error);
  const { name, message } = error as Error;
  if (isFull(error)) return "the browser has no room left. Delete projects or pictures that you don’t need, then try again; or export this project.";
  if (/^DatabaseClosed/.test(name)) return "another window has a newer version of Etape. Export this project if it is not saved, then load the page again.";
  return `the browser’s storage failed (${message || name}). Try again, or export this project.`;
}

/** Words that go on after others, such as "not saved: …", as a sentence of their own. */
export function asSentence(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** Whether there was no room; Dexie tells it of a transaction that ended by it. */
function isFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const inner = "inner" in error ? error.inner : undefined;
  return /quota/i.test(`${error.name} ${error.message}`) || (inner !== error && isFull(inner));
}

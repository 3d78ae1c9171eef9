/** A text as one line: line ends and characters that no reader shows become spaces. */
export function asLine(text: string): string {
  return text.replace(/[\p{Cc}\u2028\u2029]+/gu, " ");
}

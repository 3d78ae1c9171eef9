/** Whether a text is meant as quick lines, and not as names of screens. */
export function isLines(text: string): boolean {
  return /[:>]|\((?:tabs|stack|drawer|sheet|modal|dialog|panel|full screen)\b/.test(text.replace(/"(?:[^"\\]|\\.)*"/g, ""));
}

/** One of many, by the commonest endings of English; a word that has none of them stays as it is. */
export function singular(word: string): string {
  if (/(ss|us|is|news|series)$/i.test(word)) return word;
  if (/ies$/i.test(word)) return word.replace(/ies$/i, "y");
  if (/(ch|sh|x|z|s)es$/i.test(word)) return word.replace(/es$/i, "");
  return word.replace(/s$/i, "");
}

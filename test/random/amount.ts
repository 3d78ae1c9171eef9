/**
 * How many random documents a test takes. `npm test` takes as many as somebody waits for; `npm run test:long` takes all, from the same
 * seeds, so that what it finds is found again.
 */
export function amount(all: number, usual: number): number {
  return process.env.ETAPE_LONG ? all : usual;
}

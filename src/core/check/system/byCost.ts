/** What waits to be looked at, the cheapest first, and of the same cost what came last; costs are whole numbers from 0 on, and few. */
export class ByCost<T> {
  private readonly lists: Array<T[] | undefined> = [];
  private now = 0;

  add(entry: T, cost: number) {
    const list = this.lists[cost];
    if (list) list.push(entry);
    else this.lists[cost] = [entry];
    if (cost < this.now) this.now = cost;
  }

  take(): { entry: T; cost: number } | undefined {
    for (; this.now < this.lists.length; this.now++) {
      const entry = this.lists[this.now]?.pop();
      if (entry !== undefined) return { entry, cost: this.now };
    }
    return undefined;
  }
}

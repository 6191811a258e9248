import type { MaterializedColumn } from './columns';
import { mendedOrder, orderBy } from './orders';
import type { Ordinals } from './ordinals';

interface KeptOrder {
  /** The columns it was made of; others in their place make it anew. */
  columns: readonly MaterializedColumn[];
  order: Uint32Array;
  /** Whose values changed since. */
  moved: Set<number>;
}

const MOST_ORDERS = 6;
/** Beyond so many an order is sooner made anew than mended. */
const MOST_MOVED = 20_000;

/** Orders of everybody: made once, then kept, and mended where people change. */
export class KeptOrders {
  private readonly orders = new Map<string, KeptOrder>();

  constructor(private readonly people: Ordinals) {}

  get bytes(): number {
    return this.orders.size * this.people.size * 4;
  }

  clear(): void {
    this.orders.clear();
  }

  /** Tells the orders that are made of a column whose values in it are others now. */
  moved(column: MaterializedColumn, ordinals: readonly number[]): void {
    for (const [name, { columns, moved }] of this.orders) {
      if (!columns.includes(column)) continue;
      for (const ordinal of ordinals) moved.add(ordinal);
      if (moved.size > MOST_MOVED) this.orders.delete(name);
    }
  }

  /** Everybody by the values of columns, the first above all. */
  by(name: string, columns: readonly MaterializedColumn[], descending: boolean): Uint32Array {
    const { ids, size } = this.people;
    const known = this.orders.get(name);
    const same = known && columns.every((column, i) => column === known.columns[i]);
    const moves = same ? known.moved.size + size - known.order.length : 0;
    if (same && moves === 0) return known.order;
    const order =
      same && moves <= MOST_MOVED
        ? mendedOrder(known.order, columns, ids, size, descending, known.moved)
        : orderBy(columns, ids, size, descending);
    this.orders.delete(name);
    this.orders.set(name, { columns, order, moved: new Set() });
    if (this.orders.size > MOST_ORDERS) this.orders.delete(this.orders.keys().next().value!);
    return order;
  }
}

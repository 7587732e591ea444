/** A part of the chart that something takes up, in pixels. */
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

export const meet = (a: Box, b: Box): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

const size = 32;

/** What is taken of the chart, by squares, so that a free place is found in a moment. */
export class Boxes {
  #squares = new Map<number, Box[]>();

  constructor(private readonly room: Box) {}

  *#around(b: Box): Iterable<number> {
    for (let x = Math.floor(b.x0 / size); x <= Math.floor(b.x1 / size); x++)
      for (let y = Math.floor(b.y0 / size); y <= Math.floor(b.y1 / size); y++) yield x * 4096 + y;
  }

  take(b: Box): void {
    for (const key of this.#around(b)) {
      const list = this.#squares.get(key);
      if (list) list.push(b);
      else this.#squares.set(key, [b]);
    }
  }

  /** Whether a box lies in the room and touches nothing, but for what is excepted. */
  free(b: Box, except?: Box): boolean {
    if (b.x0 < this.room.x0 || b.y0 < this.room.y0 || b.x1 > this.room.x1 || b.y1 > this.room.y1) return false;
    for (const key of this.#around(b))
      for (const t of this.#squares.get(key) ?? []) if (t !== except && meet(t, b)) return false;
    return true;
  }
}

import type { Point, View } from './plane';
import { toScreen } from './plane';

/** A stretch of the edge of the chart. */
export interface Block {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Bearing extends Point {
  degrees: number;
  side: 'n' | 'e' | 's' | 'w';
}

export const thickness = 5;

const degreesFrom = (you: Point, x: number, y: number) =>
  ((Math.atan2(x - you.x, you.y - y) * 180) / Math.PI + 360) % 360;

/** The edge as a compass: blocks of ten degrees of bearing from you, every other one dark, and every thirtieth degree. */
export function edgeOf(v: View): { blocks: Block[]; bearings: Bearing[] } {
  const you = toScreen(v, { x: 0, y: 0 });
  const blocks: Block[] = [];
  const bearings: Bearing[] = [];
  const sides = [
    { side: 'n', long: v.width, at: (t: number) => ({ x: t, y: 0 }) },
    { side: 'e', long: v.height, at: (t: number) => ({ x: v.width, y: t }) },
    { side: 's', long: v.width, at: (t: number) => ({ x: t, y: v.height }) },
    { side: 'w', long: v.height, at: (t: number) => ({ x: 0, y: t }) },
  ] as const;
  for (const { side, long, at } of sides) {
    const flat = side === 'n' || side === 's';
    let from = -1;
    let before: number | undefined;
    for (let t = 0; t <= long; t++) {
      const p = at(t);
      const deg = degreesFrom(you, p.x, p.y);
      const dark = t < long && Math.floor(deg / 10) % 2 === 0;
      if (dark && from < 0) from = t;
      if (!dark && from >= 0) {
        blocks.push(
          flat
            ? { x: from, y: side === 'n' ? 0 : v.height - thickness, width: t - from, height: thickness }
            : { x: side === 'w' ? 0 : v.width - thickness, y: from, width: thickness, height: t - from },
        );
        from = -1;
      }
      if (before !== undefined) {
        const passed = [...Array(12).keys()].map((i) => i * 30).find((b) => crosses(before ?? 0, deg, b));
        if (passed !== undefined) bearings.push({ ...p, degrees: passed, side });
      }
      before = deg;
    }
  }
  return { blocks, bearings };
}

/** Whether a small step from one bearing to another passes a third. */
function crosses(a: number, b: number, at: number): boolean {
  const near = (d: number) => ((d - at + 540) % 360) - 180;
  const [x, y] = [near(a), near(b)];
  return Math.abs(x) < 20 && Math.abs(y) < 20 && x < 0 !== y < 0;
}

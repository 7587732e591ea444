/**
 * A tone is drawn as a key: five cuts of three depths, from its place in the
 * tone table, so that equal tones always look equal.
 */
export function cuts(index: number): number[] {
  let n = (index * 97 + 31) % 243;
  return Array.from({ length: 5 }, () => {
    const cut = n % 3;
    n = Math.floor(n / 3);
    return cut;
  });
}

const teeth = [22, 29, 36, 43, 50];
const depth = [2, 6, 10];

/** The outline of the blade, its teeth pointing down. */
export function blade(index: number): string {
  let d = 'M15,-3H61L63,-0.5L61,2H57';
  for (const [i, cut] of [...cuts(index).entries()].reverse()) {
    const x = teeth[i] ?? 0;
    d += `V${String(depth[cut])}H${String(x)}V2`;
  }
  return `${d}H15Z`;
}

/** The way through a lock that a key of this shape fits. */
export function keyway(index: number): string {
  let d = 'M0,-4.5H43L46.5,-0.5L43,3.5H39';
  for (const [i, cut] of [...cuts(index).entries()].reverse()) {
    const x = (teeth[i] ?? 0) - 18;
    d += `V${String((depth[cut] ?? 0) + 1.5)}H${String(x - 1)}V3.5`;
  }
  return `${d}H0Z`;
}

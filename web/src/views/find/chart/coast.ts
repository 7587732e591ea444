import { planeAround, toScreen, windowOf, type Place, type Point, type View } from './plane';

/** A coast with the box that it fills; longitude and latitude by turns. */
export interface Coast {
  south: number;
  west: number;
  north: number;
  east: number;
  ring: number[];
}

/** A name that the map data give to a place. */
export interface Named extends Place {
  kind: 'cape' | 'water' | 'light';
  name: string;
}

/** Takes rings of longitudes and latitudes with their boxes. */
export function coastsOf(rings: number[][]): Coast[] {
  return rings.map((ring) => {
    const c: Coast = { south: 90, west: 180, north: -90, east: -180, ring };
    for (let i = 0; i + 1 < ring.length; i += 2) {
      const lon = ring[i] ?? 0;
      const lat = ring[i + 1] ?? 0;
      c.south = Math.min(c.south, lat);
      c.north = Math.max(c.north, lat);
      c.west = Math.min(c.west, lon);
      c.east = Math.max(c.east, lon);
    }
    return c;
  });
}

interface Feature {
  properties?: { kind?: string; name?: string };
  geometry?: { type: string; coordinates: unknown };
}

/** The rings of GeoJSON polygons, in the same form. */
export function ringsOf(collection: Record<string, unknown>): number[][] {
  return ((collection.features ?? []) as Feature[]).flatMap(({ geometry }) => {
    if (geometry?.type === 'Polygon') return (geometry.coordinates as number[][][]).map((r) => r.flat());
    if (geometry?.type === 'MultiPolygon') return (geometry.coordinates as number[][][][]).flat().map((r) => r.flat());
    return [];
  });
}

/** The capes, waters and lights that GeoJSON names. */
export function namesOf(collection: Record<string, unknown>): Named[] {
  return ((collection.features ?? []) as Feature[]).flatMap(({ properties: p, geometry: g }) => {
    if (g?.type !== 'Point' || !p?.name || !['cape', 'water', 'light'].includes(p.kind ?? '')) return [];
    const [lon = 0, lat = 0] = g.coordinates as number[];
    return [{ kind: p.kind as Named['kind'], name: p.name, lat, lon }];
  });
}

const kmPerDegree = 111.2;

/** The box in degrees of longitude and latitude that holds a window, a little too large. */
function boxOf(from: Place, v: View): Omit<Coast, 'ring'> {
  const w = windowOf(v);
  const far =
    1.2 *
    Math.max(
      Math.hypot(w.west, w.north),
      Math.hypot(w.east, w.south),
      Math.hypot(w.west, w.south),
      Math.hypot(w.east, w.north),
    );
  const near = Math.max(Math.abs(w.north), Math.abs(w.south));
  const south = Math.max(-89, from.lat - (1.2 * near + 0.1 * far) / kmPerDegree - 1);
  const north = Math.min(89, from.lat + (1.2 * near + 0.1 * far) / kmPerDegree + 1);
  const widest = Math.max(Math.abs(south), Math.abs(north));
  const half = Math.min(170, far / kmPerDegree / Math.max(0.03, Math.cos((widest * Math.PI) / 180)));
  return { south, north, west: from.lon - half, east: from.lon + half };
}

/** Cuts a ring at one side of a box (Sutherland and Hodgman). */
function cutSide(ring: Point[], inside: (p: Point) => boolean, at: (a: Point, b: Point) => Point): Point[] {
  const out: Point[] = [];
  for (let i = 0; i < ring.length; i++) {
    const [a, b] = [ring[i], ring[(i + 1) % ring.length]];
    if (!a || !b) continue;
    if (inside(a)) out.push(a);
    if (inside(a) !== inside(b)) out.push(at(a, b));
  }
  return out;
}

/** Cuts a ring of degrees to a box: what is far away need not be drawn, and would come out torn. */
export function clip(ring: Point[], box: Omit<Coast, 'ring'>): Point[] {
  const onX = (x: number) => (a: Point, b: Point) => ({ x, y: a.y + ((b.y - a.y) * (x - a.x)) / (b.x - a.x) });
  const onY = (y: number) => (a: Point, b: Point) => ({ x: a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y), y });
  let out = cutSide(ring, (p) => p.x >= box.west, onX(box.west));
  out = cutSide(out, (p) => p.x <= box.east, onX(box.east));
  out = cutSide(out, (p) => p.y >= box.south, onY(box.south));
  return cutSide(out, (p) => p.y <= box.north, onY(box.north));
}

/** The coasts in a window as rings of pixels. Specks and steps smaller than a pixel are left out. */
export function shore(coasts: readonly Coast[], from: Place, v: View): Point[][] {
  const box = boxOf(from, v);
  const plane = planeAround(from);
  const speck = 1.5 / v.scale / kmPerDegree;
  const out: Point[][] = [];
  for (const c of coasts) {
    if (c.north < box.south || c.south > box.north || Math.max(c.north - c.south, c.east - c.west) < speck) continue;
    for (const turn of [-360, 0, 360]) {
      if (c.east + turn < box.west || c.west + turn > box.east) continue;
      const inside =
        c.west + turn >= box.west && c.east + turn <= box.east && c.south >= box.south && c.north <= box.north;
      let ring: Point[] = [];
      for (let i = 0; i + 1 < c.ring.length; i += 2) ring.push({ x: (c.ring[i] ?? 0) + turn, y: c.ring[i + 1] ?? 0 });
      if (!inside) ring = clip(ring, box);
      const line: Point[] = [];
      for (const p of ring) {
        const s = toScreen(v, plane(p.y, p.x));
        const last = line.at(-1);
        if (!last || Math.abs(s.x - last.x) > 0.6 || Math.abs(s.y - last.y) > 0.6) line.push(s);
      }
      if (line.length > 2) out.push(line);
    }
  }
  return out;
}

/** Whether a pixel lies on land. */
export function onLand(rings: readonly Point[][], p: Point): boolean {
  let land = false;
  for (const ring of rings) {
    let inside = false;
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [a, b] = [ring[i], ring[j]];
      if (a && b && a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
    }
    if (inside) land = !land;
  }
  return land;
}

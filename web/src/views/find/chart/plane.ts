/** A place in degrees. */
export interface Place {
  lat: number;
  lon: number;
}

/** A place on the chart: kilometres east and north of where one looks from. */
export interface Point {
  x: number;
  y: number;
}

/** What the chart shows: the middle of its window and how many pixels a kilometre has. */
export interface View {
  at: Point;
  scale: number;
  width: number;
  height: number;
}

const rad = Math.PI / 180;

/** The radius of the sphere that fits the ellipsoid best at a latitude, in kilometres (WGS-84, Gauss). */
export function radiusAt(lat: number): number {
  const [a, e2] = [6378.137, 0.00669437999];
  return (a * Math.sqrt(1 - e2)) / (1 - e2 * Math.sin(lat * rad) ** 2);
}

/**
 * The azimuthal chart around a place: directions from there are straight and
 * distances true, within 0.3 % of the ellipsoid. It draws coasts; repeaters come
 * with their exact kilometres.
 */
export function planeAround(from: Place): (lat: number, lon: number) => Point {
  const radius = radiusAt(from.lat);
  const [sin0, cos0] = [Math.sin(from.lat * rad), Math.cos(from.lat * rad)];
  return (lat, lon) => {
    const [sin, cos] = [Math.sin(lat * rad), Math.cos(lat * rad)];
    const d = (lon - from.lon) * rad;
    const cosC = Math.max(-1, Math.min(1, sin0 * sin + cos0 * cos * Math.cos(d)));
    const c = Math.acos(cosC);
    const k = c < 1e-9 ? radius : (radius * c) / Math.sin(c);
    return { x: k * cos * Math.sin(d), y: k * (cos0 * sin - sin0 * cos * Math.cos(d)) };
  };
}

export const toScreen = (v: View, p: Point): Point => ({
  x: v.width / 2 + (p.x - v.at.x) * v.scale,
  y: v.height / 2 - (p.y - v.at.y) * v.scale,
});

/** The window in kilometres. */
export function windowOf(v: View): { west: number; east: number; south: number; north: number } {
  const [w, h] = [v.width / 2 / v.scale, v.height / 2 / v.scale];
  return { west: v.at.x - w, east: v.at.x + w, south: v.at.y - h, north: v.at.y + h };
}

/** The steps of zooming, in pixels a kilometre: from a continent to a few streets. */
export const scales = Array.from({ length: 24 }, (_, i) => 0.05 * Math.SQRT2 ** i);

/** The scale at which so many kilometres around fit into the window. */
export function scaleFor(km: number, width: number, height: number): number {
  return Math.min(width, height) / 2 / km;
}

/** The next step closer (1) or farther (-1). */
export function nextScale(scale: number, way: 1 | -1): number {
  const closer = scales.filter((s) => s > scale * 1.01);
  const farther = scales.filter((s) => s < scale * 0.99);
  return (way === 1 ? closer[0] : farther.at(-1)) ?? scale;
}

/** The rings that are drawn: 1, 2 or 4 times a power of ten, at least so many pixels apart. */
export function ringsFor(scale: number, far: number): number[] {
  const apart = 52;
  const steps = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000];
  const step = steps.find((s) => s * scale >= apart) ?? 5000;
  const out: number[] = [];
  for (let km = step; km <= far && out.length < 12; km += step) out.push(km);
  return out;
}

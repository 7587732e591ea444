import L from 'leaflet';

/** The size in degrees of a place on the map at a zoom, about 44 pixels wide. */
export function cellAt(zoom: number): number {
  return (44 * 360) / (256 * 2 ** zoom);
}

/** A coast with the box that it fills. */
export interface Coast {
  south: number;
  west: number;
  north: number;
  east: number;
  points: [lat: number, lon: number][];
}

/** Takes rings of longitudes and latitudes apart. */
export function coastsOf(rings: number[][]): Coast[] {
  return rings.map((ring) => {
    const c: Coast = { south: 90, west: 180, north: -90, east: -180, points: [] };
    for (let i = 0; i + 1 < ring.length; i += 2) {
      const lon = ring[i] ?? 0;
      const lat = ring[i + 1] ?? 0;
      c.points.push([lat, lon]);
      c.south = Math.min(c.south, lat);
      c.north = Math.max(c.north, lat);
      c.west = Math.min(c.west, lon);
      c.east = Math.max(c.east, lon);
    }
    return c;
  });
}

/** The rings of GeoJSON polygons, in the same form. */
export function ringsOf(collection: Record<string, unknown>): number[][] {
  const features = (collection.features ?? []) as { geometry?: { type: string; coordinates: unknown } }[];
  return features.flatMap(({ geometry }) => {
    if (geometry?.type === 'Polygon') return (geometry.coordinates as number[][][]).map((r) => r.flat());
    if (geometry?.type === 'MultiPolygon') return (geometry.coordinates as number[][][][]).flat().map((r) => r.flat());
    return [];
  });
}

/** The coasts that can be seen: in the box, and larger than a speck at so many degrees a pixel. */
export function visible(coasts: Coast[], box: [number, number, number, number], perPixel: number): Coast[] {
  const [south, west, north, east] = box;
  return coasts.filter(
    (c) =>
      c.north >= south &&
      c.south <= north &&
      c.east >= west &&
      c.west <= east &&
      Math.max(c.north - c.south, c.east - c.west) > 1.5 * perPixel,
  );
}

interface Drawing {
  _renderer: { _updateCircle: (m: unknown) => void; _ctx: CanvasRenderingContext2D | undefined; _drawing: boolean };
  _point: L.Point;
  options: { number: string; ink: string };
}

/** A disc with a number in it, drawn on the canvas: hundreds of elements would keep the page from answering. */
export const Numbered = L.CircleMarker.extend({
  _updatePath(this: Drawing) {
    this._renderer._updateCircle(this);
    const ctx = this._renderer._ctx;
    if (!ctx || !this._renderer._drawing) return;
    ctx.globalAlpha = 1;
    ctx.fillStyle = this.options.ink;
    ctx.font = "680 11.5px 'Atkinson Hyperlegible Next Variable', sans-serif";
    ctx.textAlign = 'center';
    ctx.textBaseline = 'middle';
    ctx.fillText(this.options.number, this._point.x, this._point.y + 0.5);
  },
}) as unknown as new (
  at: L.LatLngExpression,
  options: L.CircleMarkerOptions & { number: string; ink: string },
) => L.CircleMarker;

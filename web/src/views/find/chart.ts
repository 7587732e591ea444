import { geoEquirectangular, geoStream, type GeoStream } from 'd3-geo';
import type { Feature, FeatureCollection, MultiPolygon, Position } from 'geojson';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';

/** The coasts of the world, cut where they cross the date line. They ship with the application. */
export async function world(): Promise<MultiPolygon> {
  const atlas = (await import('world-atlas/land-50m.json')).default as unknown as Topology<{
    land: GeometryCollection;
  }>;
  return cut(feature(atlas, atlas.objects.land));
}

/**
 * Cuts polygons at the date line: Leaflet draws a ring that crosses it as a
 * bar across the whole map. The projection is the identity in degrees; what
 * is wanted of it is only the cutting.
 */
export function cut(land: FeatureCollection | Feature): MultiPolygon {
  const projection = geoEquirectangular()
    .scale(180 / Math.PI)
    .translate([0, 0])
    .precision(0);
  const polygons: Position[][][] = [];
  let rings: Position[][] = [];
  let ring: Position[] = [];
  const sink: GeoStream = {
    point: (x, y) => void ring.push([x, -y]),
    lineStart: () => (ring = []),
    lineEnd: () => {
      if (ring[0]) rings.push([...ring, ring[0]]);
    },
    polygonStart: () => (rings = []),
    polygonEnd: () => {
      // Every ring by itself: holes are lakes, which a chart of this scale leaves out.
      for (const r of rings) polygons.push([r]);
    },
    sphere: () => undefined,
  };
  geoStream(land, projection.stream(sink));
  return { type: 'MultiPolygon', coordinates: polygons };
}

/** The size in degrees of a place on the map at a zoom, about 44 pixels wide. */
export function cellAt(zoom: number): number {
  return (44 * 360) / (256 * 2 ** zoom);
}

import { geoEquirectangular, geoStream, type GeoStream } from 'd3-geo';
import type { Feature, FeatureCollection } from 'geojson';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import type { Plugin } from 'vite';

/** A closed coast: longitude and latitude by turns, in degrees. */
export type Ring = number[];

/**
 * Cuts polygons at the date line: drawn as it is, a ring that crosses it
 * becomes a bar across the whole map. The projection is the identity in
 * degrees; what is wanted of it is only the cutting.
 */
export function cut(land: FeatureCollection | Feature): Ring[] {
  const projection = geoEquirectangular()
    .scale(180 / Math.PI)
    .translate([0, 0])
    .precision(0);
  const rings: Ring[] = [];
  let ring: Ring = [];
  const round = (n: number) => Math.round(n * 100) / 100; // a kilometre: finer than the source
  const sink: GeoStream = {
    point: (x, y) => void ring.push(round(x), round(-y)),
    lineStart: () => (ring = []),
    lineEnd: () => {
      // Every ring by itself: holes are lakes, which a chart of this scale leaves out.
      if (ring.length > 4) rings.push([...ring, ...ring.slice(0, 2)]);
    },
    polygonStart: () => undefined,
    polygonEnd: () => undefined,
    sphere: () => undefined,
  };
  geoStream(land, projection.stream(sink));
  return rings;
}

/** The coasts of the world, from the data package that ships with the application. */
export function world(): Ring[] {
  const path = createRequire(import.meta.url).resolve('world-atlas/land-50m.json');
  const atlas = JSON.parse(readFileSync(path, 'utf8')) as Topology<{ land: GeometryCollection }>;
  return cut(feature(atlas, atlas.objects.land));
}

/** Cuts the coasts when the interface is built, so that no page has to: `import('virtual:coasts')`. */
export function coasts(): Plugin {
  const name = 'virtual:coasts';
  return {
    name: 'coasts',
    resolveId: (id) => (id === name ? `\0${name}` : undefined),
    load: (id) =>
      id === `\0${name}` ? `export default JSON.parse(${JSON.stringify(JSON.stringify(world()))})` : undefined,
  };
}

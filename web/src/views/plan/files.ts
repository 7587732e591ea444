/** The formats that a plan and what a radio holds are saved in. */
export type Format = 'json' | 'csv' | 'xlsx' | 'geojson' | 'gpx';

export function formats(load: boolean): { value: Format; label: string; detail?: string }[] {
  return [
    { value: 'json', label: load ? 'memory image, JSON' : 'JSON', detail: load ? 'with a checksum' : 'whole' },
    { value: 'csv', label: 'CSV', detail: load ? '' : 'whole' },
    { value: 'xlsx', label: 'workbook, XLSX', detail: load ? '' : 'whole' },
    { value: 'geojson', label: 'map, GeoJSON', detail: 'repeaters' },
    { value: 'gpx', label: 'waypoints, GPX', detail: 'repeaters' },
  ];
}

/** The bytes of a file as base64. */
export function encoded(bytes: ArrayBuffer): string {
  const view = new Uint8Array(bytes);
  let out = '';
  for (let i = 0; i < view.length; i += 0x8000) out += String.fromCharCode(...view.subarray(i, i + 0x8000));
  return btoa(out);
}

/** Hands a file to the browser to be saved. */
export function download(file: { name: string; type: string; data: string }): void {
  const bytes = Uint8Array.from(atob(file.data), (c) => c.charCodeAt(0));
  const url = URL.createObjectURL(new Blob([bytes], { type: file.type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = file.name;
  a.click();
  setTimeout(() => {
    URL.revokeObjectURL(url);
  }, 10_000);
}

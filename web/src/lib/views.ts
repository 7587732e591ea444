/** The views in the order of the work; the letter after "g" goes there. */
export const views = [
  { path: '/find', name: 'Find', key: 'f' },
  { path: '/', name: 'Plan', key: 'p' },
  { path: '/radios', name: 'Radios', key: 'r' },
  { path: '/settings', name: 'Settings', key: 's' },
] as const;

export type ViewName = (typeof views)[number]['name'];

/** The views in the order of the work; Alt and the digit goes there. */
export const views = [
  { path: '/find', name: 'Find', digit: 1 },
  { path: '/', name: 'Plan', digit: 2 },
  { path: '/listen', name: 'Listen', digit: 3 },
  { path: '/relay', name: 'Relay', digit: 4 },
  { path: '/beacon', name: 'Beacon', digit: 5 },
  { path: '/load', name: 'Load', digit: 6 },
  { path: '/log', name: 'Log', digit: 7 },
  { path: '/radios', name: 'Radios', digit: 9 },
  { path: '/settings', name: 'Settings', digit: 0 },
] as const;

const few = ['Find', 'Plan', 'Listen', 'Load'];

/** Those that a phone and a narrow head have room for. */
export const here = views.filter((v) => few.includes(v.name));

/** The others, which are under *more* there. */
export const elsewhere = views.filter((v) => !few.includes(v.name));

/** The view that an address belongs to. */
export function viewOf(path: string): (typeof views)[number] | undefined {
  return views.find((v) => v.path === path || (v.path !== '/' && path.startsWith(`${v.path}/`)));
}

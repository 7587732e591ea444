/** What Plan loads when it is first looked at, or when the slots stand. (The router takes a view that imports something itself for one to be loaded.) */
export const later = {
  ribbon: () => import('./Ribbon.svelte'),
  work: () => import('./Work.svelte'),
  sets: () => import('./SetsPanel.svelte'),
  history: () => import('./History.svelte'),
  pasting: () => import('./PastingDialog.svelte'),
  fixKind: () => import('./FixKind.svelte'),
  fixes: () => import('./Fixes.svelte'),
  files: () => import('./Files.svelte'),
  columns: () => import('./Columns.svelte'),
  matrix: () => import('./FitMatrix.svelte'),
};

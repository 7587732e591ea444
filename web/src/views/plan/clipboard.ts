/** Puts a text into the clipboard, also where the page may only copy what is marked in it. */
export async function copied(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    return;
  } catch {
    // Not over plain HTTP from another machine, and not in every browser.
  }
  const area = document.createElement('textarea');
  const had = document.activeElement;
  area.value = text;
  area.style.position = 'fixed';
  area.style.opacity = '0';
  document.body.append(area);
  area.select();
  const done = document.execCommand('copy');
  area.remove();
  if (had instanceof HTMLElement) had.focus({ preventScroll: true });
  if (!done) throw new Error('The browser does not let this page copy.');
}

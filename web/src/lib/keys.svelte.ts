/**
 * Whether single keys (without Ctrl or Alt) act. People who dictate or whose
 * keys are pressed by accident can switch them off (WCAG 2.1.4).
 */
class SingleKeys {
  on = $state(localStorage.getItem('single-keys') !== 'off');

  toggle(): void {
    this.on = !this.on;
    localStorage.setItem('single-keys', this.on ? 'on' : 'off');
  }
}

export const singleKeys = new SingleKeys();

/** Whether a key was pressed in a text field or a dialog, where single keys type. */
export function typing(e: KeyboardEvent): boolean {
  const taking = 'input:not([type=checkbox], [type=radio]), textarea, select, [role="dialog"]';
  return e.target instanceof Element && e.target.closest(taking) !== null;
}

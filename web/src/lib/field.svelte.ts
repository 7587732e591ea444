import { on } from 'svelte/events';
import type { Attachment } from 'svelte/attachments';

/**
 * Shows a value in a field that is kept when it is left. An answer to what was kept before
 * comes while somebody writes the next: what is being written stays.
 */
export function fieldValue(value: () => string | number): Attachment<HTMLInputElement> {
  return (field) => {
    let known = '';
    $effect(() => {
      const text = String(value());
      if (document.activeElement === field && field.value !== known) return;
      field.value = text;
      known = field.value;
    });
    return on(field, 'change', () => {
      known = field.value;
    });
  };
}

import { matchKeyBindingPress, parseKeybinding } from 'tinykeys';

const mac = typeof navigator !== 'undefined' && navigator.platform.startsWith('Mac');
const words: Record<string, string> = {
  $mod: mac ? '⌘' : 'Ctrl',
  Control: 'Ctrl',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
  Delete: 'Del',
  PageUp: 'Page up',
  PageDown: 'Page down',
};

/** What a key is called on the screen: "Ctrl Shift Z". */
export function keyWords(key: string): string {
  return key
    .split('+')
    .map((k) => words[k] ?? k.replace(/^(Digit|Key)/, '').replace(/^[a-z]$/, (c) => c.toUpperCase()))
    .join(' ');
}

/** What assistive technology is told of a key (aria-keyshortcuts). */
export function keyShortcut(key: string): string {
  return key.replace('$mod', mac ? 'Meta' : 'Control').replace(/Digit|Key(?=[A-Z]$)/, '');
}

/** Whether a key that was pressed is this one. A sign that needs Shift on some keyboards is itself. */
export function pressed(e: KeyboardEvent, key: string): boolean {
  if (key.length === 1) return e.key.toLowerCase() === key && !e.ctrlKey && !e.metaKey && !e.altKey;
  const press = parseKeybinding(key)[0];
  return press !== undefined && matchKeyBindingPress(e, press);
}

/** Whether a key writes something. */
export function prints(e: KeyboardEvent): boolean {
  return [...e.key].length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey && !e.isComposing;
}

/** The key that was pressed, as it is written in the registry; empty for a modifier alone. */
export function written(e: KeyboardEvent): string {
  if (['Control', 'Shift', 'Alt', 'Meta', 'AltGraph', 'Dead', 'Unidentified'].includes(e.key)) return '';
  if (prints(e)) return e.key.toLowerCase();
  const held = [
    e.ctrlKey || e.metaKey ? '$mod' : '',
    e.altKey ? 'Alt' : '',
    e.shiftKey ? 'Shift' : '',
    /^(Digit|Key)/.test(e.code) && e.altKey ? e.code : e.key.length === 1 ? e.key.toLowerCase() : e.key,
  ];
  return held.filter(Boolean).join('+');
}

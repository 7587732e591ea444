/** A frequency taken apart for setting: 446.0125 MHz is 446 · 012 · 5. */
export interface Figures {
  sign: string;
  mhz: string;
  khz: string;
  rest: string;
}

/** Parts whole hertz into MHz, three kHz digits, and what is below 1 kHz. */
export function figures(hz: number): Figures {
  const size = Math.abs(hz);
  const below = String(size % 1_000_000).padStart(6, '0');
  return {
    sign: hz < 0 ? '−' : '+',
    mhz: String(Math.floor(size / 1_000_000)),
    khz: below.slice(0, 3),
    rest: below.slice(3).replace(/0+$/, ''),
  };
}

/** Parts a decimal text as the server writes it: "147.240", "-0.600". */
export function figuresOf(text: string): Figures {
  const [whole = '', decimals = ''] = text.replace(/^[+-]/, '').split('.');
  return {
    sign: text.startsWith('-') ? '−' : '+',
    mhz: whole,
    khz: decimals.slice(0, 3).padEnd(3, '0'),
    rest: decimals.slice(3).replace(/0+$/, ''),
  };
}

/** Formats whole hertz as plain text in MHz: "147.240". */
export function mhz(hz: number): string {
  const f = figures(hz);
  return `${hz < 0 ? '−' : ''}${f.mhz}.${f.khz}${f.rest}`;
}

/** Parts a tone for setting; a code or burst has no decimal. */
export function tone(text: string): { whole: string; decimal: string; unit: string } {
  const [whole = '', decimal = ''] = text.split('.');
  return { whole, decimal, unit: text.startsWith('D') ? '' : 'Hz' };
}

/** Names a tone with its unit: "103.5 Hz", "D023N", "1750 Hz". */
export function toneText(text: string): string {
  return text.startsWith('D') ? text : `${text} Hz`;
}

/** Names what is sent: a tone with its unit, or "no tone". */
export function sentTone(text: string): string {
  return ['', 'off', 'none'].includes(text) ? 'no tone' : toneText(text);
}

/** Formats a bearing with three digits: "062°". */
export function bearing(degrees: number): string {
  return `${String(Math.round(degrees) % 360).padStart(3, '0')}°`;
}

/** Formats a distance: "11.8 km". */
export function distance(km: number): string {
  return `${km.toFixed(1)} km`;
}

/** Formats watts without needless decimals: "5 W", "2.5 W". */
export function watts(w: number): string {
  return `${String(w)} W`;
}

/** Formats an RFC 3339 time as a local clock time: "09:42". */
export function clock(time: string): string {
  return new Date(time).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
}

/** What people call a field of the contract: "uplink tone". */
export function fieldWords(name: string): string {
  return name.replaceAll('_', ' ');
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** When something was, by the clock of whoever looks: "14:02" today, else "21 Nov, 14:02", with the year where it is another one. */
export function when(time: string, now = new Date()): string {
  const at = new Date(time);
  if (Number.isNaN(at.getTime())) return '';
  if (at.toDateString() === now.toDateString()) return clock(time);
  const year = at.getFullYear() === now.getFullYear() ? '' : ` ${String(at.getFullYear())}`;
  return `${String(at.getDate())} ${months[at.getMonth()] ?? ''}${year}, ${clock(time)}`;
}

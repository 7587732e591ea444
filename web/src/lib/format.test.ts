import { describe, expect, it } from 'vitest';
import { bearing, figures, figuresOf, mhz, tone, toneText } from './format';
import { blade, cuts, keyway } from './keyshape';

describe('figures', () => {
  it('parts a frequency into MHz, kHz and the rest', () => {
    expect(figures(147_240_000)).toEqual({ sign: '+', mhz: '147', khz: '240', rest: '' });
    expect(figures(446_012_500)).toEqual({ sign: '+', mhz: '446', khz: '012', rest: '5' });
    expect(figures(-600_000)).toEqual({ sign: '−', mhz: '0', khz: '600', rest: '' });
    expect(figures(446_006_250)).toEqual({ sign: '+', mhz: '446', khz: '006', rest: '25' });
  });

  it('parts the text of the server alike', () => {
    for (const hz of [147_240_000, 446_012_500, -600_000, 1_297_475_000]) {
      expect(figuresOf((hz / 1_000_000).toFixed(6))).toEqual(figures(hz));
    }
  });

  it('writes plain text with three decimals or more', () => {
    expect(mhz(52_525_000)).toBe('52.525');
    expect(mhz(446_006_250)).toBe('446.00625');
  });
});

describe('tones and bearings', () => {
  it('keeps the unit', () => {
    expect(tone('103.5')).toEqual({ whole: '103', decimal: '5', unit: 'Hz' });
    expect(tone('D023N')).toEqual({ whole: 'D023N', decimal: '', unit: '' });
    expect(toneText('1750')).toBe('1750 Hz');
  });

  it('writes three digits', () => {
    expect(bearing(61.97)).toBe('062°');
    expect(bearing(359.7)).toBe('000°');
  });
});

describe('keys', () => {
  it('gives fifty tones fifty different keys', () => {
    const shapes = new Set(Array.from({ length: 50 }, (_, i) => cuts(i).join('')));
    expect(shapes.size).toBe(50);
    expect(blade(3)).not.toBe(blade(4));
    expect(keyway(3)).toContain('H');
  });
});

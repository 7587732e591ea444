import { describe, expect, it } from 'vitest';
import { arc, blocks, labels, placeLabels } from './ribbon';

describe('the band to scale', () => {
  it('graduates 2 m by 100 kHz', () => {
    const b = blocks(144e6, 148e6);
    expect(b).toHaveLength(20);
    expect(b[0]).toEqual({ from: 144e6, to: 144.1e6 });
  });

  it('writes round frequencies, about eight', () => {
    expect(labels(144e6, 148e6)).toEqual([144e6, 144.5e6, 145e6, 145.5e6, 146e6, 146.5e6, 147e6, 147.5e6, 148e6]);
    for (const [lo, hi] of [
      [28e6, 29.7e6],
      [420e6, 450e6],
      [1240e6, 1300e6],
    ] as const) {
      const n = labels(lo, hi).length;
      expect(n).toBeGreaterThan(3);
      expect(n).toBeLessThan(11);
    }
  });

  it('bends the arc the way the shift goes', () => {
    expect(arc(100, 50)).toContain('0 0 0 50,46');
    expect(arc(100, 150)).toContain('0 0 1 150,46');
  });

  it('lifts labels that would cover each other', () => {
    expect(placeLabels([10, 12, 200])).toEqual([0, 1, 0]);
    expect(Math.max(...placeLabels([1, 2, 3, 4, 5, 6]))).toBe(2);
  });
});

import { describe, expect, it } from 'vitest';
import { arc, blocks, clear, labels, placeLabels } from './ribbon';

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

  it('lifts marks that would cover each other', () => {
    const at = (...xs: number[]) => placeLabels(xs.map((x) => ({ x, wide: 24 })));
    expect(at(10, 12, 200).map((p) => p.level)).toEqual([0, 1, 0]);
  });

  it('never writes two numbers over each other, and always the one that is chosen', () => {
    const labels = Array.from({ length: 60 }, (_, i) => ({ x: 10 + i * 3.1, wide: i > 9 ? 25 : 17, must: i === 31 }));
    const placed = placeLabels(labels);
    expect(placed[31]?.written).toBe(true);
    expect(placed.some((p) => !p.written)).toBe(true);
    for (const [i, a] of labels.entries())
      for (const [j, b] of labels.entries())
        if (i < j && placed[i]?.written && placed[j]?.written && placed[i].level === placed[j].level)
          expect(a.x + a.wide <= b.x || b.x + b.wide <= a.x, `${String(i)} and ${String(j)}`).toBe(true);
  });

  it('keeps words clear of what is there', () => {
    expect(clear(10, 50, [{ from: 60, to: 90 }])).toBe(true);
    expect(clear(10, 60, [{ from: 60, to: 90 }])).toBe(false);
  });
});

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { chooseLook, isDark, openLook } from './look';
import { bench, night, paper, type Palette } from './tokens';

// Source: WCAG 2.2, definitions of relative luminance and contrast ratio.
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}

function contrast(a: string, b: string): number {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (light! + 0.05) / (dark! + 0.05);
}

it('knows the two ends of the scale', () => {
  // Source: WCAG 2.2, contrast ratio: black on white is 21:1; #767676 on white is the grey that just passes 4.5:1.
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
  expect(contrast('#767676', '#FFFFFF')).toBeGreaterThan(4.5);
  expect(contrast('#777777', '#FFFFFF')).toBeLessThan(4.5);
});

describe.each<[string, Palette]>([
  ['bright', paper],
  ['dark', night],
])('%s', (_, palette) => {
  it.each(['paper', 'sunk', 'selected'] as const)('is read on %s', (ground) => {
    for (const ink of [
      'ink',
      'ink2',
      'ink3',
      'pine',
      'pineHover',
      'ochre',
      'madder',
      'slate',
    ] as const)
      // Source: WCAG 2.2, 1.4.3: text 4.5:1.
      expect(contrast(palette[ink], palette[ground]), `${ink} on ${ground}`).toBeGreaterThan(4.5);
    // Source: WCAG 2.2, 1.4.11: edges of controls 3:1.
    expect(contrast(palette.edge, palette[ground]), `edge on ${ground}`).toBeGreaterThan(3);
  });

  it('is read on its washes and on what is filled', () => {
    for (const tint of ['ochre', 'madder', 'slate', 'pine'] as const) {
      expect(contrast(palette[tint], palette[`${tint}Wash`]), tint).toBeGreaterThan(4.5);
      expect(contrast(palette.ink, palette[`${tint}Wash`]), `ink, ${tint}`).toBeGreaterThan(4.5);
      expect(contrast(palette.paper, palette[tint]), `paper on ${tint}`).toBeGreaterThan(4.5);
    }
  });
});

it('reads the bench on both its grounds', () => {
  for (const ground of [bench.ground, bench.panel])
    for (const ink of ['text', 'muted', 'action', 'ochre', 'madder', 'slate'] as const)
      expect(contrast(bench[ink], ground), ink).toBeGreaterThan(4.5);
});

describe('the choice', () => {
  const wish = Object.assign(new EventTarget(), { matches: false });
  const shown = () => document.documentElement.style.getPropertyValue('--paper');

  beforeEach(() => {
    localStorage.clear();
    wish.matches = false;
    vi.stubGlobal('matchMedia', () => wish);
  });
  afterEach(() => {
    chooseLook('bright');
    localStorage.clear();
    vi.unstubAllGlobals();
  });

  it('follows the machine until somebody chooses', () => {
    wish.matches = true;
    openLook();
    expect(shown()).toBe(night.paper);
    wish.matches = false;
    wish.dispatchEvent(new Event('change'));
    expect(shown()).toBe(paper.paper);
  });

  it('keeps what was chosen', () => {
    chooseLook('dark');
    openLook();
    expect(isDark()).toBe(true);
    expect(shown()).toBe(night.paper);
    expect(document.documentElement.style.colorScheme).toBe('dark');
  });

  it('prints on white', () => {
    chooseLook('dark');
    openLook();
    window.dispatchEvent(new Event('beforeprint'));
    expect(shown()).toBe(paper.paper);
    window.dispatchEvent(new Event('afterprint'));
    expect(shown()).toBe(night.paper);
  });
});

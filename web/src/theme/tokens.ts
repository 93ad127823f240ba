import type { ThemeConfig } from 'antd';

/** Every design value of the product, once; the style sheet reads them as CSS variables. */
export const colour = {
  paper: '#FBFAF5',
  sunk: '#F2F0E8',
  selected: '#EAF0EA',
  ink: '#18211E',
  ink2: '#47524D',
  ink3: '#5F6A64',
  edge: '#7E867F',
  rule: '#D6D4C9',
  pine: '#053B33',
  pineHover: '#0E5347',
  ochre: '#8F5C00',
  madder: '#AD3E3A',
  slate: '#2D6790',
  ochreWash: '#F8EBCF',
  madderWash: '#F9E4E0',
  slateWash: '#DFEAF2',
  pineWash: '#DDE9E4',
} as const;

/** The bench as it is, for halls that are dark or hands that come near the tablet with oil on them. */
export const bench: Record<
  'ground' | 'panel' | 'text' | 'muted' | 'action' | 'ochre' | 'madder' | 'slate' | 'edge',
  string
> = {
  ground: '#0E1512',
  panel: '#18211D',
  text: '#F6F4EA',
  muted: '#B4BDB3',
  action: '#7FD1AC',
  ochre: '#F2BE5C',
  madder: '#FF9A8F',
  slate: '#9DC3EA',
  edge: '#6C786F',
};

/** The bench in daylight, by the door or under strong lamps. */
const benchBright: typeof bench = {
  ground: colour.paper,
  panel: colour.sunk,
  text: colour.ink,
  muted: colour.ink2,
  action: colour.pine,
  ochre: colour.ochre,
  madder: colour.madder,
  slate: colour.slate,
  edge: colour.edge,
};

const BENCH_PLACE = 'knollfield-bench-theme';

/** Whether this tablet's bench is bright; it is dark where nobody has said so. */
export function benchIsBright(): boolean {
  try {
    return localStorage.getItem(BENCH_PLACE) === 'bright';
  } catch {
    return false;
  }
}

/** Makes this tablet's bench bright or dark from now on. */
export function setBench(bright: boolean): void {
  try {
    localStorage.setItem(BENCH_PLACE, bright ? 'bright' : 'dark');
  } catch {
    // without a storage it holds as long as the page
  }
  publishBench(document.documentElement, bright);
}

function publishBench(root: HTMLElement, bright: boolean): void {
  for (const [name, value] of Object.entries(bright ? benchBright : bench))
    root.style.setProperty(`--bench-${name}`, value);
  // scroll bars and fields of the browser itself
  root.style.setProperty('--bench-scheme', bright ? 'light' : 'dark');
}

/** Writes the values where the style sheet finds them. */
export function publishTokens(root: HTMLElement): void {
  for (const [name, value] of Object.entries(colour)) root.style.setProperty(`--${name}`, value);
  publishBench(root, benchIsBright());
}

export const theme: ThemeConfig = {
  token: {
    colorPrimary: colour.pine,
    colorPrimaryHover: colour.pineHover,
    colorPrimaryActive: colour.pine,
    colorLink: colour.pine,
    colorInfo: colour.slate,
    colorSuccess: colour.pine,
    colorWarning: colour.ochre,
    colorError: colour.madder,
    colorText: colour.ink,
    colorTextSecondary: colour.ink2,
    colorTextTertiary: colour.ink3,
    colorTextQuaternary: colour.ink3,
    colorTextPlaceholder: colour.ink3,
    colorTextDisabled: colour.ink3,
    colorBgBase: colour.paper,
    colorBgLayout: colour.paper,
    colorBgContainer: colour.paper,
    colorBgElevated: colour.paper,
    colorBgSpotlight: colour.ink,
    colorBorder: colour.edge,
    colorBorderSecondary: colour.rule,
    colorTextLightSolid: colour.paper,
    fontFamily: "'Spline Sans Variable', sans-serif",
    fontFamilyCode: "'Red Hat Mono Variable', monospace",
    fontSize: 14,
    fontSizeSM: 12,
    fontWeightStrong: 600,
    controlHeight: 32,
    controlHeightSM: 24,
    controlHeightLG: 40,
    borderRadius: 2,
    borderRadiusLG: 2,
    borderRadiusSM: 2,
    borderRadiusXS: 0,
    boxShadow: 'none',
    boxShadowSecondary: `0 0 0 1px ${colour.ink}`,
    boxShadowTertiary: 'none',
    lineWidthFocus: 2,
    controlOutlineWidth: 0,
    motionDurationFast: '0.12s',
    motionDurationMid: '0.12s',
    motionDurationSlow: '0.24s',
    // the build reads this file too, where nobody looks at anything
    motion: !globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches,
  },
  components: {
    Table: {
      headerBg: 'transparent',
      headerColor: colour.ink2,
      headerSplitColor: 'transparent',
      borderColor: colour.rule,
      rowHoverBg: colour.sunk,
      rowSelectedBg: colour.selected,
      rowSelectedHoverBg: colour.selected,
      cellPaddingBlockSM: 4,
      cellPaddingInlineSM: 8,
    },
    Button: { fontWeight: 600, primaryShadow: 'none', defaultShadow: 'none', dangerShadow: 'none' },
  },
};

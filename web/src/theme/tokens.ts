import type { ThemeConfig } from 'antd';

/** Every design value of the product, once; the style sheet reads them as CSS variables. */
export const paper = {
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

export type Palette = Record<keyof typeof paper, string>;

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
  ground: paper.paper,
  panel: paper.sunk,
  text: paper.ink,
  muted: paper.ink2,
  action: paper.pine,
  ochre: paper.ochre,
  madder: paper.madder,
  slate: paper.slate,
  edge: paper.edge,
};

/** Every other place in the dark: the bench's colours by the names the places use. */
export const night: Palette = {
  paper: bench.ground,
  sunk: bench.panel,
  selected: '#1D2B25',
  ink: bench.text,
  ink2: bench.muted,
  ink3: '#9AA59D',
  edge: '#748077',
  rule: '#2F3A34',
  pine: bench.action,
  pineHover: '#A9E2C9',
  ochre: bench.ochre,
  madder: bench.madder,
  slate: bench.slate,
  ochreWash: '#352A12',
  madderWash: '#3B201D',
  slateWash: '#1A2F42',
  pineWash: '#17352B',
};

/** What is in force, for a canvas, which reads no CSS variables. */
export let colour: Palette = paper;

/** Writes the values where the style sheet finds them. */
export function publishPlaces(root: HTMLElement, dark: boolean): void {
  colour = dark ? night : paper;
  for (const [name, value] of Object.entries(colour)) root.style.setProperty(`--${name}`, value);
  // scroll bars and fields of the browser itself
  root.style.colorScheme = dark ? 'dark' : 'light';
}

/** The same for the bench, which has its own choice: a tablet in a dark hall. */
export function publishBench(root: HTMLElement, dark: boolean): void {
  for (const [name, value] of Object.entries(dark ? bench : benchBright))
    root.style.setProperty(`--bench-${name}`, value);
  root.style.setProperty('--bench-scheme', dark ? 'dark' : 'light');
}

/** What Ant Design makes of them; its own algorithm for the dark is given beside it. */
export const themeOf = (colour: Palette): ThemeConfig => ({
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
});

import type { ThemeConfig } from 'antd';

/** The colours of the bench: paper, felt, graphite, and quill yellow for what is on. The same are in `style.css`. */
export const colours = {
  paper: '#fdfbf5',
  panel: '#f7f3e8',
  edge: '#ddd5c1',
  felt: '#cfcbc0',
  text: '#27241d',
  soft: '#665f4f',
  faint: '#756d5b',
  quill: '#f4c20d',
  quillSoft: '#fff3bf',
  quillDeep: '#8a6a00',
  clay: '#a8461f',
} as const;

export const theme: ThemeConfig = {
  cssVar: { key: 'quill' },
  hashed: false,
  // The components' style sheet is made when the program is built (`scripts/componentStyles`), not anew in each page.
  zeroRuntime: true,
  token: {
    colorPrimary: colours.text,
    colorInfo: colours.quillDeep,
    colorLink: colours.quillDeep,
    colorText: colours.text,
    colorTextSecondary: colours.soft,
    colorTextDescription: colours.soft,
    colorTextPlaceholder: colours.faint,
    colorBgBase: colours.paper,
    colorBgContainer: '#ffffff',
    colorBgElevated: colours.paper,
    colorBorder: colours.edge,
    colorBorderSecondary: colours.edge,
    // What is chosen in a list, as it is chosen elsewhere: yellow, not a shade of the text.
    controlItemBgActive: colours.quillSoft,
    controlItemBgActiveHover: colours.quillSoft,
    colorError: colours.clay,
    colorWarning: colours.quillDeep,
    borderRadius: 6,
    fontFamily: '"Figtree Variable", "DejaVu Sans", sans-serif',
    fontSize: 13,
    controlHeight: 30,
    // What opens is there at once: a press that follows quickly finds it where it will stay.
    motion: false,
    motionDurationFast: '0.08s',
    motionDurationMid: '0.12s',
    motionDurationSlow: '0.14s',
    boxShadow: '0 2px 8px rgba(39,36,29,0.18)',
    boxShadowSecondary: '0 3px 12px rgba(39,36,29,0.2)',
  },
  components: {
    Slider: {
      trackBg: colours.quillDeep,
      trackHoverBg: colours.quillDeep,
      railBg: '#d8cfb8',
      handleColor: colours.quillDeep,
      handleActiveColor: colours.quillDeep,
      dotActiveBorderColor: colours.quillDeep,
    },
    Button: { primaryShadow: 'none', defaultShadow: 'none' },
  },
};

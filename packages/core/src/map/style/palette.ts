import type { Ramp } from '@pebble/contract';

/** The colours of a map's ground and writing. */
export interface Theme {
  readonly ground: string;
  readonly ink: string;
  readonly soft: string;
  readonly tie: string;
  readonly mark: string;
}

export const PAPER: Theme = {
  ground: '#FBFAF6',
  ink: '#1E2A32',
  soft: '#5B6770',
  tie: '#7B858B',
  mark: '#B4512F',
};
export const NIGHT: Theme = {
  ground: '#14191D',
  ink: '#ECE8DF',
  soft: '#A9B0B4',
  tie: '#7F8A91',
  mark: '#E58A66',
};

/** What a figure lies on; with `none` its ground is left out, and what has an edge in the ground's colour has a white one. */
export type Ground = 'paper' | 'white' | 'night' | 'none';

export function themeOn(ground: Ground): Theme {
  const theme = ground === 'night' ? NIGHT : PAPER;
  return ground === 'white' || ground === 'none' ? { ...theme, ground: '#FFFFFF' } : theme;
}

/**
 * Eight colours for categories: six of Okabe & Ito (2008), which people with any kind of colour vision can tell apart,
 * and two of our own in place of their yellow and black, which vanish on paper and on night.
 */
export const CATEGORY_COLOURS = [
  '#0072B2',
  '#E69F00',
  '#009E73',
  '#CC79A7',
  '#56B4E9',
  '#D55E00',
  '#8C7A3D',
  '#7A4A9C',
];
/** For the ninth to the sixteenth, where so many are wanted; some of them look alike to some people. */
export const FURTHER_COLOURS = [
  '#4C5B9E',
  '#7FB069',
  '#B0506B',
  '#C7A05A',
  '#3C8DA0',
  '#7A6A9E',
  '#9C5B3B',
  '#D98FA8',
];
/** For all categories that have no colour of their own. */
export const OTHER_COLOUR = '#B3AEA2';

/** Greys for categories on white paper, in steps of lightness that print keeps apart, neighbours far from each other. */
export const CATEGORY_GREYS = ['#222222', '#A0A0A0', '#626262', '#BFBFBF', '#424242', '#808080'];
export const OTHER_GREY = '#D9D9D9';

/** From little to much, in even steps of lightness; the last from one side over the middle to the other. */
const RAMPS: Readonly<Record<Ramp, readonly string[]>> = {
  tide: ['#E3D9C3', '#C3CFB9', '#94C0B4', '#5FA9A8', '#358D95', '#1F6F78', '#1B5163', '#1E3346'],
  thread: ['#EBDCC2', '#E8C39A', '#E1A679', '#D5885D', '#C26A45', '#A34F33', '#7D3A2A', '#552822'],
  ink: ['#D9D6CE', '#BDBAB4', '#A09F9B', '#848584', '#696C6E', '#505559', '#384046', '#232D35'],
  'two-sided': [
    '#1B5163',
    '#35808C',
    '#7DB3B2',
    '#C9D3C6',
    '#E9E0CF',
    '#E6BF98',
    '#CF7F56',
    '#A34F33',
    '#6B3226',
  ],
};
export const RAMP_STEPS = 32;

/** One colour over another that shows through. @param share how much of the upper one is seen, 0 to 1 */
export function blended(over: string, under: string, share: number): string {
  const part = (i: number): string => {
    const [a, b] = [under, over].map((colour) => parseInt(colour.slice(i, i + 2), 16));
    return Math.round(a + (b - a) * share)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${part(1)}${part(3)}${part(5)}`.toUpperCase();
}

/** The colour half way between two. */
export function mixed(a: string, b: string): string {
  return a === b ? a : blended(b, a, 0.5);
}

/** The ramp's colour for a share from 0 to 1. */
export function rampColour(share: number, ramp: Ramp = 'tide'): string {
  const colours = RAMPS[ramp];
  const at = Math.min(Math.max(share, 0), 1) * (colours.length - 1);
  const low = Math.min(Math.floor(at), colours.length - 2);
  return blended(colours[low + 1], colours[low], at - low);
}

/** Relative luminance of a colour by WCAG 2.2, 0 to 1. */
export function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const value = parseInt(colour.slice(i, i + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast of two colours by WCAG 2.2, 1 to 21. */
export function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
}

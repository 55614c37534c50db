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
  '#8574B5',
];
/** For all categories beyond the eighth. */
export const OTHER_COLOUR = '#B3AEA2';

/** From little to much: even steps of lightness from sand over tide teal to ink. */
const RAMP = ['#E3D9C3', '#C3CFB9', '#94C0B4', '#5FA9A8', '#358D95', '#1F6F78', '#1B5163', '#1E3346'];
export const RAMP_STEPS = 32;

/** The ramp's colour for a share from 0 to 1. */
export function rampColour(share: number): string {
  const at = Math.min(Math.max(share, 0), 1) * (RAMP.length - 1);
  const low = Math.min(Math.floor(at), RAMP.length - 2);
  const part = at - low;
  const mix = (i: number): string => {
    const a = parseInt(RAMP[low].slice(i, i + 2), 16);
    const b = parseInt(RAMP[low + 1].slice(i, i + 2), 16);
    return Math.round(a + (b - a) * part)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${mix(1)}${mix(3)}${mix(5)}`.toUpperCase();
}

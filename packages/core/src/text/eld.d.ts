/** The library describes its main entry only; the others are the same with a fixed set of data. */
declare module 'eld/small' {
  export { eld } from 'eld';
}

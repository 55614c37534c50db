/** What the first screens need. An entry of its own, so that they do not wait for what weaves, arranges and draws. */
export { dateReader } from './formats/dates';
export { NIGHT, PAPER } from './map/style/palette';
export { textWidth } from './map/style/textWidth';
export { fold } from './tidy/suggestions';
export { SORT_WORDS } from './tidy/words';
export { capital, counted, formatCount } from './words/sentence';

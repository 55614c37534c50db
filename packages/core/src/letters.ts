/** Letters as shapes: an entry of its own, since reading font files takes as much code as all else on a screen. */
export { fontParts, partsFor, type FontPart, type Written } from './letters/fontParts';
export { letterShapes, type LoadedPart } from './letters/letterShapes';

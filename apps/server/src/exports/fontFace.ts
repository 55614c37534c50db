import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const { resolve } = createRequire(import.meta.url);

/** A font as a rule of a style that loads nothing. @param name of its package */
export function fontFace(family: string, name: string): string {
  const file = resolve(`@fontsource-variable/${name}/files/${name}-latin-wght-normal.woff2`);
  const data = readFileSync(file).toString('base64');
  return `@font-face{font-family:'${family}';font-weight:200 800;src:url(data:font/woff2;base64,${data}) format('woff2')}`;
}

const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  '\r': '&#13;',
};

/** Text without what XML 1.0 forbids: control characters, and halves of pairs. */
export function xmlText(text: string): string {
  return text.replace(/[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]|\p{Surrogate}/gu, '');
}

/** Text as XML 1.0 and HTML allow it, in elements and in attributes: the five marks escaped, what is forbidden left out. */
export function escapeXml(text: string): string {
  return xmlText(text).replace(/[&<>"\r]/g, (mark) => ESCAPES[mark]);
}

/** Text for Markdown (CommonMark), on one line: signs that mean something there are made plain. */
export function plainMarkdown(text: string): string {
  return text.replace(/[\\`*_{}[\]<>#|~&]/g, (sign) => `\\${sign}`).replace(/\s*\r?\n\s*/g, ' ');
}

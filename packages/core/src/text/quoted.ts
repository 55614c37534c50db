/** An email's text in its parts. */
interface MailText {
  /** What its author wrote. */
  readonly own: string;
  /** Lines of earlier messages that it repeats, with their marks. */
  readonly quoted: string;
  readonly signature: string;
}

/** The line before a signature: two hyphens and a space (RFC 3676, section 4.3); many programs lose the space. */
const SIGNATURE = /^-- ?$/;
/** "On Tuesday, somebody wrote:", in the languages of the demo and some more, over one or two lines. */
const ATTRIBUTION =
  /^(?:On|Am|Le|El|Il|Op|Den|Em)\b[^\n]{4,200}\b(?:wrote|writes|schrieb|a écrit|escribió|ha scritto|schreef|skrev|escreveu)(?:\s[^\n]{0,80})?:?\s*$/i;
/** Characters of such lines at most. */
const LONGEST = 400;
/** Lines above a message that is repeated whole, without marks. */
const WHOLE_BELOW =
  /^(?:-{3,}\s*(?:Original Message|Forwarded message|Message original|Mensaje original)\s*-{3,}|_{20,})\s*$/i;

/**
 * Parts an email's text into what its author wrote, what it repeats, and the signature. By common practice: quoted lines begin with
 * ">", a line that says who wrote them belongs to them, and so does everything below a mark of an original message.
 */
export function partMail(text: string): MailText {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const whole = lines.findIndex((line) => WHOLE_BELOW.test(line));
  const upper = whole < 0 ? lines : lines.slice(0, whole);
  const lower = whole < 0 ? [] : lines.slice(whole);
  const mark = upper.findLastIndex((line) => SIGNATURE.test(line));
  // Quoted lines below the mark show that it belongs to what is repeated.
  const hasSignature = mark >= 0 && !upper.slice(mark).some(isQuoted);
  const body = hasSignature ? upper.slice(0, mark) : upper;
  const own: string[] = [];
  const quoted: string[] = [];
  for (let i = 0; i < body.length; i++) {
    const attribution = attributionAt(body, i);
    if (attribution > 0) {
      quoted.push(...body.slice(i, i + attribution));
      i += attribution - 1;
    } else (isQuoted(body[i]) ? quoted : own).push(body[i]);
  }
  return {
    own: tidy(own),
    quoted: tidy([...quoted, ...lower]),
    signature: hasSignature ? tidy(upper.slice(mark + 1)) : '',
  };
}

function isQuoted(line: string): boolean {
  return line.startsWith('>');
}

/** Lines that an attribution takes at this place, when quoted lines follow it: 0, 1 or 2. */
function attributionAt(lines: readonly string[], at: number): number {
  for (const length of [1, 2]) {
    const joined = lines.slice(at, at + length).join(' ');
    if (joined.length > LONGEST || !ATTRIBUTION.test(joined)) continue;
    let next = at + length;
    while (next < lines.length && lines[next].trim() === '') next++;
    if (next < lines.length && isQuoted(lines[next])) return length;
  }
  return 0;
}

function tidy(lines: readonly string[]): string {
  return lines
    .map((line) => line.trimEnd())
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

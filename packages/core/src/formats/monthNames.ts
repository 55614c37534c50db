/** Languages whose month names are known, by their codes; English holds where a name means different months. */
const LANGUAGES = [
  'en',
  'de',
  'fr',
  'es',
  'it',
  'pt',
  'nl',
  'sv',
  'da',
  'nb',
  'fi',
  'pl',
  'cs',
  'sk',
  'hu',
  'ro',
  'tr',
  'ca',
  'ru',
  'uk',
  'el',
  'id',
] as const;

const plain = (name: string): string => name.normalize('NFC').toLowerCase().replace(/\.$/, '');

/** The number of each month by its long and short names, also as they stand in a date (Unicode CLDR, as the engine ships it). */
function namesOfMonths(): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  for (const language of LANGUAGES)
    for (const month of ['long', 'short'] as const)
      for (const options of [{ month }, { month, day: 'numeric' }] as const) {
        const format = new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' });
        for (let m = 0; m < 12; m++) {
          const part = format.formatToParts(Date.UTC(2026, m, 15)).find(({ type }) => type === 'month')!;
          const name = plain(part.value);
          if (/\p{L}{3}/u.test(name) && !found.has(name)) found.set(name, m + 1);
        }
      }
  return found;
}

let names: ReadonlyMap<string, number> | null = null;
const ENGLISH = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const WHOLE_ENGLISH =
  /^(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)$/;

/** The month that a word names, 1 to 12, in one of many languages; 0 where it names none. */
export function monthNumber(word: string): number {
  const name = plain(word);
  if (WHOLE_ENGLISH.test(name)) return ENGLISH.indexOf(name.slice(0, 3)) + 1;
  names ??= namesOfMonths();
  return names.get(name) ?? 0;
}

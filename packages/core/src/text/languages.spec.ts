import { languageCode, languageDetector } from './languages';

let detectLanguage: (text: string) => string;
beforeAll(async () => {
  detectLanguage = await languageDetector();
});

describe('languages of texts', () => {
  it.each([
    ['I walk home at 23:15 and the lane behind the bakery is already black', 'en'],
    ['La lumière sur le quai est trop forte la nuit', 'fr'],
    ['Las luces del muelle son demasiado fuertes por la noche', 'es'],
    // The hashtags and accounts of a post are no words of its language.
    ['@lampwatch La lumière sur le quai est trop forte #LateLampPlan #DimTheWall', 'fr'],
  ])('%s: %s', (text, language) => {
    expect(detectLanguage(text)).toBe(language);
  });

  // Article 1 of the Universal Declaration of Human Rights (United Nations, 1948), from memory.
  it.each([
    ['en', 'All human beings are born free and equal in dignity and rights.'],
    ['de', 'Alle Menschen sind frei und gleich an Würde und Rechten geboren.'],
    ['it', 'Tutti gli esseri umani nascono liberi ed eguali in dignità e diritti.'],
    ['pt', 'Todos os seres humanos nascem livres e iguais em dignidade e em direitos.'],
    ['nl', 'Alle mensen worden vrij en gelijk in waardigheid en rechten geboren.'],
    ['sv', 'Alla människor är födda fria och lika i värde och rättigheter.'],
    ['el', 'Όλοι οι άνθρωποι γεννιούνται ελεύθεροι και ίσοι στην αξιοπρέπεια και τα δικαιώματα.'],
    ['ru', 'Все люди рождаются свободными и равными в своем достоинстве и правах.'],
  ])('tells article 1 in %s', (language, text) => {
    expect(detectLanguage(text)).toBe(language);
  });

  it('does not guess where there is little to go by', () => {
    expect(detectLanguage('ok')).toBe('und');
    expect(detectLanguage('#LateLampPlan @ann https://lamps.example/one-two-three')).toBe('und');
    expect(detectLanguage('')).toBe('und');
  });

  it.each([
    ['EN-gb', 'en'],
    ['fr', 'fr'],
    ['pt_BR', 'pt'],
    ['English', null],
    ['', null],
  ])('takes “%s” as %s', (given, code) => {
    expect(languageCode(given)).toBe(code);
  });
});

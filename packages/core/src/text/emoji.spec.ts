import { emojiOf } from './emoji';

describe('emojiOf', () => {
  // Sequences as Unicode Technical Standard 51 defines them.
  it.each([
    ['no signs at all, 3 # and * 5', []],
    ['moths 🦋🦋 again', ['🦋', '🦋']],
    ['👍🏽 and 👍', ['👍', '👍']],
    ['a family 👨‍👩‍👧 and a flag 🇫🇷', ['👨‍👩‍👧', '🇫🇷']],
    ['❤️ and 1️⃣', ['❤️', '1️⃣']],
    ['© 2026 ™', []],
  ])('%s', (text, found) => {
    expect(emojiOf(text)).toEqual(found);
  });
});

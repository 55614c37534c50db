/** An emoji of one or several code points: joined ones, flags, keycaps and those with a tone of skin are one (Unicode Technical Standard 51). */
const EMOJI =
  /\p{RI}\p{RI}|[0-9#*]\uFE0F?\u20E3|\p{Emoji_Presentation}(?:\p{EMod}|\uFE0F)?(?:\u200D\p{Emoji}(?:\p{EMod}|\uFE0F)?)*|\p{Extended_Pictographic}(?:\uFE0F|\p{EMod})(?:\u200D\p{Emoji}(?:\p{EMod}|\uFE0F)?)*/gu;
const TONE = /\p{EMod}/gu;

/** The emoji of a text in order; tones of skin are left away, so that the same sign counts as one. */
export function emojiOf(text: string): string[] {
  return (text.match(EMOJI) ?? []).map((emoji) => emoji.replace(TONE, ''));
}

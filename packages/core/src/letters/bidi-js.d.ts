declare module 'bidi-js' {
  interface Bidi {
    getEmbeddingLevels(text: string): { readonly levels: Uint8Array };
  }
  export default function bidiFactory(): Bidi;
}

/** Places at which a line may end (Unicode Standard Annex 14); the package brings no types. */
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { position: number; required: boolean } | null;
  }
}

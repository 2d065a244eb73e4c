/** A statement that belongs to the end of a step and is committed with it. */
export interface Write {
  text: string;
  parameters: unknown[];
}

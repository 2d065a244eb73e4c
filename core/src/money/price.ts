/** Money is in micros: millionths of a euro, whole numbers. */
export type Micros = number;

/** What a model service takes, per thousand tokens or per picture. */
export interface Price {
  microsPerThousandIn: number;
  microsPerThousandOut: number;
  microsPerPicture: number;
  /** Of sound that is heard; none where a service hears nothing. */
  microsPerMinute?: number | undefined;
}

export interface TextUsage {
  tokensIn: number;
  tokensOut: number;
}

/** Tokens of a text, estimated from above: one for every three characters, as no tokenizer of today makes more of plain text. */
export function tokensCeiling(text: string): number {
  return Math.ceil(text.length / 3) + 8;
}

/** The most a call can cost: the whole prompt and the longest reply allowed. */
export function textCeiling(price: Price, prompt: string, maxTokensOut: number): Micros {
  return textCost(price, { tokensIn: tokensCeiling(prompt), tokensOut: maxTokensOut });
}

/** What a call cost by what the service says it used, rounded up. */
export function textCost(price: Price, usage: TextUsage): Micros {
  return Math.ceil((usage.tokensIn * price.microsPerThousandIn + usage.tokensOut * price.microsPerThousandOut) / 1_000);
}

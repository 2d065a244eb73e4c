/** Red, green and blue of a colour as `#rrggbb`, each from 0 to 255. */
export const rgbOf = (colour: string): [number, number, number] => [
  Number.parseInt(colour.slice(1, 3), 16),
  Number.parseInt(colour.slice(3, 5), 16),
  Number.parseInt(colour.slice(5, 7), 16),
];

/** Relative luminance of a colour, from 0 to 1 (WCAG 2.2, relative luminance). */
function luminance(colour: string): number {
  const [red, green, blue] = rgbOf(colour).map((part) => {
    const share = part / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** How far two colours stand apart, from 1 to 21 (WCAG 2.2, contrast ratio). */
export function contrastOf(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

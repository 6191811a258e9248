/**
 * Faces that every mail program has something like, by what they are called on the screen. Common practice,
 * no source.
 */
export const FACES = {
  serif: "Georgia,'Times New Roman',serif",
  plain: 'Arial,Helvetica,sans-serif',
  round: "Verdana,Geneva,'DejaVu Sans',sans-serif",
  narrow: "'Trebuchet MS','Segoe UI',Arial,sans-serif",
} as const;
export type Face = keyof typeof FACES;

/** Widths that a letter may have on a wide screen, in CSS pixels. */
export const LETTER_WIDTHS = { least: 480, usual: 600, most: 680 } as const;

/** How the letters of a house look. */
export interface HouseStyle {
  /** A picture of the library at the head of each letter, as wide as it stands; null for none. */
  logo: { src: string; width: number } | null;
  /** Buttons and rules, as #RRGGBB. */
  main: string;
  /** Links, as #RRGGBB. */
  accent: string;
  face: Face;
  /** In CSS pixels. */
  width: number;
  /** Words above who sends it, by language (ISO 639-1); empty for none. */
  footer: Readonly<Record<string, string>>;
}

/** Of a house that has said nothing. */
export const USUAL_STYLE: HouseStyle = {
  logo: null,
  main: '#17252B',
  accent: '#0F766B',
  face: 'serif',
  width: LETTER_WIDTHS.usual,
  footer: {},
};

/** What words are written on, and in what. */
export const PAPER = '#FFFFFF';
/** What words are written in. */
export const INK = '#1D2529';

/** WCAG 2.2, 1.4.3 (AA): least contrast of words that are not large. */
export const LEAST_CONTRAST = 4.5;

const COLOUR = /^#[0-9a-f]{6}$/i;

/** Whether it is a colour as #RRGGBB. */
export const isColour = (text: string): boolean => COLOUR.test(text);

/** Relative luminance of a colour (WCAG 2.2, definitions): 0 for black to 1 for white. */
export function luminance(colour: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const channel = parseInt(colour.slice(at, at + 2), 16) / 255;
    return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/**
 * Contrast of two colours (WCAG 2.2, definitions): 1 for the same to 21 for black and white, whichever is in
 * front.
 */
export function contrast(one: string, other: string): number {
  const [darker, lighter] = [luminance(one), luminance(other)].sort((a, b) => a - b) as [number, number];
  return (lighter + 0.05) / (darker + 0.05);
}

const BLACK = '#000000';

/** What stands on a button of this colour: of white and black one is 4.5:1 and more on every colour. */
export const onColour = (colour: string): string =>
  contrast(colour, PAPER) >= contrast(colour, BLACK) ? PAPER : BLACK;

import { contrast, isColour, LEAST_CONTRAST, luminance, onColour } from '.';

/*
 * Worked examples of the formula in WCAG 2.2 (definitions of relative luminance and contrast ratio). That
 * #767676 is the lightest grey on white with 4.5:1 is widely published (values from memory).
 */
test('contrast by the formula of WCAG', () => {
  expect(luminance('#FFFFFF')).toBeCloseTo(1, 6);
  expect(luminance('#000000')).toBe(0);
  // The three weights are what full red, green and blue come to.
  expect([luminance('#FF0000'), luminance('#00FF00'), luminance('#0000FF')]).toEqual([
    0.2126, 0.7152, 0.0722,
  ]);
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
  expect(contrast('#777777', '#FFFFFF')).toBeCloseTo(4.48, 2);
  expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2);
  expect(contrast('#FF0000', '#FFFFFF')).toBeCloseTo(4.0, 2);
  expect(contrast('#FFFFFF', '#0000FF')).toBeCloseTo(8.59, 2);
});

test('what stands on a colour can be read on every colour', () => {
  for (let grey = 0; grey < 256; grey++) {
    const colour = `#${grey.toString(16).padStart(2, '0').repeat(3)}`;
    expect([colour, contrast(onColour(colour), colour) >= LEAST_CONTRAST]).toEqual([colour, true]);
  }
  expect(contrast(onColour('#F0C040'), '#F0C040')).toBeGreaterThan(LEAST_CONTRAST);
});

test('a colour is six hexadecimal digits', () => {
  expect(['#17252B', '#abcdef', '#fff', 'red', '#17252B00', ''].filter(isColour)).toEqual([
    '#17252B',
    '#abcdef',
  ]);
});

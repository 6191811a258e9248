import { cleanPhone } from '@goodword/core/intake';

/**
 * Telephone numbers set aside for fiction (555-0100 to 555-0199), of every area of North America that is in
 * use in the United States.
 */
export function fictionNumbers(): string[] {
  const areas = Array.from({ length: 800 }, (_v, i) => 200 + i).filter((area) => {
    const cleaned = cleanPhone(`${area} 555 0100`, 'US');
    return cleaned.ok && cleaned.country === 'US';
  });
  return areas.flatMap((area) =>
    Array.from({ length: 100 }, (_v, i) => `${area} 555 01${String(i).padStart(2, '0')}`),
  );
}

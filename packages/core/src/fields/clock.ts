/**
 * Minutes after midnight of a typed time: `10`, `10:05`, `10.05`, `1005`, `10 pm`, `10:05 p.m.`, `noon`; null
 * where it is none.
 */
export function parseClock(text: string): number | null {
  const typed = text.trim().toLowerCase();
  if (typed === 'noon' || typed === 'midnight') return typed === 'noon' ? 720 : 0;
  const found = /^(\d{1,2})(?:[:.h ]?(\d{2}))? ?(?:([ap])\.?m\.?)?$/.exec(typed);
  if (!found) return null;
  const [hour, minute, half] = [Number(found[1]), Number(found[2] ?? 0), found[3]];
  if (minute > 59 || hour > 23 || (half && (hour < 1 || hour > 12))) return null;
  return (half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour) * 60 + minute;
}

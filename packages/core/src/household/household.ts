/** Somebody who lives with others, as they are greeted. */
export interface HouseholdMember {
  firstName: string;
  lastName: string;
}

const joined = (words: readonly string[], locale: string) =>
  new Intl.ListFormat(locale, { style: 'long', type: 'conjunction' }).format(words);

/**
 * How a household is greeted: by the words kept for it, else by all first names, each once ("Marisol and
 * Jun"). Who has no first name is left out; without any the greeting is empty, so that a message can say "or
 * …".
 */
export function greetingOf(members: readonly HouseholdMember[], own: string | null, locale: string): string {
  if (own?.trim()) return own.trim();
  return joined([...new Set(members.map(({ firstName }) => firstName.trim()).filter(Boolean))], locale);
}

/**
 * Who a letter to all of them is addressed to: last names that they share are written once ("Marisol and Jun
 * Castellan").
 */
export function addressee(members: readonly HouseholdMember[], locale: string): string {
  const byLast = new Map<string, string[]>();
  for (const { firstName, lastName } of members) {
    const last = lastName.trim();
    byLast.set(last, [...(byLast.get(last) ?? []), firstName.trim()]);
  }
  const names = [...byLast].map(([last, firsts]) =>
    `${joined([...new Set(firsts.filter(Boolean))], locale)} ${last}`.trim(),
  );
  return joined(names.filter(Boolean), locale);
}

/**
 * People as those who get one piece of paper each: households once, at the place of their first member, and
 * everybody else alone. Only members who are among the people count.
 */
export function oneEach<P extends { householdId: number | null }>(people: readonly P[]): P[][] {
  const out: P[][] = [];
  const at = new Map<number, P[]>();
  for (const person of people) {
    const together = person.householdId === null ? undefined : at.get(person.householdId);
    if (together) together.push(person);
    else {
      const group = [person];
      out.push(group);
      if (person.householdId !== null) at.set(person.householdId, group);
    }
  }
  return out;
}

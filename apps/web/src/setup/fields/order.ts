/** Where a field stands: its id and the section it is in. */
export interface Placed {
  id: number;
  section: string;
}

/** Fields by section, in the order in which each section's first field stands. */
export function fieldSections<F extends Placed>(fields: readonly F[]): { name: string; fields: F[] }[] {
  const sections = new Map<string, F[]>();
  for (const field of fields) sections.set(field.section, [...(sections.get(field.section) ?? []), field]);
  return [...sections].map(([name, some]) => ({ name, fields: some }));
}

/** The ids when one field is moved to the place of another of its section. */
export function moved(fields: readonly Placed[], from: number, to: number): number[] {
  const ids = fieldSections(fields).flatMap((section) => section.fields.map((field) => field.id));
  const [at, target] = [ids.indexOf(from), ids.indexOf(to)];
  if (at < 0 || target < 0) return ids;
  ids.splice(at, 1);
  ids.splice(target, 0, from);
  return ids;
}

/** The ids when a whole section is moved up or down by one. */
export function sectionMoved(fields: readonly Placed[], name: string, by: -1 | 1): number[] {
  const names = fieldSections(fields).map((section) => section.name);
  return sectionPut(fields, name, names[names.indexOf(name) + by] ?? name);
}

/** The ids when a whole section is put where another stands. */
export function sectionPut(fields: readonly Placed[], name: string, at: string): number[] {
  const sections = fieldSections(fields);
  const from = sections.findIndex((section) => section.name === name);
  const to = sections.findIndex((section) => section.name === at);
  if (from >= 0 && to >= 0) sections.splice(to, 0, ...sections.splice(from, 1));
  return sections.flatMap((section) => section.fields.map((field) => field.id));
}

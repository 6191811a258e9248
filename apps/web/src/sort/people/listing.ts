/** People by name, a page of them, with no fields beside what a table shows anyway. */
export const AS_IT_COMES = { by: 'name' as const, descending: false, fields: [] as number[], limit: 100 };

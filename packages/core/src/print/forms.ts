/**
 * What people can be printed as: a sheet to call from, one to go from door to door with, mailing labels.
 */
export const PRINT_FORMS = ['call', 'door', 'labels'] as const;
export type PrintForm = (typeof PRINT_FORMS)[number];

/** What a call or door sheet can show beside the name; custom fields come as their numbers. */
export const SHEET_COLUMNS = ['phone', 'email', 'address', 'tags', 'last-gift', 'stage', 'notes'] as const;
/** A column of a call sheet. */
export type SheetColumn = (typeof SHEET_COLUMNS)[number] | number;

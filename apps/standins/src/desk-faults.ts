/** How the donor desk can be made to fail, for trying out what is said of it then. */
export const DESK_FAULTS = [
  'none',
  'status 500',
  'a page for people',
  'half a page',
  'the same page forever',
  'other columns',
  'another encoding',
  'everybody is gone',
] as const;
export type DeskFault = (typeof DESK_FAULTS)[number];

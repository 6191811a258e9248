/** The five stations, in the order of the work and of the day. */
export const STATIONS = [
  { path: '/gather', name: 'Gather' },
  { path: '/sort', name: 'Sort' },
  { path: '/write', name: 'Write' },
  { path: '/send', name: 'Send' },
  { path: '/hear-back', name: 'Hear back' },
] as const;

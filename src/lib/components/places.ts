/** The places there are, in the order of work. A place appears here when it is built. */
export const PLACES = [
  { path: '/estate', name: 'Estate' },
  { path: '/stair', name: 'Stair' },
  { path: '/ready', name: 'Ready' },
  { path: '/rights', name: 'Rights' },
  { path: '/dates', name: 'Dates' },
  { path: '/order', name: 'Order' },
  { path: '/worksheet', name: 'Worksheet' },
  { path: '/catalogue', name: 'Catalogue' }
] as const;

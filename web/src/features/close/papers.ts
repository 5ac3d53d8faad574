/** What leaves the house of a visit: the file's name in the interface and what it is called. */
export const PAPERS: [file: string, title: string][] = [
  ['report.pdf', 'Whole report'],
  ['customer.pdf', 'For the customer'],
  ['tag.pdf', 'Tag, A6'],
  ['sheet.pdf', 'Test sheet'],
  ['quote.pdf', 'Parts and approvals'],
  ['bundle.json', 'Visit bundle (JSON)'],
  ['readings.csv', 'Readings (CSV)'],
]

/** What a paper is called. */
export const titleOf = (file: string): string =>
  PAPERS.find(([known]) => known === file)?.[1] ?? file

/** The papers that can be looked at before they are printed. */
export const PREVIEWED = ['customer', 'tag', 'sheet'] as const
export type Previewed = (typeof PREVIEWED)[number]

/** What a person reads of an element: runs of white space count as one. For tests. */
export const said = (wrapper: { text: () => string }): string => wrapper.text().replace(/\s+/g, ' ')

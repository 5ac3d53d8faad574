/** A share of suspicion as people read it: nothing is certain, nothing impossible. */
export function percent(share: number): string {
  if (share > 0.995) return '> 99 %'
  return share < 0.01 ? '< 1 %' : `${Math.round(100 * share)} %`
}

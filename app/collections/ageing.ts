// The columns of ageing: how late what is owed is.
export const BUCKETS = [
  ['current', 'Not yet due', 'var(--green-2)'],
  ['d1_30', '1–30 days late', '#d9a53c'],
  ['d31_60', '31–60', '#cf7a2a'],
  ['d61_90', '61–90', 'var(--brick)'],
  ['over90', 'over 90', '#7d2010'],
  ['credits', 'Credits', 'var(--steel)'],
] as const

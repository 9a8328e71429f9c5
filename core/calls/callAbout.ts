// What somebody rings about, apart from the kind of work that comes of it.
const ABOUT = {
  new_work: 'wants work done',
  running_work: 'about work that runs',
  price: 'asks what it costs',
  bill: 'about a bill',
  complaint: 'complains',
  other: 'something else',
} as const
export type CallAbout = keyof typeof ABOUT
export const CALL_ABOUT = Object.keys(ABOUT) as CallAbout[]

/** What a call is about, in words; one that is not known is said as it is. @example sayCallAbout('bill') // 'about a bill' */
export const sayCallAbout = (about: string): string => ABOUT[about as CallAbout] ?? about

// What a live change says: technicians are told what these are; of all else only that something changed.
export const TOLD_TO_ALL: readonly string[] = ['prices', 'settings']

// The towns of the invented Larkmoor County.
export const TOWNS = [
  { name: 'Larkmoor', postcode: '04101', lat: 42.71, lon: -75.12, territory: 0 },
  { name: 'Otterfall', postcode: '04103', lat: 42.765, lon: -75.03, territory: 0 },
  { name: 'Stonebeck', postcode: '04107', lat: 42.83, lon: -75.16, territory: 1 },
  { name: 'Withy Cross', postcode: '04110', lat: 42.79, lon: -75.25, territory: 1 },
  { name: 'Fenny Marsh', postcode: '04115', lat: 42.64, lon: -75.21, territory: 2 },
  { name: 'High Tarn', postcode: '04118', lat: 42.885, lon: -75.07, territory: 1 },
] as const

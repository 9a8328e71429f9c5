/**
 * A piece of equipment as people call it: make, kind, serial number; what is not known is left out.
 * @example sayEquipment({ make: 'Kelda', category: 'UV unit', serial: 'OS-31746' }) // 'Kelda UV unit OS-31746'
 * @example sayEquipment({ make: '', category: 'pump', serial: '' }) // 'pump'
 */
export const sayEquipment = (e: { make: string; category: string; serial: string }): string =>
  [e.make, e.category, e.serial].filter(Boolean).join(' ')

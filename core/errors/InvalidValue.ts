/**
 * A value that core cannot compute with: its message is a sentence for whoever gave it. Any other
 * RangeError is a fault of ours.
 *
 * @example decimalToMinor('1.005', 'USD') // throws InvalidValue: USD has 2 decimals
 */
export class InvalidValue extends RangeError {
  constructor(message: string) {
    super(message)
    this.name = 'InvalidValue'
  }
}

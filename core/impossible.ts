/**
 * What cannot be, told in a sentence that a painter understands and that says what to do. A `RangeError` of its own
 * type, so that a slip of the program (which may throw `RangeError` too) is never taken for one.
 */
export class Impossible extends RangeError {
  override readonly name = 'Impossible';
}

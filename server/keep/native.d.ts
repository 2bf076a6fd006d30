/** Of a package without types of its own: the one function that is used. */
declare module 'fs-native-extensions' {
  /** Lock an open file for this description of it alone. @returns false where another one has it */
  export function tryLock(fd: number): boolean;
}

/** What browsers and Node have alike, and the language itself does not: all of it that the core may use. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input?: ArrayBuffer | ArrayBufferView): string;
}
declare function structuredClone<T>(value: T): T;

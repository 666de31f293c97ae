declare module 'xliff' {
  /** Reads XLIFF 2 into what each unit says. */
  export function xliff2js(text: string): Promise<unknown>
}

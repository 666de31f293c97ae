declare module 'webvtt-parser' {
  export interface Parsed {
    cues: { startTime: number; endTime: number; text: string }[]
    errors: { line: number; message: string }[]
  }
  const parser: { WebVTTParser: new () => { parse(text: string, kind: string): Parsed } }
  export default parser
}

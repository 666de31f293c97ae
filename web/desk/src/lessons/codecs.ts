const codecs: Record<string, string> = {
  h264: 'H.264',
  hevc: 'H.265',
  vp8: 'VP8',
  vp9: 'VP9',
  av1: 'AV1',
  aac: 'AAC',
  opus: 'Opus',
  mp3: 'MP3',
  vorbis: 'Vorbis',
  flac: 'FLAC',
  mpeg4: 'MPEG-4 Part 2',
  ac3: 'AC-3',
}

/** A codec as people write it. */
export const codecName = (codec: string) => codecs[codec] ?? codec

/** The sound of a stretch as an upright band: time runs down, loudness to both sides. */
export function SoundBand({ peaks, perSecond, start, end }: { peaks: number[]; perSecond: number; start: number; end: number }) {
  const part = peaks.slice(Math.floor((start / 1000) * perSecond), Math.max(1, Math.ceil((end / 1000) * perSecond)))
  if (part.length === 0) return <span />
  const path = part
    .map((peak, i) => {
      const half = Math.max(0.6, peak / 5)
      return `M${20 - half} ${i + 0.5}H${20 + half}`
    })
    .join('')
  return (
    <svg aria-hidden="true" viewBox={`0 0 40 ${part.length}`} preserveAspectRatio="none" className="absolute inset-0 h-full w-full">
      <path d={path} stroke="currentColor" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
    </svg>
  )
}

import { useRef, useState } from 'react'

interface Props {
  left: string
  right: string
  leftName: string
  rightName: string
  width: number
  height: number
}

/** Two pictures of the same size at 100 % pixels, one over the other, parted by an edge that slides. */
export function SlidingEdge({ left, right, leftName, rightName, width, height }: Props) {
  const frame = useRef<HTMLDivElement>(null)
  const [share, setShare] = useState(50)
  const drag = (event: React.PointerEvent) => {
    const box = frame.current?.getBoundingClientRect()
    if (box && event.buttons === 1) setShare(Math.min(100, Math.max(0, ((event.clientX - box.left) / box.width) * 100)))
  }
  return (
    <div className="overflow-auto">
      <div ref={frame} className="relative select-none touch-none border border-hairline" style={{ width, height }} onPointerDown={drag} onPointerMove={drag}>
        <img src={right} alt={`The ${rightName} at this moment`} width={width} height={height} draggable={false} className="absolute inset-0 max-w-none" />
        <img
          src={left}
          alt={`The ${leftName} at this moment`}
          width={width}
          height={height}
          draggable={false}
          className="absolute inset-0 max-w-none"
          style={{ clipPath: `inset(0 ${100 - share}% 0 0)` }}
        />
        <div
          role="slider"
          tabIndex={0}
          aria-label={`Edge between ${leftName} and ${rightName}`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(share)}
          className="absolute inset-y-0 -ml-3 flex w-6 cursor-ew-resize justify-center"
          style={{ left: `${share}%` }}
          onKeyDown={(e) => {
            const step = { ArrowLeft: -2, ArrowRight: 2, Home: -100, End: 100 }[e.key]
            if (step === undefined || e.shiftKey) return
            e.preventDefault()
            e.stopPropagation()
            setShare((s) => Math.min(100, Math.max(0, s + step)))
          }}
        >
          <span className="w-[3px] bg-copper" />
          <span className="absolute right-1/2 top-0 mr-[2px] whitespace-nowrap bg-ink px-2 text-small text-paper">{leftName}</span>
          <span className="absolute left-1/2 top-0 ml-[2px] whitespace-nowrap bg-ink px-2 text-small text-paper">{rightName}</span>
        </div>
      </div>
    </div>
  )
}

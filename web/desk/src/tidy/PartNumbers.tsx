import type { Schemas } from '../app/api'
import { NumberField } from '../ui/NumberField'

type Part = Schemas['PicturePart']

/** A part of a picture in its pixels. */
export function PartNumbers({ part, recorded, take }: { part: Part; recorded: Schemas['PictureSize']; take: (part: Part) => void }) {
  const numbers = [
    ['Left, px', 'x', recorded.width],
    ['Top, px', 'y', recorded.height],
    ['Width, px', 'width', recorded.width],
    ['Height, px', 'height', recorded.height],
  ] as const
  return (
    <div className="mt-2 grid grid-cols-4 gap-x-3">
      {numbers.map(([label, key, whole]) => (
        <NumberField
          key={key}
          label={label}
          value={Math.round(part[key] * whole)}
          least={key === 'x' || key === 'y' ? 0 : Math.ceil(whole * 0.05)}
          most={whole}
          take={(px) => take({ ...part, [key]: px / whole })}
        />
      ))}
    </div>
  )
}

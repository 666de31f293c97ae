import { DrawShapes } from '../../sheet/DrawShapes'
import { boundsOf, within } from '../../sheet/shapes'
import { Line, Lines } from '../../ui/Lines'
import type { QuestionKind } from './kind'

const percent = (share: number) => Math.round(share * 1000) / 10

export const place: QuestionKind<'place'> = {
  name: 'Click the right place',
  fresh: (from) => ({ kind: 'place', areas: from?.kind === 'place' ? from.areas : [] }),
  Brief: ({ asks }) => (
    <span className="flex flex-wrap gap-x-4">
      {asks.areas.map((area, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: places are known by their number
        <span key={i} className={area.right ? 'font-bold text-lagoon' : ''}>
          {i + 1} {area.text || 'a place'}
        </span>
      ))}
    </span>
  ),
  Write: ({ asks, change, question }) => {
    const setShape = (i: number, shape: (typeof asks.areas)[number]['shape']) =>
      change({ ...asks, areas: asks.areas.map((a, j) => (j === i ? { ...a, shape } : a)) })
    return (
      <>
        <DrawShapes
          at={question.at}
          areas={asks.areas}
          add={(shape) => change({ ...asks, areas: [...asks.areas, { shape, text: '', right: !asks.areas.some((a) => a.right) }] })}
          change={setShape}
        />
        {asks.areas.length > 0 && (
          <Lines
            lines={asks.areas}
            name="area"
            fresh={() => ({
              shape: {
                kind: 'rectangle' as const,
                points: [
                  { x: 0.4, y: 0.4 },
                  { x: 0.6, y: 0.6 },
                ],
              },
              text: '',
              right: false,
            })}
            change={(areas) => change({ ...asks, areas })}
            row={(area, set, i) => {
              const bounds = boundsOf(area.shape)
              return (
                <>
                  <span className="w-4 font-mono text-small">{i + 1}</span>
                  <label className="flex items-center gap-1 text-small">
                    <input type="checkbox" checked={area.right} aria-label={`Place ${i + 1} is right`} onChange={(e) => set({ right: e.target.checked })} />
                    right
                  </label>
                  <Line label={`What is at place ${i + 1}`} value={area.text} set={(text) => set({ text })} />
                  <Line label={`Said to place ${i + 1}`} value={area.reply ?? ''} set={(reply) => set({ reply: reply || undefined })} className="w-40" />
                  <span className="flex gap-1 text-small text-quiet">
                    {(['x', 'y', 'width', 'height'] as const).map((side) => (
                      <input
                        key={side}
                        type="number"
                        min={0}
                        max={100}
                        step={0.5}
                        aria-label={`Place ${i + 1}: ${side === 'x' ? 'from the left' : side === 'y' ? 'from above' : side}, in per cent`}
                        value={percent(bounds[side])}
                        onChange={(e) => setShape(i, within(area.shape, { ...bounds, [side]: Number(e.target.value) / 100 }))}
                        className="w-16 border border-quiet/60 bg-field px-1 font-mono"
                      />
                    ))}
                    %
                  </span>
                </>
              )
            }}
          />
        )}
        <p className="text-small text-quiet">Learners who see no picture choose among the words: name two places or more, one of them wrong.</p>
      </>
    )
  },
}

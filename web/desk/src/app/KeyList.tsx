import { useState } from 'react'
import { Dialog } from '../ui/Dialog'
import { letSingleKeysWork, singleKeysWork } from './keys'

const list: [string, string][] = [
  ['Space', 'Play or pause'],
  ['← →', '5 seconds back or on'],
  ['Shift ← →', 'One frame back or on'],
  ['↑ ↓', 'One row of the sheet back or on'],
  ['+ −', 'Look at the sheet closer, or from farther away'],
  ['S', 'Set a section at the playing position'],
  ['[ ]', 'Tidy: the selected stretch starts or ends at the playing position'],
  ['Shift ↑ ↓', 'Tidy: one row more or less of it'],
  ['X', 'Tidy: cut the selected stretch, or restore it'],
  ['T L', 'Tidy: take the next suggested cut, or leave it'],
  ['H', 'Tidy: hear it cut'],
  ['M', 'Tidy: move in for the selected stretch'],
  ['Enter', 'In a caption: split it where the cursor is; with Shift, break the line'],
  ['Ctrl J', 'In a caption: join it with the next'],
  ['Alt ↑ ↓', 'In a caption: the one before, or the next'],
  ['Alt Space, Ctrl Space', 'In a caption: play it, or play and pause'],
  ['Alt ← →', 'In a caption: it begins a frame earlier or later; with Shift a word, with Ctrl it ends so'],
  ['Alt H', 'In a caption: it begins at the playing position; with Ctrl it ends there'],
  ['Esc', 'In a caption: done with it'],
  ['R', 'Deliver: show the run sheet, or the places again'],
  ['Space, Shift Space, Ctrl Space', 'Board: select the cell, its lesson, its outlet'],
  ['Shift ↑ ↓ ← →', 'Board: select from cell to cell'],
  ['Ctrl A, Esc', 'Board: select all that is shown, or nothing'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['? F1', 'This list'],
]

/** What the keys do, and whether letters alone do anything. */
export function KeyList({ onClose }: { onClose: () => void }) {
  const [single, setSingle] = useState(singleKeysWork)
  const choose = (on: boolean) => {
    letSingleKeysWork(on)
    setSingle(on)
  }
  return (
    <Dialog open onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[140px_1fr] gap-y-2">
        {list.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-mono">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex gap-2 border-t border-hairline pt-3">
        <input type="checkbox" checked={single} onChange={(e) => choose(e.target.checked)} />
        Letters and signs work alone, without Ctrl
      </label>
    </Dialog>
  )
}

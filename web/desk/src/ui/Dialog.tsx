import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'
import { Button } from './Button'

const sheet = 'max-h-[90vh] w-[min(640px,94vw)] overflow-auto border border-ink bg-paper p-6'

export function Dialog({ open, onClose, title, children }: { open: boolean; onClose: () => void; title: string; children: ReactNode }) {
  return (
    <Radix.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Radix.Content aria-describedby={undefined} className={`fixed left-1/2 top-1/2 z-30 -translate-x-1/2 -translate-y-1/2 ${sheet}`}>
          <div className="mb-4 flex items-baseline justify-between gap-4">
            <Radix.Title className="text-large font-bold">{title}</Radix.Title>
            <Radix.Close asChild>
              <Button look="link">Close</Button>
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}

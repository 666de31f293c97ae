interface Props {
  saving: 'saved' | 'unsaved' | 'conflict'
  at: string
  revision: number
  /** What the last save changed, in words. */
  changes: string
}

export function SaveState({ saving, at, revision, changes }: Props) {
  if (saving === 'conflict') return <span className="text-brick">Not saved</span>
  return (
    <span role="status">
      {saving === 'unsaved'
        ? 'Saving…'
        : `Saved ${new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })} · revision ${revision}${changes ? `: ${changes}` : ''}`}
    </span>
  )
}

const askAgainMs = 300

/**
 * Asks what came of a file until that is known: the lesson, or what is wrong with the file. Without an answer it is asked again; where the server
 * does not know the file (404) it ends with that. Once `gone` is signalled nobody is asked any more, and there is no outcome.
 */
export async function outcome<View extends { problem?: unknown; lessonId?: unknown }>(ask: () => Promise<View>, gone: AbortSignal): Promise<View | undefined> {
  while (!gone.aborted) {
    const view = await ask().catch((refused: Error & { status?: number }) => {
      if (refused.status === 404) throw refused
    })
    if (gone.aborted) break
    if (view?.problem || view?.lessonId) return view
    await new Promise((on) => setTimeout(on, askAgainMs))
  }
}

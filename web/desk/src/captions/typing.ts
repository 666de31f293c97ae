const stopsKey = 'wexel-stops-while-typing'

/** Whether playing stops while one types, and goes on a moment after. */
export const stopsWhileTyping = () => localStorage.getItem(stopsKey) !== 'no'
export const letStopWhileTyping = (on: boolean) => localStorage.setItem(stopsKey, on ? 'yes' : 'no')

const goesOnAfterMs = 1200

/** Holds what plays while keys are pressed, and lets it go on when they rest. */
export function typingHold(player: { playing: () => boolean; pause: () => void; play: () => void }) {
  let timer: ReturnType<typeof setTimeout> | undefined
  return {
    typed() {
      if (!stopsWhileTyping()) return
      if (timer === undefined && !player.playing()) return
      player.pause()
      clearTimeout(timer)
      timer = setTimeout(() => {
        timer = undefined
        player.play()
      }, goesOnAfterMs)
    },
    end() {
      clearTimeout(timer)
      timer = undefined
    },
  }
}

import type { Player } from './player'

/** Lays something over the picture itself, whatever black stands around it. */
export function lay({ lesson, video, over }: Player, layer: HTMLElement) {
  over.before(layer)
  const place = () => {
    const [shown, around] = [video.getBoundingClientRect(), over.parentElement?.getBoundingClientRect() ?? video.getBoundingClientRect()]
    const width = Math.min(shown.width, (shown.height * lesson.width) / lesson.height)
    const height = (width * lesson.height) / lesson.width
    layer.style.left = `${shown.left - around.left + (shown.width - width) / 2}px`
    layer.style.top = `${shown.top - around.top + (shown.height - height) / 2}px`
    layer.style.width = `${width}px`
    layer.style.height = `${height}px`
  }
  const sizes = new ResizeObserver(() => (layer.isConnected ? place() : sizes.disconnect()))
  sizes.observe(video)
}

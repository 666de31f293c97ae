// What a step of a lesson can do on the desk program: each act is played frame by frame by record.mjs, with a stage that points, shows and lets time pass.

/** Points at one thing, and from there along to another. */
export const point = (id, to) => async (stage) => {
  await stage.to(id, 0.2)
  await stage.to(to ?? id, 0.8)
}

export const click = (id) => async (stage) => {
  await stage.to(id, 0.5)
  await stage.wait(220)
  await stage.show('down', id)
  await stage.wait(100)
  await stage.show('press', id)
  await stage.wait(260)
}

/** Goes to another page of the program. */
export const go = (view) => click(`go-${view}`)

/** Types a text into a field, as unevenly as people do; what stood there goes first. */
export const type = (id, text) => async (stage) => {
  await click(id)(stage)
  for (let i = 1; i <= text.length; i++) {
    await stage.show('text', id, text.slice(0, i))
    await stage.wait(stage.between(90, 210) + (text[i - 1] === ' ' ? 120 : 0))
  }
}

/** Opens a list, and takes one of what it offers. */
export const choose = (id, item) => async (stage) => {
  await click(id)(stage)
  await stage.wait(350)
  await click(await stage.choiceOf(item))(stage)
}

/** The ticket comes out of the printer. */
export const print = () => async (stage) => {
  for (let i = 1; i <= 24; i++) {
    await stage.show('set', { printed: i / 24 })
    await stage.wait(i % 5 === 0 ? 90 : 45)
  }
}

/** The ship goes on along its way, in seconds. */
export const sail = (from, to, seconds) => async (stage) => {
  const steps = seconds * 6
  for (let i = 0; i <= steps; i++) {
    await stage.show('set', { ship: from + ((to - from) * i) / steps })
    await stage.wait(1000 / 6)
  }
}

/** What changes by itself, as the clock does. */
export const set = (values) => (stage) => stage.show('set', values)

// Six lessons made by dice out of what can be shown on the desk program: their contents are known, since each topic begins where it is put.
// `demo/record --lessons bench/marking/lessons.mjs --to FOLDER` plays and records them.
import { choose, click, go, point, type } from '../../demo/acts.mjs'

function dice(seed) {
  let state = (seed * 7919 + 17) >>> 0
  return (n) => {
    state = (state * 1664525 + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * n)
  }
}

/** What can be shown, each on a page of its own: how people begin to speak of it, and what they say and do then. */
const topics = {
  sailings: {
    title: 'Sailings',
    begins: ['Now we look at the list of sailings.', 'Next, open the sailings of today.', 'The sailings are where every question begins.'],
    steps: [
      { say: 'Each line is a departure, with its ship and its quay.', do: [point('s2')] },
      { say: 'The bar says how much of the vehicle deck is sold.', do: [point('s4')] },
      { say: 'When a bar is red, nobody drives on board any more.', do: [point('s7')] },
      { say: 'Press the line to mark it, and the desk remembers it for the sale.', do: [click('s5')] },
      { say: 'The seats have a column of their own on the right.', do: [point('s6')] },
    ],
  },
  sell: {
    title: 'Selling a ticket',
    begins: ['Next we sell a ticket.', 'Now go to the page on which tickets are sold.', 'Selling takes six fields, no more.'],
    steps: [
      { say: 'Choose the kind first, since the price depends on it.', do: [choose('kind', 'Car')] },
      { say: 'The registration is typed as it stands on the plate.', do: [type('reg', 'RW 12 OAK')] },
      { say: 'Ask for the length in metres.', do: [type('length', '4.2')] },
      { say: 'Count the people in the car, the driver too.', do: [type('people', '2')] },
      { say: 'Show the price, and read it out loud.', do: [click('price')] },
    ],
  },
  change: {
    title: 'Changes and refunds',
    begins: ['Let us see what happens when somebody comes back.', 'Now for changes and refunds.', 'A ticket that was sold can be changed.'],
    steps: [
      { say: 'Type the number that is printed on the ticket.', do: [type('find', '2117')] },
      { say: 'Find shows the booking with all that was paid.', do: [click('look')] },
      { say: 'The other sailing is chosen from the list.', do: [choose('to', '13:55 Skerry Head')] },
      { say: 'One press moves the booking there.', do: [click('move')] },
    ],
  },
  deck: {
    title: 'The deck plan',
    begins: ['Next comes the deck plan.', 'Now we go down to the vehicle deck.', 'On deck, every car has its place.'],
    steps: [
      { say: 'The lanes run from the stern ramp to the bow door.', do: [point('lane1')] },
      { say: 'At the end of each lane you read how many metres are free.', do: [point('free2')] },
      { say: 'The ball at the bottom shows where the weight is.', do: [point('balance')] },
      { say: 'Place the next car where there is room.', do: [click('place')] },
    ],
  },
  map: {
    title: 'The crossing page',
    begins: ['Let us look at the crossing itself.', 'Now open the crossing page.', 'Where the ship is can always be seen.'],
    steps: [
      { say: 'The line on the water is the way that is left.', do: [point('ship')] },
      { say: 'Speed and wind stand beside it.', do: [point('seastate')] },
      { say: 'Tell the desks when the ship is late, with one press.', do: [click('call')] },
    ],
  },
  till: {
    title: 'Closing the till',
    begins: ['Finally we close the till.', 'Now count the money of the day.', 'In the evening the till is counted.'],
    steps: [
      { say: 'Write down how many notes of each there are.', do: [type('c0', '3')] },
      { say: 'Tens and fives are counted in the same way.', do: [type('c1', '9')] },
      { say: 'The page works out what it comes to.', do: [point('sum')] },
      { say: 'Look at the difference before you close.', do: [point('differs')] },
    ],
  },
  report: {
    title: 'The report of the day',
    begins: ['Next, the report.', 'Now we read the report of the whole day.', 'What all desks sold stands in the report.'],
    steps: [
      { say: 'The four figures on top are for all desks.', do: [point('f0', 'f3')] },
      { say: 'Every bar is an hour of the day.', do: [point('h08')] },
      { say: 'Press a bar to see what it is made of.', do: [click('h10')] },
      { say: 'Below, each desk has a line of its own.', do: [point('d2')] },
    ],
  },
}

const more = [
  'Take your time with it, nobody is in a hurry here.',
  'It is the same on every desk, and on the tablets as well.',
  'If something is unclear, ask the person at the next desk.',
  'You will do this twenty times a day, so it becomes easy.',
  'There is nothing that you could break by looking.',
  'Now and then it takes a second until it shows.',
]

function lesson(number) {
  const throwOf = dice(number)
  const order = Object.keys(topics)
    .map((name) => ({ name, at: throwOf(1000) }))
    .sort((a, b) => a.at - b.at)
    .slice(0, 5 + throwOf(3))
    .map((o) => o.name)
  const steps = order.flatMap((name, i) => {
    const { title, begins, steps } = topics[name]
    const own = steps.map((step) => ({ ...step, hold: 0.4 + throwOf(14) / 10 }))
    own.splice(1 + throwOf(own.length), 0, { say: more[throwOf(more.length)], hold: 0.3 + throwOf(30) / 10 })
    // A look at another page and back is no new topic.
    const aside = order[(i + 1) % order.length]
    const glance = throwOf(3) === 0 ? [{ say: 'We come back to this one in a moment.', do: [go(aside), go(name)], hold: 0.5 }] : []
    const first = { section: title, say: begins[throwOf(begins.length)], do: i === 0 ? [] : [go(name)], hold: 0.6 + throwOf(10) / 10 }
    return [first, ...own, ...glance]
  })
  return {
    id: `made-${number}`,
    title: `Lesson ${number} made by dice`,
    description: '',
    file: `made-${number}.mp4`,
    size: number % 2 ? [1280, 720] : [1920, 1080],
    sound: 'mono',
    voice: number % 3 ? 'mara' : 'tam',
    at: order[0],
    dark: number === 4,
    words: true,
    released: false,
    steps,
  }
}

export const courses = [{ title: 'Made by dice', lessons: [1, 2, 3, 4, 5, 6].map(lesson) }]

// The demo's lessons in the order of their courses: what is said and what is done on the desk program. `record.mjs` turns each into a recording.
// A step: { say, do, hold }. What is to be done begins with the sentence and goes on in its order; `hold` is the quiet after both in seconds,
// times the lesson's `pace`. `section` starts a section of the contents at that step; `under` makes it nested. What can be done stands in acts.mjs.
import { basics } from './basics.mjs'
import { deck } from './deck.mjs'
import { refunds } from './refunds.mjs'
import { vehicle } from './vehicle.mjs'

const [opening, timetable, foot, till] = basics

export const courses = [
  { title: 'Ticket desk basics', lessons: [opening, timetable, vehicle, foot, till] },
  { title: 'Refunds and changes', lessons: refunds },
  { title: 'On deck', lessons: deck },
]

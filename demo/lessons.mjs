// The four demo lessons: what is said and what is done on the desk page, in order. `record.mjs` turns each into a recording.
// A step: { say, do, hold } - `do` runs while the sentence is spoken, `hold` is the quiet after it in seconds (times the lesson's `pace`).
// `section` starts a section of the contents at that step; `under` makes it nested.

const type = (id, text) => async (page) => {
  await page.click(`#${id}`)
  await page.type(`#${id}`, text, { delay: 160 })
}
const click = (id) => async (page) => {
  await page.hover(`#${id}`, { timeout: 30_000 })
  await page.waitForTimeout(500)
  await page.click(`#${id}`)
}
const choose = (id, label) => async (page) => {
  await page.hover(`#${id}`)
  await page.waitForTimeout(400)
  await page.selectOption(`#${id}`, { label })
}
const point = (id) => async (page) => {
  const box = await page.locator(`#${id}`).boundingBox()
  await page.mouse.move(box.x + 20, box.y + box.height / 2, { steps: 20 })
  await page.mouse.move(box.x + box.width - 20, box.y + box.height / 2, { steps: 30 })
}

export const lessons = [
  {
    id: 'opening',
    title: 'Opening the desk',
    description: 'Signing in, entering the float and checking the first sailing.',
    file: 'desk opening 2026-11-03.mp4',
    size: [1280, 720],
    sound: 'mono',
    at: 'start',
    words: true,
    steps: [
      { section: 'Before you start', say: 'Welcome to the crossing desk. In this lesson you open the desk for the day.', hold: 2 },
      { say: 'You need your name and the float that was counted last night.', hold: 2 },
      { section: 'Signing in', say: 'Type your name. It is printed on every ticket that you sell.', do: type('name', 'M. Tarn'), hold: 3 },
      { section: 'The float', say: 'Now enter the float. It must be the sum on the yellow sheet.', do: type('float', '150.00'), hold: 3 },
      { say: 'If the sheet says something else, count again before you go on.', hold: 4 },
      { section: 'Opening', say: 'Press open the desk, and wait for the yellow line.', do: click('open'), hold: 4 },
      { say: 'The first sailing is chosen on the left. Check it against the clock.', do: click('s0'), hold: 3 },
      { say: 'That is all. The desk is open.', hold: 2 },
    ],
  },
  {
    id: 'vehicle',
    pace: 1.35,
    title: 'Selling a vehicle crossing',
    description: 'From the sailing list to the printed ticket: what to ask the driver, where the price comes from, and what to say when the sailing may be late.',
    file: 'Recording 2026-11-04 101502.mkv',
    size: [1280, 720],
    sound: 'opus',
    at: 'booking',
    words: true,
    steps: [
      { section: 'Choosing the sailing', say: 'Welcome back to the crossing desk. In this lesson you learn how to sell a vehicle crossing.', hold: 6 },
      { say: 'First, open the sailing list on the left, and choose the departure.', do: click('s1'), hold: 7 },
      { say: 'A sailing in grey is full for vehicles. Foot passengers can still be booked on it.', do: point('s3'), hold: 8 },
      { say: 'Always say the departure time aloud, so that the driver can correct you.', hold: 8 },
      { say: 'Ask whether it is one way or return. The return is a booking of its own.', do: click('s2'), hold: 7 },
      { say: 'We stay with the outbound sailing at eight forty five.', do: click('s1'), hold: 8 },
      { section: 'Registration and price', say: 'Next, choose the kind of vehicle. Here it is a car.', do: choose('kind', 'Car'), hold: 6 },
      { say: 'Then type the registration, and check it with the driver.', do: type('reg', 'BW 41 TRN'), hold: 8 },
      { say: 'The length decides the place on deck. Ask for it, do not guess it.', do: type('length', '4.6'), hold: 8 },
      { say: 'Count the people, with the driver.', do: type('people', '3'), hold: 7 },
      { say: 'Now show the price. The driver is part of the vehicle price.', do: click('price'), hold: 9 },
      { say: 'When the price is shown, read it out before you take payment.', do: point('total'), hold: 8 },
      { say: 'The small print says until when the ticket can be changed.', do: point('small'), hold: 10 },
      { section: 'Account customers', under: true, say: 'Some companies pay by account. Choose account instead of card.', do: click('account'), hold: 7 },
      { say: 'The account number is on the sheet that the driver carries.', do: type('acc', '70-114'), hold: 9 },
      { say: 'If the number is not known, the sale is a card sale. Never make an account at the desk.', hold: 10 },
      { section: 'Caravans and trailers', under: true, say: 'A car with a caravan or a trailer is a kind of its own.', do: choose('kind', 'Car and trailer'), hold: 7 },
      { say: 'The length is the whole length, with the tow bar.', do: type('length', ' and 5.2'), hold: 8 },
      { say: 'Show the price again. The trailer has a row of its own.', do: click('price'), hold: 9 },
      { say: 'Anything over twelve metres goes to the freight desk. You cannot sell it here.', hold: 10 },
      { section: 'When the weather is bad', say: 'On windy days there is a weather notice. Open it before you sell.', do: click('note'), hold: 8 },
      { say: 'Tell the driver that the sailing may be late before the ticket is paid.', do: point('weather'), hold: 9 },
      { say: 'The driver may wait, change to a later sailing, or travel on foot.', hold: 8 },
      { say: 'A change that we caused costs nothing. Note it on the booking.', hold: 9 },
      { say: 'Do not promise a time. Say what the notice says.', hold: 8 },
      { say: 'Close the notice when the driver has understood it.', do: click('note'), hold: 9 },
      { section: 'The receipt', say: 'Now take the payment. Choose card, and hand over the reader.', do: click('card'), hold: 8 },
      { say: 'The ticket is printed as soon as the payment is accepted.', do: point('ticket'), hold: 9 },
      { say: 'Check the registration on the ticket once more.', hold: 8 },
      { say: 'Hand over the ticket with the receipt, and point to the lane number.', hold: 9 },
      { say: 'The ticket must lie behind the windscreen, where the deck staff can see it.', hold: 10 },
      { say: 'If the printer is out of paper, the roll is in the left drawer.', hold: 9 },
      { section: 'Three things to remember', say: 'Let us go over it again. First, say the departure time aloud.', do: click('s1'), hold: 9 },
      { say: 'Second, check the registration with the driver, twice.', do: point('reg'), hold: 9 },
      { say: 'Third, read out the price before you take payment.', do: point('total'), hold: 9 },
      { say: 'In the next lesson you learn about refunds and changes.', hold: 6 },
      { say: 'Thank you for watching, and have a calm sailing.', hold: 4 },
    ],
  },
  {
    id: 'refunds',
    title: 'Refunds and changes',
    description: 'Finding a booking, moving it to another sailing, and giving the money back.',
    file: 'refunds_take2_FINAL.mp4',
    size: [1440, 1080],
    sound: 'stereo',
    at: 'refund',
    words: false,
    steps: [
      { section: 'Finding the booking', say: 'A passenger comes back with a ticket. Type the booking number.', do: type('find', '2117'), hold: 2 },
      { say: 'Press find. The booking shows what was paid.', do: click('look'), hold: 4 },
      { section: 'Changing the sailing', say: 'Up to two hours before departure, the sailing can be changed.', do: click('move'), hold: 5 },
      { say: 'The old ticket is no longer valid. Take it back and tear it.', hold: 5 },
      { section: 'Refund', say: 'A refund goes to the card that paid. Never pay it out in cash.', do: click('back'), hold: 5 },
      { say: 'Say how long it takes. Three to five working days.', do: point('done'), hold: 3 },
    ],
  },
  {
    id: 'till',
    title: 'Closing the till',
    description: 'Counting the till at the end of the day. A lesson without sound.',
    file: 'Untitled 7.mov',
    size: [1920, 1080],
    sound: 'none',
    at: 'till',
    words: false,
    steps: [
      { section: 'Counting', do: type('c500', '4'), hold: 3 },
      { do: type('c200', '11'), hold: 3 },
      { do: type('c100', '8'), hold: 3 },
      { do: type('c50', '6'), hold: 4 },
      { section: 'Coins', do: type('c20', '19'), hold: 3 },
      { do: type('c10', '24'), hold: 3 },
      { do: type('c5', '10'), hold: 4 },
      { section: 'Closing', do: point('sum'), hold: 4 },
      { do: click('close'), hold: 6 },
    ],
  },
]

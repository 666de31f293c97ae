// Draws the invented ticket-desk program from one state. A script operates it through window.desk: it points, clicks, chooses and types as
// a person would see it done, and nothing changes but by that.
import { booking, bookings, deck, hours, prices, sailings, ships, till } from './sailings.js'

const query = new URLSearchParams(location.search)
const state = {
  view: query.get('at') ?? 'start',
  dark: query.has('dark'),
  clock: query.get('clock') ?? '06:02',
  day: 'Tuesday 3 November',
  name: '',
  fields: {},
  now: null,
  over: null,
  down: null,
  open: false,
  sailing: 2,
  priced: false,
  paid: null,
  notice: false,
  printed: 0,
  found: null,
  moved: null,
  refunded: false,
  closed: false,
  scrolled: 0,
  placed: null,
  wind: query.has('wind') ? 7 : 4,
  ship: 0.12,
  picked: null,
  list: null,
  day2: false,
}
document.documentElement.className = state.dark ? 'dark' : ''

const html = String.raw
const money = (n) => n.toFixed(2)
const icons = {
  sailings: 'M2 4h14M2 9h14M2 14h9',
  sell: 'M2 5h14v8H2zM6 5v8',
  change: 'M3 6h11l-3-3M15 12H4l3 3',
  deck: 'M2 15V6l7-4 7 4v9zM9 2v13M5.5 8v5M12.5 8v5',
  map: 'M2 4l5-2 4 2 5-2v12l-5 2-4-2-5 2zM7 2v12M11 4v12',
  till: 'M3 8h12v7H3zM5 8V3h8v5',
  report: 'M3 15V9M8 15V4M13 15v-8',
}
const places = [
  ['sailings', 'Sailings'],
  ['sell', 'Sell'],
  ['change', 'Change'],
  ['deck', 'Deck'],
  ['map', 'Crossing'],
  ['till', 'Till'],
  ['report', 'Report'],
]
const _act = (id) => `id="${id}"${state.over === id ? ` data-over` : ''}`
const button = (id, text, plain) =>
  html`<button class="do${plain ? ' plain' : ''}${state.over === id ? ' over' : ''}${state.down === id ? ' down' : ''}" id="${id}">${text}</button>`
const field = (id, label) => html`<label>${label}</label><div class="field${state.now === id ? ' now' : ''}" id="${id}">${state.fields[id] ?? ''}</div>`
const pick = (id, label, usual) =>
  html`<label>${label}</label><div class="pick${state.list?.of === id ? ' now' : ''}" id="${id}">${state.fields[id] ?? usual}</div>`
const bar = (n) => html`<span class="bar ${n >= 100 ? 'full' : n >= 85 ? 'tight' : ''}"><i style="width:${n}%"></i></span>`

function timetable(short) {
  const rows = sailings.map((s, i) => {
    const past = s.state === 'sailed' && !state.day2
    const said = past ? 'sailed' : s.state.startsWith('late') && !state.day2 ? s.state : s.vehicles >= 100 ? 'full for vehicles' : 'on time'
    const look = past ? '' : said.startsWith('late') ? 'late' : said.startsWith('full') ? 'full' : 'go'
    return html`<tr id="s${i}" class="${i === state.sailing ? 'on' : ''} ${past ? 'past' : ''} ${state.over === `s${i}` ? 'over' : ''}">
      <td class="time">${s.time}</td><td>${s.to}</td>${short ? '' : `<td>${ships[s.ship].name}</td><td class="n">${s.quay}</td>`}
      <td>${bar(s.vehicles)}<span class="said">${Math.max(0, Math.round((ships[s.ship].metres * (100 - s.vehicles)) / 100))} m left</span></td>
      ${short ? '' : `<td>${bar(s.foot)}<span class="said">${Math.round(2.6 * (100 - s.foot))} left</span></td>`}
      <td class="state ${look}">${said}</td></tr>`
  })
  return html`<table id="sailings"><tr><th>Departs</th><th>To</th>${short ? '' : '<th>Ship</th><th class="n">Quay</th>'}<th>Vehicle deck</th>${short ? '' : '<th>Seats</th>'}<th></th></tr>${rows.join('')}</table>`
}

function sea(width, height) {
  const path = 'M92 214C150 190 196 150 262 128S372 84 420 70'
  const at = (t) => [92 + 328 * t, 214 - 144 * t + 22 * Math.sin(t * 3.1)]
  const [x, y] = at(state.ship)
  const wind = Array.from({ length: 15 }, (_, i) => {
    const [cx, cy] = [60 + (i % 5) * 98, 46 + Math.floor(i / 5) * 76]
    return `<g transform="translate(${cx} ${cy}) rotate(-38)" opacity=".55"><path d="M0 0h${8 + state.wind * 3.4}m-6 -4l6 4-6 4" fill="none" stroke="var(--soft)" stroke-width="1.6"/></g>`
  }).join('')
  const depth = [0, 1, 2, 3]
    .map(
      (i) =>
        `<path d="M${40 + i * 26} 0C${120 + i * 30} 90 ${70 + i * 44} 170 ${150 + i * 62} 300" fill="none" stroke="var(--line)" stroke-width="1" stroke-dasharray="3 5"/>`,
    )
    .join('')
  return html`<svg class="sea" id="chart" viewBox="0 0 520 ${Math.round((520 * height) / width)}" style="background:color-mix(in srgb, var(--sea) 16%, var(--paper))">
    ${depth}
    <path d="M0 150C40 160 70 190 84 224 96 254 70 300 60 340H0z" fill="var(--wash)" stroke="var(--soft)" />
    <path d="M520 0V150C486 132 470 96 438 84 408 74 398 40 410 0z" fill="var(--wash)" stroke="var(--soft)" />
    <path d="M300 214c22-12 52-8 58 10s-24 30-46 24-28-24-12-34z" fill="var(--wash)" stroke="var(--soft)" /><text x="312" y="234" font-size="11">The Ayre</text>
    <path d="${path}" fill="none" stroke="var(--sea)" stroke-width="2.4" stroke-dasharray="9 6" />
    <path d="M92 214C170 262 270 290 340 268S450 190 486 176" fill="none" stroke="var(--soft)" stroke-width="1.6" stroke-dasharray="4 6" />
    ${wind}
    <g transform="translate(${x} ${y}) rotate(-22)"><path id="ship" d="M-16 -6h24l10 6-10 6h-24z" fill="var(--sun)" stroke="var(--ink)" stroke-width="1.5" /></g>
    <circle cx="92" cy="214" r="5" fill="var(--ink)" /><text x="18" y="206" font-size="13" font-weight="700">Brackwater</text>
    <circle cx="420" cy="70" r="5" fill="var(--ink)" /><text x="428" y="62" font-size="13" font-weight="700">Skerry Head</text>
    <circle cx="486" cy="176" r="4" fill="var(--ink)" /><text x="436" y="196" font-size="12">Sandhaven</text>
    <g id="windmark" transform="translate(26 30)"><text font-size="13" font-weight="700">Wind south-west ${state.wind}</text><text y="18" font-size="11" fill="var(--soft)">${state.wind > 6 ? 'waves 2.5 m, gusts 8' : 'waves 0.8 m'}</text></g>
  </svg>`
}

function ticket() {
  const lines = Array.from({ length: 58 }, (_, i) => `<rect x="${i * 5}" y="0" width="${1 + ((i * 7919) % 4)}" height="44" fill="#1c2a30"/>`).join('')
  return html`<div class="ticket" id="ticket" style="max-height:${Math.round(state.printed * 330)}px">
    <b>Brackwater Ferries</b><br />Ticket 2117 · Tue 3 Nov<br /><br />
    <b class="big" id="tickettime">${sailings[state.sailing].time}</b> to ${sailings[state.sailing].to}<br />${ships[sailings[state.sailing].ship].name}, quay ${sailings[state.sailing].quay}
    <table><tr><td>${state.fields.kind ?? 'Car'}</td><td id="ticketreg" style="text-align:right"><b>${state.fields.reg ?? ''}</b></td></tr><tr><td>Lane</td><td id="lane" style="text-align:right"><b class="big">3</b></td></tr><tr><td>Paid by ${state.paid ?? 'card'}</td><td style="text-align:right">${money(total())}</td></tr></table>
    <svg viewBox="0 0 290 44">${lines}</svg><span class="fine">Be at the quay 30 minutes before. Lay this ticket behind the windscreen.</span></div>`
}

function rows() {
  const kind = state.fields.kind ?? 'Foot passenger'
  const people = Number.parseInt(state.fields.people ?? '1', 10) || 1
  const trailer = Number.parseFloat((state.fields.length ?? '').split(/\D+ /).at(-1)) || 5
  return prices[kind].map(([what, each], i) => {
    const many =
      i === 0
        ? kind === 'Foot passenger' || kind === 'Bicycle'
          ? people
          : 1
        : what.startsWith('Trailer')
          ? Math.ceil(trailer)
          : what === 'Bicycle'
            ? people
            : Math.max(0, people - 1)
    return [what, many, each, many * each]
  })
}
const total = () => rows().reduce((sum, r) => sum + r[3], 0)

const views = {
  start: () => html`<h1>Start of the shift <small>${state.day}, desk 3</small></h1>
    <div class="two"><div class="pane"><h2>Who sells, and with what</h2><div class="form">${field('name', 'Name')}${field('float', 'Float in the till')}${pick('printer', 'Printer', 'Desk 3, 80 mm')}</div>
      <p class="row">${button('open', 'Open the desk')}${button('later', 'Not yet', true)}</p>${state.open ? `<p class="notice" id="opened">The desk is open. Float ${state.fields.float}, counted by the evening shift.</p>` : ''}</div>
      <div class="pane"><h2>Handed over last night</h2><table><tr><td>Float on the yellow sheet</td><td class="n" id="sheet">150.00</td></tr><tr><td>Ticket roll</td><td class="n">62 %</td></tr><tr><td>Card reader</td><td class="state go">ready</td></tr><tr><td>Notices</td><td>1, weather</td></tr></table></div></div>
    <div class="pane" style="padding:0">${timetable()}</div>`,
  sailings:
    () => html`<h1>Sailings <small>${state.day2 ? 'Wednesday 4 November' : state.day}</small>${button('tomorrow', state.day2 ? 'Today' : 'Tomorrow', true)}</h1>
    <div class="two" style="grid-template-columns:minmax(0,2.5fr) minmax(0,1fr)"><div class="pane narrow" style="padding:0">${timetable()}</div>
    <div class="pane"><h2 id="chosen">${sailings[state.sailing].time} to ${sailings[state.sailing].to}</h2>${sea(360, 230)}<table><tr><td>Crossing</td><td class="n">${sailings[state.sailing].to === 'Skerry Head' ? '1 h 05' : '50 min'}</td></tr><tr><td>Vehicles booked</td><td class="n">${Math.round(sailings[state.sailing].vehicles * 0.34)}</td></tr><tr><td>Foot passengers</td><td class="n">${Math.round(sailings[state.sailing].foot * 2.6)}</td></tr><tr><td>Desk closes</td><td class="n" id="closes">${sailings[state.sailing].time.replace(/(\d+):(\d+)/, (_, h, m) => `${String(Number(h) - (Number(m) < 15 ? 1 : 0)).padStart(2, '0')}:${String((Number(m) + 45) % 60).padStart(2, '0')}`)}</td></tr></table>${button('sellit', 'Sell for this sailing')}</div></div>`,
  sell: () => html`<h1>Booking 2117 <small>${sailings[state.sailing].time} to ${sailings[state.sailing].to}, ${ships[sailings[state.sailing].ship].name}</small></h1>
    ${state.notice ? `<div class="notice bad" id="weather"><b>Weather notice.</b> Wind south-west 7 from ten o’clock: the 11:05 may be late, by up to an hour. High vehicles are not taken.</div>` : ''}
    <div class="two"><div class="pane"><div class="form">${pick('kind', 'Kind', 'Foot passenger')}${field('reg', 'Registration')}${field('length', 'Length in metres')}${field('people', 'People')}${state.paid === 'account' || state.fields.acc !== undefined || state.now === 'acc' ? field('acc', 'Account number') : ''}</div>
      <p class="row">${button('price', 'Show the price')}${button('note', 'Weather notice', true)}</p>
      ${
        state.priced
          ? html`<table id="rows"><tr><th>What</th><th class="n">Many</th><th class="n">Each</th><th class="n">Sum</th></tr>${rows()
              .map(
                (r, i) =>
                  `<tr id="price${i}"><td>${r[0]}</td><td class="n">${r[1]}</td><td class="n">${money(r[2])}</td><td class="n">${money(r[3])}</td></tr>`,
              )
              .join('')}</table>
      <p class="row"><span class="sum" id="total">${money(total())}</span><span class="grow"></span>${button('card', 'Card')}${button('cash', 'Cash', true)}${button('account', 'Account', true)}</p><p class="fine" id="small">Can be changed until two hours before departure without a charge, and once after that for 6.00. Not used and not changed, it is worth half for seven days. Prices hold for today.</p>`
          : ''
      }</div>
      <div>${state.printed > 0 ? ticket() : html`<div class="pane narrow" style="padding:0">${timetable(true)}</div>`}</div></div>`,
  change:
    () => html`<h1>Change or refund</h1><div class="two"><div class="pane"><div class="row"><div class="field${state.now === 'find' ? ' now' : ''}" id="find" style="width:220px">${state.fields.find ?? ''}</div>${button('look', 'Find')}</div>
      <table id="found" style="margin-top:12px"><tr><th>Number</th><th>Name</th><th>Sailing</th><th>Kind</th><th class="n">Paid</th></tr>${bookings
        .filter((b) => !state.found || b[0] === state.found)
        .map(
          (b) =>
            `<tr id="b${b[0]}" class="${state.found === b[0] ? 'on' : ''}"><td>${b[0]}</td><td>${b[1]}</td><td>${b[0] === '2117' && state.moved ? state.moved : b[2]}</td><td>${b[3]}</td><td class="n">${b[4]}</td></tr>`,
        )
        .join('')}</table></div>
      <div class="pane">${
        state.found
          ? html`<h2>Booking 2117, ${booking.name}</h2><table><tr><td>${booking.kind}</td><td class="n">${booking.reg}</td></tr><tr><td>People</td><td class="n">${booking.people}</td></tr><tr><td>Paid, ${booking.by}</td><td class="n">${money(booking.paid)}</td></tr></table>
        <p class="form" style="margin-top:12px">${pick('to', 'Other sailing', '11:05 Skerry Head')}</p>
        <p class="row">${button('move', 'Change the sailing')}${button('back', 'Refund', true)}</p>
        ${state.moved ? `<p class="notice" id="movedto">Now on the ${state.moved}. No charge: more than two hours before departure.</p>` : ''}
        ${state.refunded ? html`<div class="notice" id="done"><table><tr><td>Paid</td><td class="n">${money(booking.paid)}</td></tr><tr><td>Kept</td><td class="n">0.00</td></tr><tr><td><b>To card ending 0417</b></td><td class="n"><b>${money(booking.paid)}</b></td></tr></table><span class="said">On the card in three to five working days.</span></div>` : ''}`
          : html`<h2>Find a booking</h2><p class="said">Type the number on the ticket, or a name.</p>${sea(360, 300)}`
      }</div></div>
    ${state.found ? html`<div class="pane" style="padding:0">${timetable()}</div>` : ''}`,
  deck: () => {
    const [x0, scale] = [66, 10.6]
    let _taken = 0
    const lanes = deck.map((lane, l) => {
      let at = 0
      const cars = lane.map(([reg, metres, kind]) => {
        const x = x0 + at * scale
        at += metres + 0.5
        _taken += metres
        const colour = { car: '#2f7890', van: '#57789a', coach: 'var(--go)', trailer: '#8a6a2f', lorry: 'var(--full)' }[kind]
        const on = state.picked === reg || state.over === `v${reg.replaceAll(' ', '')}`
        return html`<g id="v${reg.replaceAll(' ', '')}"><rect x="${x}" y="${52 + l * 52}" width="${metres * scale}" height="36" rx="5" fill="${colour}" stroke="${on ? 'var(--sun)' : 'var(--line)'}" stroke-width="${on ? 3.5 : 1}" /><text x="${x + (metres * scale) / 2}" y="${74 + l * 52}" font-size="9.5" text-anchor="middle" style="fill:#fff">${metres > 5 ? reg : reg.slice(0, 5)}</text></g>`
      })
      if (state.placed === l) {
        const x = x0 + at * scale
        cars.push(
          html`<g id="new"><rect x="${x}" y="${52 + l * 52}" width="${4.6 * scale}" height="36" rx="5" fill="var(--sun)" stroke="var(--ink)" /><text x="${x + 24}" y="${74 + l * 52}" font-size="9.5" text-anchor="middle" style="fill:#1c1c10">BW 64</text></g>`,
        )
      }
      return html`<text x="30" y="${75 + l * 52}" font-size="14" font-weight="700">${l + 1}</text><rect id="lane${l + 1}" x="${x0 - 4}" y="${48 + l * 52}" width="456" height="44" fill="none" stroke="var(--line)" stroke-dasharray="5 4" />${cars.join('')}<text x="536" y="${75 + l * 52}" font-size="11.5" text-anchor="end" id="free${l + 1}">${(42 - at).toFixed(1)} m</text>`
    })
    return html`<h1>Deck plan <small>08:45 to Skerry Head, MV Tern · ${state.placed === null ? 13 : 14} vehicles</small></h1>
      <div class="two" style="grid-template-columns:minmax(0,2.3fr) minmax(0,1fr)"><svg class="plan" viewBox="0 0 600 288"><path d="M12 40h500q60 0 76 106-16 112-76 112H12z" fill="var(--wash)" stroke="var(--soft)" stroke-width="2" /><text x="14" y="24" font-size="11.5" fill="var(--soft)">stern ramp</text><text x="560" y="24" font-size="11.5" text-anchor="end" fill="var(--soft)">bow door</text>${lanes.join('')}</svg>
      <div><div class="pane"><h2>${state.picked ?? 'Next in the queue'}</h2><table id="next"><tr><td>${state.picked ? 'Lane 4, first' : 'BW 64 LIM'}</td><td class="n">${state.picked ? '15.4 m' : '4.6 m'}</td></tr><tr><td>Weight</td><td class="n">${state.picked ? '26.0 t' : '1.6 t'}</td></tr><tr><td>${state.picked ? 'Lashed' : 'People'}</td><td class="n">${state.picked ? '4 chains' : '2'}</td></tr></table><p class="row">${button('place', 'Place in lane 2')}</p></div>
      <div class="pane" style="margin-top:12px"><h2>Balance</h2><svg viewBox="0 0 200 44" style="width:100%"><path d="M10 30h180" stroke="var(--soft)" /><circle id="balance" cx="${state.placed === null ? 112 : 103}" cy="30" r="8" fill="var(--sun)" /><path d="M100 14v24" stroke="var(--ink)" /></svg><span class="said">${state.placed === null ? '1.8 t to starboard' : '0.6 t to starboard'}, allowed 3</span></div></div></div>
      <div class="pane" style="padding:0"><table id="loading"><tr><th>Registration</th><th>Kind</th><th class="n">Metres</th><th class="n">Lane</th><th>Scanned</th></tr>${deck
        .flatMap((lane, l) =>
          lane
            .slice(0, 2)
            .map(
              ([reg, m, kind]) =>
                `<tr id="row${reg.replaceAll(' ', '')}"><td>${reg}</td><td>${kind}</td><td class="n">${m.toFixed(1)}</td><td class="n">${l + 1}</td><td class="state go">08:${(11 + l * 3).toString().padStart(2, '0')}</td></tr>`,
            ),
        )
        .slice(0, 6)
        .join('')}</table></div>`
  },
  map: () => html`<h1>Crossing <small>MV Tern, ${state.ship > 0.9 ? 'arriving at Skerry Head' : state.ship < 0.1 ? 'at quay 2' : 'under way to Skerry Head'}</small></h1>
    ${state.notice ? `<div class="notice bad" id="weather"><b>Gale warning.</b> South-west 8 expected in the North Sound by 14:00. Master decides at 12:30.</div>` : ''}
    <div class="two" style="grid-template-columns:minmax(0,2.2fr) minmax(0,1fr)">${sea(520, 330)}<div class="pane"><h2>Now</h2><table id="seastate"><tr><td>Speed</td><td class="n">${state.ship > 0.05 && state.ship < 0.95 ? '14.2 kn' : '0.0 kn'}</td></tr><tr><td>Way left</td><td class="n">${((1 - state.ship) * 15.4).toFixed(1)} nm</td></tr><tr><td>Arrives</td><td class="n">${state.wind > 6 ? '10:12' : '09:50'}</td></tr><tr><td>Wind</td><td class="n">SW ${state.wind}</td></tr><tr><td>Waves</td><td class="n">${state.wind > 6 ? '2.5 m' : '0.8 m'}</td></tr></table><p class="row">${button('note', state.notice ? 'Close the notice' : 'Open the notice')}${button('call', 'Tell the desks', true)}</p>${state.closed ? `<p class="notice" id="told">Desks 1 to 4 and both quays have been told at ${state.clock}.</p>` : ''}</div></div>
    <div class="grid4"><div class="fact"><span>Mooring lines</span><b>4 of 6</b></div><div class="fact"><span>Passengers on board</span><b>141</b></div><div class="fact"><span>Vehicles lashed</span><b id="lashed">${state.wind > 6 ? '14 of 14' : '0 of 14'}</b></div><div class="fact"><span>Bow door</span><b>shut</b></div></div>
    <div class="pane" style="padding:0">${timetable()}</div>`,
  till: () => {
    const counted = till.map(([value], i) => Number(value) * (Number(state.fields[`c${i}`]) || 0))
    const sum = counted.reduce((a, b) => a + b, 0)
    return html`<h1>Closing the till <small>desk 3, ${state.day}</small></h1><div class="two"><div class="pane" style="padding:0"><table><tr><th>Note or coin</th><th>How many</th><th class="n">Comes to</th></tr>${till.map(([value], i) => `<tr id="t${i}"><td class="time">${value}</td><td><div class="field${state.now === `c${i}` ? ' now' : ''}" id="c${i}" style="width:130px">${state.fields[`c${i}`] ?? ''}</div></td><td class="n">${counted[i] ? money(counted[i]) : '–'}</td></tr>`).join('')}</table></div>
      <div class="pane"><h2>Against the day</h2><table><tr><td>Float of the morning</td><td class="n">150.00</td></tr><tr><td>Sold for cash</td><td class="n">444.40</td></tr><tr><td>Should be there</td><td class="n">594.40</td></tr><tr><td><b>Counted</b></td><td class="n" id="sum"><b>${money(sum)}</b></td></tr><tr><td>Difference</td><td class="n" id="differs">${sum > 300 ? money(sum - 594.4).replace('-', '−') : '–'}</td></tr></table><p class="row">${button('close', 'Close the till')}</p>${state.closed ? `<p class="notice" id="closed">Closed at ${state.clock}. The sheet is printed; put it into the bag.</p>` : ''}
      <svg class="chart" viewBox="0 0 320 120">${till.map(([value], i) => `<rect x="${14 + i * 38}" y="${100 - Math.min(90, counted[i] * 0.4)}" width="26" height="${Math.min(90, counted[i] * 0.4)}" fill="var(--sea)" /><text x="${27 + i * 38}" y="114" font-size="9.5" text-anchor="middle">${value}</text>`).join('')}</svg></div></div>`
  },
  report: () => {
    const sold = hours.reduce((a, h) => a + h[1] + h[2], 0)
    const shown = state.picked
    const bars = hours.map(([h, vehicles, foot], i) => {
      const [a, b] = [vehicles * 0.26, foot * 0.26]
      return html`<g id="h${h}"><rect x="${44 + i * 56}" y="${232 - a}" width="34" height="${a}" fill="${shown === h ? 'var(--sun)' : 'var(--sea)'}" /><rect x="${44 + i * 56}" y="${232 - a - b}" width="34" height="${b}" fill="${shown === h ? '#d9a01d' : '#7fa6b4'}" /><text x="${61 + i * 56}" y="250" font-size="11" text-anchor="middle">${h}</text></g>`
    })
    return html`<h1>Report <small>${state.day}, all desks</small></h1>
      <div class="grid4"><div class="fact" id="f0"><span>Sold</span><b>${sold.toLocaleString('en-GB')}.00</b></div><div class="fact" id="f1"><span>Tickets</span><b>412</b></div><div class="fact" id="f2"><span>Vehicle deck, all sailings</span><b>69 %</b></div><div class="fact" id="f3"><span>Late</span><b>1 of 11</b></div></div>
      <div class="two" style="grid-template-columns:minmax(0,2fr) minmax(0,1fr)"><svg class="chart" viewBox="0 0 740 262">${[0, 1, 2, 3].map((i) => `<path d="M38 ${232 - i * 65}h690" stroke="var(--line)" /><text x="32" y="${236 - i * 65}" font-size="10" text-anchor="end">${i * 250}</text>`).join('')}${bars.join('')}<text x="48" y="22" font-size="12">Sold each hour: vehicles below, foot passengers above</text></svg>
      <div class="pane"><h2>${shown ? `From ${shown}:00 to ${Number(shown) + 1}:00` : 'By sailing'}</h2><table id="bysailing">${
        shown
          ? hours
              .filter((h) => h[0] === shown)
              .map(
                (h) =>
                  `<tr><td>Vehicles</td><td class="n">${h[1]}.00</td></tr><tr><td>Foot passengers</td><td class="n">${h[2]}.00</td></tr><tr><td><b>Together</b></td><td class="n"><b>${h[1] + h[2]}.00</b></td></tr>`,
              )
              .join('')
          : sailings
              .slice(0, 7)
              .map((s) => `<tr><td class="time">${s.time}</td><td>${bar(s.vehicles)}</td><td class="n">${s.vehicles} %</td></tr>`)
              .join('')
      }</table></div></div>
      <div class="pane" style="padding:0"><table id="desks"><tr><th>Desk</th><th>Sold by</th><th class="n">Tickets</th><th class="n">Card</th><th class="n">Cash</th><th class="n">Difference</th></tr><tr id="d1"><td>1</td><td>A. Quill</td><td class="n">131</td><td class="n">2,204.60</td><td class="n">388.20</td><td class="n">0.00</td></tr><tr id="d2"><td>2</td><td>T. Brook</td><td class="n">118</td><td class="n">1,990.00</td><td class="n">402.10</td><td class="n">−0.50</td></tr><tr id="d3"><td>3</td><td>M. Tarn</td><td class="n">163</td><td class="n">2,380.70</td><td class="n">444.40</td><td class="n">0.00</td></tr></table></div>`
  },
}

function draw() {
  document.getElementById('nav').innerHTML = places
    .map(
      ([id, name]) =>
        html`<button id="go-${id}" class="${state.view === id ? 'on' : ''}"><svg viewBox="0 0 18 18"><path d="${icons[id]}" /></svg>${name}</button>`,
    )
    .join('')
  document.getElementById('where').textContent = state.dark ? 'Deck tablet' : 'Brackwater, ticket hall'
  document.getElementById('tide').textContent = 'High water 09:18, 4.1 m'
  document.getElementById('who').textContent = state.open ? state.fields.name : state.dark ? 'Deck crew' : 'Desk 3'
  document.getElementById('clock').textContent = state.clock
  document.getElementById('main').innerHTML = views[state.view]()
  const list = document.getElementById('list')
  list.hidden = !state.list
  if (state.list) {
    const box = document.getElementById(state.list.of).getBoundingClientRect()
    Object.assign(list.style, { left: `${box.x}px`, top: `${box.bottom}px`, width: `${box.width}px` })
    list.innerHTML = state.list.items.map((item, i) => html`<div id="o${i}" class="${state.over === `o${i}` ? 'over' : ''}">${item}</div>`).join('')
  }
}

const choices = {
  kind: () => Object.keys(prices),
  to: () => sailings.slice(4, 9).map((s) => `${s.time} ${s.to}`),
  printer: () => ['Desk 3, 80 mm', 'Desk 2, 80 mm', 'Office'],
}
const presses = {
  open: () => Object.assign(state, { open: true }),
  price: () => Object.assign(state, { priced: true }),
  note: () => Object.assign(state, { notice: !state.notice }),
  card: () => Object.assign(state, { paid: 'card' }),
  cash: () => Object.assign(state, { paid: 'cash' }),
  account: () => Object.assign(state, { paid: 'account' }),
  look: () => Object.assign(state, { found: state.fields.find }),
  move: () => Object.assign(state, { moved: state.fields.to ?? '13:55 Skerry Head' }),
  back: () => Object.assign(state, { refunded: true }),
  close: () => Object.assign(state, { closed: true }),
  call: () => Object.assign(state, { closed: true }),
  place: () => Object.assign(state, { placed: 1 }),
  sellit: () => Object.assign(state, { view: 'sell' }),
  tomorrow: () => Object.assign(state, { day2: !state.day2 }),
}

window.desk = {
  /** What the page is called, as it stands on it. */
  heading: () => [...document.querySelector('#main h1').childNodes].find((n) => n.nodeType === Node.TEXT_NODE)?.textContent.trim() ?? '',
  /** What the pointer is over. */
  over(id) {
    if (state.over === id) return
    state.over = id
    draw()
  },
  pointer(x, y) {
    document.getElementById('pointer').style.transform = `translate(${x.toFixed(1)}px, ${y.toFixed(1)}px)`
  },
  down(id) {
    state.down = id
    draw()
  },
  press(id) {
    state.down = null
    if (id.startsWith('go-')) Object.assign(state, { view: id.slice(3), now: null })
    else if (/^s\d+$/.test(id)) state.sailing = Number(id.slice(1))
    else if (/^o\d+$/.test(id)) {
      state.fields[state.list.of] = state.list.items[Number(id.slice(1))]
      if (state.list.of === 'kind') Object.assign(state, { priced: false })
      state.list = null
    } else if (/^h\d\d$/.test(id)) state.picked = state.picked === id.slice(1) ? null : id.slice(1)
    else if (id === 'vFR88LOG') state.picked = state.picked ? null : 'FR 88 LOG'
    else if (choices[id]) state.list = { of: id, items: choices[id]() }
    else if (presses[id]) presses[id]()
    else state.now = id
    draw()
  },
  /** Sets the text of the field that is typed in. */
  text(id, value) {
    state.now = id
    state.fields[id] = value
    draw()
  },
  set(values) {
    Object.assign(state, values)
    draw()
  },
}
draw()

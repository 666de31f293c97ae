// The invented company's day: sailings, bookings, what stands on deck, what is in the till. Figures are made up.
export const ships = {
  tern: { name: 'MV Tern', lanes: 4, metres: 168 },
  plover: { name: 'MV Plover', lanes: 5, metres: 236 },
}
const sailing = (time, to, ship, vehicles, foot, state = '') => ({ time, to, ship, vehicles, foot, state, quay: to === 'Skerry Head' ? 2 : 4 })
export const sailings = [
  sailing('06:15', 'Skerry Head', 'tern', 41, 38, 'sailed'),
  sailing('07:30', 'Sandhaven', 'plover', 78, 96, 'sailed'),
  sailing('08:45', 'Skerry Head', 'tern', 86, 54),
  sailing('09:40', 'Sandhaven', 'plover', 63, 71),
  sailing('11:05', 'Skerry Head', 'tern', 100, 88, 'late 20 min'),
  sailing('12:30', 'Sandhaven', 'plover', 92, 64),
  sailing('13:55', 'Skerry Head', 'tern', 58, 42),
  sailing('15:20', 'Sandhaven', 'plover', 100, 81),
  sailing('16:45', 'Skerry Head', 'tern', 74, 90),
  sailing('18:10', 'Sandhaven', 'plover', 47, 35),
  sailing('19:40', 'Skerry Head', 'tern', 22, 18),
]
export const prices = {
  'Foot passenger': [['Adult', 8.4]],
  Bicycle: [
    ['Adult', 8.4],
    ['Bicycle', 3],
  ],
  Car: [
    ['Car up to 5 m, driver included', 42],
    ['Passenger', 6.8],
  ],
  'Car and trailer': [
    ['Car up to 5 m, driver included', 42],
    ['Trailer, each metre begun', 7.5],
    ['Passenger', 6.8],
  ],
  Coach: [
    ['Coach up to 12 m, driver included', 118],
    ['Passenger, group', 4.9],
  ],
}
export const booking = {
  number: '2117',
  name: 'I. Sallow',
  kind: 'Car',
  reg: 'BW 41 TRN',
  sailing: '11:05 Skerry Head',
  people: 3,
  paid: 55.6,
  by: 'card ending 0417',
}
export const bookings = [
  ['2113', 'F. Wick', '08:45 Skerry Head', 'Car', '48.80'],
  ['2114', 'Harbour School', '09:40 Sandhaven', 'Coach', '265.00'],
  ['2115', 'L. Marsh', '11:05 Skerry Head', 'Bicycle', '11.40'],
  ['2116', 'P. Dunnock', '11:05 Skerry Head', 'Car and trailer', '94.80'],
  ['2117', 'I. Sallow', '11:05 Skerry Head', 'Car', '55.60'],
  ['2118', 'Quill & Reed Ltd', '12:30 Sandhaven', 'Van', '61.00'],
  ['2119', 'A. Teasel', '13:55 Skerry Head', 'Foot passenger', '16.80'],
]
export const till = [
  ['50.00', 2],
  ['20.00', 11],
  ['10.00', 8],
  ['5.00', 6],
  ['2.00', 19],
  ['1.00', 24],
  ['0.50', 10],
  ['0.20', 32],
]
// Lane by lane from the port side: registration, metres, what it is.
export const deck = [
  [
    ['RW 18 ELM', 4.2, 'car'],
    ['BW 77 OAK', 4.6, 'car'],
    ['SK 02 FIR', 5.4, 'van'],
    ['BW 12 ASH', 4.1, 'car'],
    ['RW 55 YEW', 4.4, 'car'],
  ],
  [
    ['HS 01 BUS', 11.8, 'coach'],
    ['BW 30 BAY', 4.3, 'car'],
    ['SK 61 GUM', 4.5, 'car'],
  ],
  [
    ['BW 41 TRN', 4.6, 'car'],
    ['RW 23 HAW', 9.8, 'trailer'],
    ['SK 19 IVY', 4.2, 'car'],
  ],
  [
    ['FR 88 LOG', 15.4, 'lorry'],
    ['BW 09 SED', 4.4, 'car'],
  ],
]
// What was sold each hour, by kind, in the house's money.
export const hours = [
  ['06', 214, 96],
  ['07', 402, 188],
  ['08', 517, 231],
  ['09', 388, 264],
  ['10', 296, 142],
  ['11', 451, 305],
  ['12', 333, 287],
  ['13', 268, 121],
  ['14', 402, 168],
  ['15', 489, 244],
  ['16', 371, 310],
  ['17', 190, 133],
]

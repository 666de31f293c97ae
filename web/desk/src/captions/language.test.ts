import { expect, test } from 'vitest'
import { otherLanguage } from './language'

const english = 'Up to two hours before departure the sailing can be changed without a charge. A refund goes to the card that paid.'
const spanish = 'Hasta dos horas antes de la salida el viaje se puede cambiar sin coste. El dinero vuelve a la tarjeta con la que se pagó.'
const german = 'Bis zwei Stunden vor der Abfahrt kann die Überfahrt ohne Gebühr geändert werden. Das Geld geht auf die Karte zurück.'

test.each([
  [english, 'en-GB', undefined],
  [english, 'es', 'en'],
  [spanish, 'en-GB', 'es'],
  [spanish, 'es-MX', undefined],
  [german, 'en', 'de'],
  [german, 'de-AT', undefined],
  ['Press it.', 'es', undefined],
  ['', 'en', undefined],
])('of “%s”, set to %s, the other language is %s', (text, set, other) => expect(otherLanguage(text, set)).toBe(other))

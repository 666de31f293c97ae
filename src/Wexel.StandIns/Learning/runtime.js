// The run-time API of SCORM 1.2 (Run-Time Environment, sections 3.3 and 3.4): the mandatory data model, its types and error codes; and single answers
// (section 3.4.7), which are optional.
;(() => {
  const start = JSON.parse(document.getElementById('start').textContent)
  const errors = {
    0: 'No error',
    101: 'General exception',
    201: 'Invalid argument error',
    202: 'Element cannot have children',
    203: 'Element not an array - cannot have count',
    301: 'Not initialized',
    401: 'Not implemented error',
    402: 'Invalid set value, element is a keyword',
    403: 'Element is read only',
    404: 'Element is write only',
    405: 'Incorrect data type',
  }
  const string = (most) => (v) => v.length <= most
  const oneOf = (...words) => (v) => words.includes(v)
  const decimal = (v) => v === '' || (/^-?\d+(\.\d+)?$/.test(v) && v >= 0 && v <= 100)
  const timespan = (v) => /^\d{2,4}:[0-5]\d:[0-5]\d(\.\d{1,2})?$/.test(v)
  const children = {
    'cmi.core': 'student_id,student_name,lesson_location,credit,lesson_status,entry,score,total_time,lesson_mode,exit,session_time',
    'cmi.core.score': 'raw,min,max',
    'cmi.interactions': 'id,objectives,time,type,correct_responses,weighting,student_response,result,latency',
  }
  const kinds = oneOf('true-false', 'choice', 'fill-in', 'matching', 'performance', 'sequencing', 'likert', 'numeric')
  const interaction = {
    id: string(255),
    time: (v) => /^([01]\d|2[0-3]):[0-5]\d:[0-5]\d(\.\d{1,2})?$/.test(v),
    type: kinds,
    weighting: (v) => /^-?\d+(\.\d+)?$/.test(v),
    student_response: string(255),
    result: (v) => ['correct', 'wrong', 'unanticipated', 'neutral'].includes(v) || /^-?\d+(\.\d+)?$/.test(v),
    latency: timespan,
    'correct_responses.n.pattern': string(255),
    'objectives.n.id': string(255),
  }
  /** What an element of a single answer is: which answer, and what it takes; undefined for what is none. */
  function ofInteraction(name) {
    const [, n, rest] = /^cmi\.interactions\.(0|[1-9]\d*)\.(.+)$/.exec(name) ?? []
    const takes = rest && interaction[rest.replace(/\.(0|[1-9]\d*)\./, '.n.')]
    return takes ? { n: Number(n), takes } : undefined
  }
  const interactions = () => new Set(Object.keys(values).flatMap((name) => ofInteraction(name)?.n ?? [])).size
  const model = {
    'cmi.core.student_id': { reads: true },
    'cmi.core.student_name': { reads: true },
    'cmi.core.lesson_location': { reads: true, takes: string(255) },
    'cmi.core.credit': { reads: true },
    'cmi.core.lesson_status': { reads: true, takes: oneOf('passed', 'completed', 'failed', 'incomplete', 'browsed', 'not attempted') },
    'cmi.core.entry': { reads: true },
    'cmi.core.score.raw': { reads: true, takes: decimal },
    'cmi.core.score.min': { reads: true, takes: decimal },
    'cmi.core.score.max': { reads: true, takes: decimal },
    'cmi.core.total_time': { reads: true },
    'cmi.core.lesson_mode': { reads: true },
    'cmi.core.exit': { takes: oneOf('time-out', 'suspend', 'logout', '') },
    'cmi.core.session_time': { takes: timespan },
    'cmi.suspend_data': { reads: true, takes: string(4096) },
    'cmi.launch_data': { reads: true },
    'cmi.comments': { reads: true, takes: string(4096) },
    'cmi.comments_from_lms': { reads: true },
  }

  const first = {
    'cmi.core.lesson_status': 'not attempted',
    'cmi.core.entry': 'ab-initio',
    'cmi.core.total_time': '0000:00:00.00',
  }
  const values = { ...first, ...start.kept.elements }
  const log = start.kept.log ?? []
  let state = 'before'
  let error = '0'
  let statusSet = false
  let kept = 0
  values['cmi.core.student_id'] = start.pupil.id
  values['cmi.core.student_name'] = start.pupil.name
  values['cmi.core.lesson_mode'] = start.mode
  values['cmi.core.credit'] = start.mode === 'normal' ? 'credit' : 'no-credit'
  delete values['cmi.core.exit']
  delete values['cmi.core.session_time']

  function keep() {
    // Two that are sent while the page goes away may come in any order: each says which it is.
    const body = JSON.stringify({ elements: values, log: log.slice(-500), launch: start.launch, number: ++kept })
    try {
      const request = new XMLHttpRequest()
      request.open('POST', start.keepAt, false)
      request.setRequestHeader('Content-Type', 'application/json')
      request.send(body)
      return request.status < 300
    } catch {
      // While the page goes away only a beacon gets out.
      return navigator.sendBeacon(start.keepAt, new Blob([body], { type: 'application/json' }))
    }
  }
  const seconds = (v) => v.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)
  const written = (s) =>
    `${String(Math.floor(s / 3600)).padStart(4, '0')}:${String(Math.floor(s / 60) % 60).padStart(2, '0')}:${(s % 60).toFixed(2).padStart(5, '0')}`

  const calls = {
    LMSInitialize(argument) {
      if (argument !== '') return [201, 'false']
      if (state !== 'before') return [101, 'false']
      state = 'open'
      return [0, 'true']
    },
    LMSFinish(argument) {
      if (state !== 'open') return [301, 'false']
      if (argument !== '') return [201, 'false']
      state = 'finished'
      if (values['cmi.core.session_time']) values['cmi.core.total_time'] = written(seconds(values['cmi.core.total_time']) + seconds(values['cmi.core.session_time']))
      if (!statusSet && values['cmi.core.lesson_status'] === 'not attempted' && start.mode === 'normal') values['cmi.core.lesson_status'] = 'completed'
      values['cmi.core.entry'] = values['cmi.core.exit'] === 'suspend' ? 'resume' : ''
      return [keep() ? 0 : 101, 'true']
    },
    LMSCommit(argument) {
      if (state !== 'open') return [301, 'false']
      if (argument !== '') return [201, 'false']
      // Should the lesson never get to say goodbye, it is resumed.
      values['cmi.core.entry'] = 'resume'
      return keep() ? [0, 'true'] : [101, 'false']
    },
    LMSGetValue(element) {
      if (state !== 'open') return [301, '']
      const name = String(element)
      const parent = name.replace(/\._(children|count)$/, '')
      if (name.endsWith('._children')) return children[parent] ? [0, children[parent]] : [model[parent] ? 202 : 401, '']
      if (name === 'cmi.interactions._count') return [0, String(interactions())]
      if (name.endsWith('._count')) return [model[parent] || children[parent] ? 203 : 401, '']
      if (name === 'cmi._version') return [0, '3.4']
      if (ofInteraction(name)) return [404, '']
      const known = model[name]
      if (!known) return [/^cmi\.(objectives|student_data|student_preference|interactions)/.test(name) ? 401 : 201, '']
      return known.reads ? [0, values[name] ?? ''] : [404, '']
    },
    LMSSetValue(element, value) {
      if (state !== 'open') return [301, 'false']
      const name = String(element)
      if (/\._(children|count|version)$/.test(name)) return [402, 'false']
      const answer = ofInteraction(name)
      if (answer) {
        if (answer.n > interactions()) return [201, 'false']
        if (typeof value !== 'string' || !answer.takes(value)) return [405, 'false']
        values[name] = value
        return [0, 'true']
      }
      const known = model[name]
      if (!known) return [/^cmi\.(objectives|student_data|student_preference|interactions)/.test(name) ? 401 : 201, 'false']
      if (!known.takes) return [403, 'false']
      if (typeof value !== 'string' || !known.takes(value)) return [405, 'false']
      if (name === 'cmi.comments') values[name] = (values[name] ?? '') + value
      else values[name] = value
      if (name === 'cmi.core.lesson_status') statusSet = true
      return [0, 'true']
    },
  }

  window.API = Object.fromEntries(
    Object.entries(calls).map(([name, call]) => [
      name,
      (...given) => {
        const entry = { call: `${name}(${given.map((g) => JSON.stringify(g)).join(', ')})`, answer: '', error: '0' }
        log.push(entry)
        const [code, answer] = call(...given)
        error = String(code)
        Object.assign(entry, { answer, error })
        return answer
      },
    ]),
  )
  window.API.LMSGetLastError = () => error
  window.API.LMSGetErrorString = (code) => errors[code] ?? ''
  window.API.LMSGetDiagnostic = (code) => errors[code === '' ? error : code] ?? ''

  document.addEventListener('click', (event) => {
    if (event.target.id === 'open') window.open(start.page, 'lesson', 'width=1100,height=760')
  })
})()

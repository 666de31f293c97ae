// What a suite came to: "passed failed skipped" on standard output, and each test with its seconds on standard error, those that failed marked so.
// Usage: node tests/counts.mjs xunit|json FILE SUITE. A test that passed only when it was tried again has failed.
import { readFileSync } from 'node:fs'

const [kind, file, suite] = process.argv.slice(2)
const text = readFileSync(file, 'utf8')
const outcomes = { passed: 0, failed: 0, skipped: 0 }

function tell(outcome, seconds, name) {
  outcomes[outcome]++
  console.error(`${seconds.toFixed(1)} ${suite}: ${name}${outcome === 'failed' ? ' FAILED' : ''}`)
}

function attribute(tag, name) {
  const value = new RegExp(` ${name}="([^"]*)"`).exec(tag)?.[1] ?? ''
  return value.replaceAll('&quot;', '"').replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&amp;', '&')
}

function playwright(node, file) {
  for (const spec of node.specs ?? [])
    for (const { status, results } of spec.tests) {
      const seconds = results.reduce((sum, result) => sum + result.duration, 0) / 1000
      tell(status === 'expected' ? 'passed' : status === 'skipped' ? 'skipped' : 'failed', seconds, `${file}: ${spec.title}`)
    }
  for (const inner of node.suites ?? []) playwright(inner, file)
}

if (kind === 'xunit') {
  for (const [tag] of text.matchAll(/<test [^>]*>/g)) {
    const result = attribute(tag, 'result')
    tell(
      result === 'Pass' ? 'passed' : result === 'Skip' || result === 'NotRun' ? 'skipped' : 'failed',
      Number(attribute(tag, 'time')),
      attribute(tag, 'name').replace(/^Wexel\.\w+\.Tests\./, ''),
    )
  }
  // What failed outside a test, such as while something for several of them was cleared away.
  for (const _ of text.matchAll(/<error[ >]/g)) tell('failed', 0, 'outside a test')
} else {
  const report = JSON.parse(text)
  if (report.stats) for (const suiteOfFile of report.suites) playwright(suiteOfFile, suiteOfFile.file)
  else
    for (const { assertionResults } of report.testResults)
      for (const { status, duration, fullName } of assertionResults)
        tell(status === 'passed' ? 'passed' : status === 'failed' ? 'failed' : 'skipped', (duration ?? 0) / 1000, fullName)
  for (const _ of report.errors ?? []) tell('failed', 0, 'outside a test')
}
console.log(`${outcomes.passed} ${outcomes.failed} ${outcomes.skipped}`)

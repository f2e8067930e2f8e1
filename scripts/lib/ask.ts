import { createInterface } from 'node:readline'
import { Writable } from 'node:stream'
import { Stop } from './say'

export type Question = { text: string; hidden?: boolean }

/** Asks one thing after another, in a terminal or of a pipe; a pipe that ends too early says what was missing. */
export async function asked(questions: readonly Question[]): Promise<string[]> {
  const isTerminal = process.stdin.isTTY === true
  let isHidden = false
  const output = new Writable({
    write: (chunk, _, done) => {
      if (!isHidden) process.stdout.write(chunk)
      done()
    },
  })
  const lines = createInterface({ input: process.stdin, ...(isTerminal ? { output, terminal: true } : {}) })
  const answers: string[] = []
  const ask = (question: Question): void => {
    isHidden = false
    lines.setPrompt(isTerminal ? question.text : '')
    lines.prompt()
    isHidden = question.hidden === true
  }
  ask(questions[0]!)
  for await (const line of lines) {
    if (isTerminal && isHidden) process.stdout.write('\n')
    answers.push(line)
    const next = questions[answers.length]
    if (next === undefined) break
    ask(next)
  }
  lines.close()
  const missing = questions[answers.length]
  if (missing !== undefined) throw new Stop(`Nothing was done: no answer came to “${missing.text.trim()}”`)
  return answers
}

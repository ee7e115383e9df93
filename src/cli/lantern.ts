/** The command line: the core, scriptable. Results on standard output, errors on standard error. */
import { run } from './run'

// Whoever reads the output may have read enough: `lantern … | head`.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error
  process.exit()
})

process.exitCode = await run(process.argv.slice(2), {
  out: (line) => process.stdout.write(`${line}\n`),
  error: (line) => process.stderr.write(`${line}\n`),
})

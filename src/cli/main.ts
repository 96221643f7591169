const explanation = `Zircon Frame: architectural plans in, calculation models out.

  ./run demo [--fresh] [--port N]   set up, load the demo, build and serve on 127.0.0.1
  ./run serve [--port N]            the same without the demo's projects, for an office
  ./run dev [--port N]              the same with live rebuilding
  ./run build                       install and build, without starting: for an image
  ./run worker                      one more process for background work (DATABASE_URL of the server)
  ./run backup <file> [--project <name or id>]
                                    everything, or one project, into one file, while the server goes on
  ./run restore <file> [--project <name or id>]
                                    put projects of a backup beside those that are there, as copies
  ./run compact <days>              take edits older than that out of the log
  ./run convert <drawing.dxf> [...] --out <folder> [--settings <file.json>]
                                    model.json, intake.json and model.dxf; no database, no browser
  ./run check <model.json> --out <folder>
                                    findings.json: what is wrong with a model, found without its drawings
  ./run trial <model.json> --kind structure|heat|lighting --out <folder>
                                    a calculation: structure.json, heat.json or lighting.json
  ./run export <model.json> --to ifc,gbxml,xlsx,csv,analysis,pdf,svg,results,report,dxf,json --out <folder>
                                    the model in open formats
  ./run test [unit|e2e|...]         type check, lint, unit tests, interface tests
  ./run bench                       reading time and memory beside public parsers
  ./run fuzz [files]                read damaged files and tell which end wrongly
  ./run screenshots                 make docs/screenshots again from the demo
  ./run schema                      make docs/model.schema.json and docs/routes.md again
  ./run kernel                      assemble the solver's kernel again

Settings: DATABASE_URL, ZIRCON_MAX_UPLOAD_MB (512), ZIRCON_HOSTS (names this server answers to); see README.md.`;

const commands: Record<string, () => Promise<{ run: (args: string[]) => Promise<number> }>> = {
  backup: async () => ({ run: (await import('./backup')).backup }),
  restore: async () => ({ run: (await import('./backup')).restore }),
  compact: async () => ({ run: (await import('./backup')).compact }),
  check: async () => ({ run: (await import('./check')).check }),
  trial: async () => ({ run: (await import('./trial')).trial }),
  export: async () => ({ run: (await import('./exportModel')).exportModel }),
  convert: async () => ({ run: (await import('./convert')).convert }),
  demo: async () => ({ run: (await import('./demo')).demo }),
  dev: async () => ({ run: (await import('./demo')).dev }),
  serve: async () => ({ run: (await import('./demo')).serveAlone }),
  build: async () => ({ run: (await import('./build')).buildAlone }),
  worker: async () => ({ run: (await import('./worker')).worker }),
  test: async () => ({ run: (await import('./test')).test }),
  bench: async () => ({ run: (await import('../../bench/bench')).bench }),
  fuzz: async () => ({ run: (await import('../../bench/fuzz')).fuzz }),
  screenshots: async () => ({ run: (await import('./screenshots')).screenshots }),
  schema: async () => ({ run: (await import('./schema')).schema }),
  kernel: async () => ({ run: (await import('./kernel')).kernel }),
};

const [command, ...args] = process.argv.slice(2);
const load = commands[command ?? ''];
if (!load) {
  console.log(explanation);
  process.exit(command === undefined || command === 'help' || command === '--help' ? 0 : 2);
}
const { run } = await load();
process.exitCode = await run(args);
export {};

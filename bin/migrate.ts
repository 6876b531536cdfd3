import { migrate } from '@/server/db/migrate';

/* Run by the start command: connection options come as JSON in the environment, so that no password stands in the arguments. */
const options = JSON.parse(process.env.POLYDROME_MIGRATE ?? '{}') as Parameters<typeof migrate>[0];

migrate(options, 'src/server/db/migrations')
  .then((steps) => {
    if (steps > 0) console.log(`Database brought up to date: ${steps} steps.`);
  })
  .catch((e: unknown) => {
    console.error(`Database could not be brought up to date: ${(e as Error).message}`);
    process.exitCode = 1;
  });

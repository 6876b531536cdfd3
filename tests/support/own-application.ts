/* Each of Jest's workers has an application of its own: what runs side by side never meets in one database. */
const applications = JSON.parse(process.env.POLYDROME_APPLICATIONS ?? '[]') as Record<string, string>[];
Object.assign(process.env, applications[Number(process.env.JEST_WORKER_ID ?? 1) - 1]);

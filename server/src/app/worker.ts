/** A process that only works on the queue, for a further machine. */
import { pino } from 'pino';
import { readConfig } from './config';
import { createServices, startWorking } from './services';
import { onShutdown, tellParent } from './process';

async function main(): Promise<void> {
  const settings = readConfig(process.env);
  const config = { ...settings, spoolDir: `${settings.spoolDir}-worker-${process.pid}` };
  const services = await createServices(config);
  const stopWorking = await startWorking(config, services, pino({ level: config.logLevel, base: null }));
  tellParent({ ready: true, port: 0 });
  onShutdown(async () => {
    await stopWorking();
    await services.sequelize.close();
  });
}

main().catch((error: unknown) => {
  tellParent({ problem: error instanceof Error ? error.message : String(error) });
  process.exit(1);
});

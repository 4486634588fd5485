import { run, readyPackages } from './ready.mjs';

readyPackages();
process.exit(
  run('npx', ['expo', 'start', '--web', ...process.argv.slice(2)], {
    env: { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1' },
  }),
);
